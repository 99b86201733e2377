import type { Cap } from '../envelope/fanStates';
import { plural } from '../record/plural';
import { capPhrase } from '../verdict/sentences';
import { barsChart, barsHeight, type Bar } from './barsChart';
import { cardSizeOf, linesOf, moved, ruleAt, type CardSize } from './cardChart';
import { cutTo, INK, QUIET, type Chart, type Mark } from './chart';

const MARGIN = 0.05;
/** Letters of the bars over those on paper, at a width of 1200: as large as they fit, never smaller than can be read. */
const [LARGEST, LEAST] = [2.8, 1.5];

/**
 * Machines of a comparison as a picture for an article: ranked bars with bands at a cap.
 *
 * @param bars in the order of the ranking, at least one; those that find no room are counted at the foot
 * @param cap that they are compared at
 * @param said what is sure about the first ones, or nothing
 * @param conditions a line at the foot
 * @param size of the picture
 */
export function comparisonCard(
  bars: readonly Bar[],
  cap: Cap,
  said: string,
  conditions: string,
  size: CardSize,
): Chart {
  const { width, height } = cardSizeOf(size);
  const margin = Math.round(MARGIN * width);
  const inner = width - 2 * margin;
  const unit = width / 1200;
  const marks: Mark[] = [];
  let y = margin;
  const line = (words: string, points: number, colour: string, bold = false) => {
    y += points * 1.45;
    marks.push({
      kind: 'text',
      at: [margin, y],
      text: cutTo(words, points, inner),
      size: points,
      colour,
      anchor: 'start',
      ...(bold ? { bold } : {}),
    });
  };
  line(`Sustained watts ${capPhrase(cap)}`, 38 * unit, INK, true);
  line('CPU and GPU together, W: median, and the band from 5 to 95 %', 22 * unit, QUIET);
  for (const words of linesOf(said, 22 * unit, inner, 2)) line(words, 22 * unit, INK);
  y += 14 * unit;
  const foot = 18 * unit;
  const room = height - margin - 2.2 * foot - y;
  const scaleFor = (n: number) => Math.min(LARGEST * unit, room / barsHeight(n));
  let shown = bars.length;
  while (shown > 1 && scaleFor(shown) < LEAST * unit) shown--;
  const scale = scaleFor(shown);
  const what = `watts sustained ${capPhrase(cap)}`;
  const chart = barsChart(bars.slice(0, shown), inner / scale, what);
  marks.push(...chart.marks.map((m) => moved(m, margin, y, scale)));
  const bottom = height - margin;
  marks.push(ruleAt(bottom - foot * 1.5, margin, width));
  y = bottom - foot * 1.45;
  const more = bars.length - shown;
  line(
    [more > 0 && `${plural(more, 'machine')} more`, conditions].filter(Boolean).join('; '),
    foot,
    QUIET,
  );
  return { width, height, alt: [chart.alt, said, conditions].filter(Boolean).join(' '), marks };
}
