import type { Root, RootContent } from 'mdast';
import { gfmTableToMarkdown } from 'mdast-util-gfm-table';
import { toMarkdown } from 'mdast-util-to-markdown';
import type { Report } from '@zugluft/core/report/report';

/** A document tree as Markdown, with tables. */
export const markdown = (tree: Root): string =>
  toMarkdown(tree, { bullet: '-', extensions: [gfmTableToMarkdown()] });

/**
 * A report as Markdown.
 *
 * @param fileOf where the picture of a chart lies, by its address in the tree
 */
export const reportMarkdown = ({ tree }: Report, fileOf: (chart: string) => string): string =>
  markdown({ ...tree, children: tree.children.map((n) => withFiles(n, fileOf)) });

function withFiles(node: RootContent, fileOf: (chart: string) => string): RootContent {
  if (node.type !== 'paragraph') return node;
  return {
    ...node,
    children: node.children.map((c) =>
      c.type === 'image' && c.url.startsWith('chart:') ? { ...c, url: fileOf(c.url) } : c,
    ),
  };
}
