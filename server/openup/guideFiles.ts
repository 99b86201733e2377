import type { Element, ElementContent, Root as Page } from 'hast';
import { toHtml } from 'hast-util-to-html';
import type { Root } from 'mdast';
import { toHast } from 'mdast-util-to-hast';
import { toMarkdown } from 'mdast-util-to-markdown';

const STYLE = `body{font:16px/1.5 system-ui,sans-serif;max-width:46rem;margin:2rem auto;padding:0 1rem;color:#14201b;background:#fff}
h1,h2,h3{line-height:1.2}h3{margin-bottom:.3rem}ul,ol{padding-left:1.4rem;margin:.3rem 0}
blockquote{border-left:3px solid #b0400f;padding-left:.7rem;margin:.4rem 0}blockquote p{margin:0}
img{max-width:100%;max-height:24rem;border:1px solid #cfd3c9;margin:.4rem .4rem 0 0}
section{break-inside:avoid}@media print{body{margin:0;font-size:11pt}}`;

/** A guide's tree as Markdown (CommonMark). */
export function guideMarkdown(tree: Root): string {
  return toMarkdown(tree, { bullet: '-' });
}

const element = (
  tagName: string,
  properties: Element['properties'],
  ...children: ElementContent[]
): Element => ({ type: 'element', tagName, properties, children });
const text = (value: string) => ({ type: 'text' as const, value });

/** What stands under a heading of a step goes with it, so that it is printed on one page. */
function inSections(nodes: readonly ElementContent[]): ElementContent[] {
  const out: ElementContent[] = [];
  let section: Element | null = null;
  for (const node of nodes) {
    const tag = node.type === 'element' ? node.tagName : '';
    if (tag === 'h3') out.push((section = element('section', {})));
    else if (tag === 'h1' || tag === 'h2') section = null;
    (section?.children ?? out).push(node);
  }
  return out;
}

/** A guide's tree as one HTML page that needs nothing beside it and prints. */
export function guideHtml(tree: Root): string {
  const body = toHast(tree);
  const nodes = ('children' in body ? body.children : [body]) as ElementContent[];
  const h1 = nodes.find((n): n is Element => n.type === 'element' && n.tagName === 'h1');
  const title = h1?.children.map((n) => (n.type === 'text' ? n.value : '')).join('') ?? '';
  const page: Page = {
    type: 'root',
    children: [
      { type: 'doctype' },
      element(
        'html',
        { lang: 'en' },
        element(
          'head',
          {},
          element('meta', { charSet: 'utf-8' }),
          element('meta', { name: 'viewport', content: 'width=device-width' }),
          element('title', {}, text(title)),
          element('style', {}, text(STYLE)),
        ),
        element('body', {}, ...inSections(nodes)),
      ),
    ],
  };
  return `${toHtml(page, { characterReferences: { useNamedReferences: true } })}\n`;
}
