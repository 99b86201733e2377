import type { Element, ElementContent, Root as Page } from 'hast';
import { toHtml } from 'hast-util-to-html';
import type { Root } from 'mdast';
import { toHast } from 'mdast-util-to-hast';
import { chartTree } from '@zugluft/core/report/chartTree';
import type { Report } from '@zugluft/core/report/report';

const STYLE = `body{font:16px/1.5 'Hanken Grotesk',system-ui,sans-serif;max-width:46rem;margin:2rem auto;padding:0 1rem;color:#14201b;background:#fff;overflow-wrap:anywhere}
h1,h2,h3{line-height:1.2}h2{margin-top:2rem}h3{margin-bottom:.3rem}ul,ol{padding-left:1.4rem;margin:.3rem 0}
blockquote{border-left:3px solid #b0400f;padding-left:.7rem;margin:.4rem 0}blockquote p{margin:0}
table{border-collapse:collapse;width:100%;font-variant-numeric:tabular-nums}th,td{text-align:left;vertical-align:top;padding:.3rem .5rem;border-bottom:1px solid #cfd3c9}th[align=right],td[align=right]{text-align:right}
th,td{overflow-wrap:normal}td:first-child{overflow-wrap:anywhere}@media screen and (max-width:40rem){table{display:block;overflow-x:auto}td:first-child{min-width:9rem}}
img{max-width:100%;max-height:24rem;border:1px solid #cfd3c9;margin:.4rem .4rem 0 0}svg{max-width:100%;height:auto}
section,tr,svg{break-inside:avoid}@media print{body{margin:0;font-size:11pt}}`;

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

/**
 * A document tree as one HTML page that needs nothing beside it, runs no script and prints.
 *
 * @param tree the document
 * @param drawings what stands for a picture, by its address
 */
export function htmlPage(tree: Root, drawings: ReadonlyMap<string, Element> = new Map()): string {
  const body = toHast(tree);
  const nodes = ('children' in body ? body.children : [body]) as ElementContent[];
  if (drawings.size > 0) putDrawings(nodes, drawings);
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

function putDrawings(nodes: ElementContent[], drawings: ReadonlyMap<string, Element>): void {
  nodes.forEach((node, i) => {
    if (node.type !== 'element') return;
    const drawing =
      node.tagName === 'img' ? drawings.get(decodeURI(String(node.properties['src']))) : undefined;
    if (drawing) nodes[i] = drawing;
    else putDrawings(node.children, drawings);
  });
}

/** A report as one self-contained HTML page, its charts as vectors. */
export const reportHtml = ({ tree, charts }: Report): string =>
  htmlPage(tree, new Map(Object.entries(charts).map(([url, chart]) => [url, chartTree(chart)])));
