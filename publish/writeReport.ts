import { CARD_SIZES, type CardSize } from '@zugluft/core/report/cardChart';
import type { Report } from '@zugluft/core/report/report';
import { WATTS_CHART } from '@zugluft/core/report/report';
import { figuresCsv } from '@zugluft/core/report/reportFigures';
import { reportHtml } from './html';
import { reportMarkdown } from './markdown';
import type { Paper, ReportFormat } from './formats';
import { reportPdf } from './pdf';
import { chartPng, chartSvg } from './svg';

export interface WrittenFile {
  name: string;
  bytes: Buffer;
}

/**
 * A report as files: the one that was asked for first, and beside it what it needs. Markdown has its charts as SVG and as PNG.
 *
 * @param base name of the first file
 * @throws RangeError where a chart alone is wanted and the report has none
 */
export async function writeReport(
  report: Report,
  format: ReportFormat,
  base: string,
  options: { paper?: Paper; size?: CardSize } = {},
): Promise<WrittenFile[]> {
  const one = (bytes: Buffer | string): WrittenFile[] => [
    { name: base, bytes: Buffer.from(bytes) },
  ];
  switch (format) {
    case 'html':
      return one(reportHtml(report));
    case 'pdf':
      return one(await reportPdf(report, options));
    case 'json':
      return one(`${JSON.stringify(report.document, null, 2)}\n`);
    case 'csv':
      return one(figuresCsv(report.figures));
    case 'svg': {
      const chart = report.charts[WATTS_CHART];
      if (!chart) throw new RangeError('there is no level among the caps to draw against');
      return one(chartSvg(chart));
    }
    case 'card-svg':
      return one(chartSvg(report.cardOf(options.size ?? CARD_SIZES[0])));
    case 'card-png':
      return one(chartPng(report.cardOf(options.size ?? CARD_SIZES[0]), 1));
    case 'md': {
      const stem = base.replace(/\.[^.]*$/, '');
      const fileOf = (chart: string, ending = 'svg') =>
        `${stem}-${chart.replace(/^chart:/, '')}.${ending}`;
      return [
        ...one(reportMarkdown(report, (chart) => encodeURI(fileOf(chart)))),
        ...Object.entries(report.charts).flatMap(([url, chart]) => [
          { name: fileOf(url), bytes: Buffer.from(chartSvg(chart)) },
          { name: fileOf(url, 'png'), bytes: chartPng(chart) },
        ]),
      ];
    }
  }
}
