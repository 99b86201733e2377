/** As what a report is written. */
export const REPORT_FORMATS = [
  'html',
  'pdf',
  'md',
  'json',
  'csv',
  'svg',
  'card-svg',
  'card-png',
] as const;
export type ReportFormat = (typeof REPORT_FORMATS)[number];

export const PAPERS = ['A4', 'LETTER'] as const;
export type Paper = (typeof PAPERS)[number];
