import { TEXT_FONT } from '../../documents/answer/timeChartParts';

const measure = document.createElement('canvas').getContext('2d');

/** Pixels that a label of a chart takes; a fraction more, so that a whole name is not cut by rounding. */
export function textWidthPx(text: string): number {
  if (!measure) return 0;
  measure.font = `12px ${TEXT_FONT}`;
  return Math.ceil(measure.measureText(text).width) + 1;
}
