import { Resvg } from '@resvg/resvg-js';
import { createRequire } from 'node:module';
import type { Element } from 'hast';
import { find, svg } from 'property-information';
import type { Element as XmlElement } from 'xast';
import { toXml } from 'xast-util-to-xml';
import type { Chart } from '@zugluft/core/report/chart';
import { chartTree } from '@zugluft/core/report/chartTree';

const PAPER = '#ffffff';

/** A drawing as an SVG file of its own. */
export const chartSvg = (chart: Chart): string =>
  `<?xml version="1.0" encoding="UTF-8"?>\n${toXml(xmlOf(chartTree(chart, PAPER)), { closeEmptyElements: true })}\n`;

/** The same element for a writer of XML, which is stricter than HTML about what stands in an attribute. */
const xmlOf = ({ tagName, properties, children }: Element): XmlElement => ({
  type: 'element',
  name: tagName,
  attributes: Object.fromEntries(
    Object.entries(properties).map(([name, value]) => [
      find(svg, name).attribute,
      Array.isArray(value) ? value.join(' ') : String(value),
    ]),
  ),
  children: children.flatMap((c): XmlElement['children'] => {
    if (c.type === 'element') return [xmlOf(c)];
    return c.type === 'text' ? [{ type: 'text', value: c.value }] : [];
  }),
});

const require = createRequire(import.meta.url);
const WIDE = require.resolve('dejavu-fonts-ttf/ttf/DejaVuSans.ttf');
const WIDE_BOLD = require.resolve('dejavu-fonts-ttf/ttf/DejaVuSans-Bold.ttf');

/**
 * A drawing as a PNG file, with the faces that ship with the program and none of the machine's.
 *
 * @param scale pixels for a point
 */
export function chartPng(chart: Chart, scale = 2): Buffer {
  const resvg = new Resvg(chartSvg(chart), {
    fitTo: { mode: 'zoom', value: scale },
    font: {
      loadSystemFonts: false,
      fontFiles: [WIDE, WIDE_BOLD],
      defaultFontFamily: 'DejaVu Sans',
      sansSerifFamily: 'DejaVu Sans',
    },
  });
  return Buffer.from(resvg.render().asPng());
}
