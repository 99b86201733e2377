import type {
  BlockContent,
  DefinitionContent,
  Paragraph,
  PhrasingContent,
  RootContent,
} from 'mdast';
import { fromMarkdown } from 'mdast-util-from-markdown';
import { plainLine, textNode } from '../exchange/tree';

type Block = BlockContent | DefinitionContent | RootContent;

/**
 * What somebody wrote in Markdown, as pieces of a report: paragraphs, lists, quotations, emphasis, and links to web pages and mail.
 * Headings weigh more than their paragraphs but are none of the report's; lists within lists stand as one. Code and markup of pages stand as the
 * text that they are, pictures as their words; no mark that turns the direction of letters and no control character is left.
 *
 * @param markdown CommonMark
 */
export const ownWords = (markdown: string): RootContent[] =>
  fromMarkdown(shallow(markdown)).children.flatMap((node): RootContent[] => {
    switch (node.type) {
      case 'thematicBreak':
        return [{ type: 'thematicBreak' }];
      case 'blockquote': {
        const children = node.children.flatMap(paragraphs);
        return children.length > 0 ? [{ type: 'blockquote', children }] : [];
      }
      case 'list': {
        const children = node.children.flatMap((item) => item.children.flatMap(paragraphs));
        return [
          {
            type: 'list',
            ordered: node.ordered ?? false,
            spread: false,
            children: children.map((p) => ({ type: 'listItem', spread: false, children: [p] })),
          },
        ];
      }
      default:
        return paragraphs(node);
    }
  });

/** Quotations and lists that may begin on one line, and emphasis within emphasis. */
const MAX_DEPTH = 5;
const MARK = /^[ \t]*(?:>|[-*+](?=[ \t])|\d{1,9}[.)](?=[ \t]))/;

/** Lines that begin more quotations and lists within each other than anybody means lose those of them that are too many. */
const shallow = (markdown: string): string =>
  markdown
    .split(/\r\n|\r|\n/)
    .map((line) => {
      let kept = '';
      let rest = line;
      for (let depth = 0; ; depth++) {
        const mark = MARK.exec(rest)?.[0];
        if (mark === undefined) return kept + rest;
        if (depth < MAX_DEPTH) kept += mark;
        rest = rest.slice(mark.length);
      }
    })
    .join('\n');

/** Whatever it holds as paragraphs one after the other. */
function paragraphs(node: Block): Paragraph[] {
  switch (node.type) {
    case 'heading':
      return one([{ type: 'strong', children: phrases(node.children) }]);
    case 'paragraph':
      return one(phrases(node.children));
    case 'blockquote':
      return node.children.flatMap(paragraphs);
    case 'list':
      return node.children.flatMap((item) => item.children.flatMap(paragraphs));
    case 'code':
      return node.value.split('\n').flatMap((line) => (line.trim() ? one([textNode(line)]) : []));
    case 'html':
      return one([textNode(node.value)]);
    default:
      return [];
  }
}

const one = (children: PhrasingContent[]): Paragraph[] =>
  children.length > 0 ? [{ type: 'paragraph', children }] : [];

function phrases(nodes: readonly PhrasingContent[], depth = 0): PhrasingContent[] {
  return nodes.flatMap((node): PhrasingContent[] => {
    switch (node.type) {
      case 'text':
      case 'inlineCode':
      case 'html':
        return [textNode(node.value)];
      case 'break':
        return [{ type: 'break' }];
      case 'emphasis':
      case 'strong':
        return depth < MAX_DEPTH
          ? [{ type: node.type, children: phrases(node.children, depth + 1) }]
          : phrases(node.children, depth);
      case 'link': {
        const children = phrases(node.children, depth);
        return isAddress(node.url)
          ? [{ type: 'link', url: plainLine(node.url), children }]
          : children;
      }
      case 'linkReference':
        return phrases(node.children, depth);
      case 'image':
      case 'imageReference':
        return node.alt ? [textNode(node.alt)] : [];
      default:
        return [];
    }
  });
}

/** An address that a reader may be sent to. */
function isAddress(url: string): boolean {
  try {
    return ['http:', 'https:', 'mailto:'].includes(new URL(url).protocol);
  } catch {
    return false;
  }
}
