import { Resvg } from '@resvg/resvg-js';
import { toHtml } from 'hast-util-to-html';
import { fileURLToPath } from 'node:url';
import type { Chart } from '@zugluft/core/report/chart';
import { chartTree } from '@zugluft/core/report/chartTree';

const PAPER = '#ffffff';

/** A drawing as an SVG file of its own. */
export const chartSvg = (chart: Chart): string =>
  `<?xml version="1.0" encoding="UTF-8"?>\n${toHtml(chartTree(chart, PAPER), {
    space: 'svg',
    closeEmptyElements: true,
    characterReferences: { useNamedReferences: false },
  })}\n`;

const WIDE = fileURLToPath(import.meta.resolve('dejavu-fonts-ttf/ttf/DejaVuSans.ttf'));
const WIDE_BOLD = fileURLToPath(import.meta.resolve('dejavu-fonts-ttf/ttf/DejaVuSans-Bold.ttf'));

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
