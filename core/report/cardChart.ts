import { wattsText } from '../case/answerWords';
import { bandText } from '../verdict/bandWords';
import { capPhrase } from '../verdict/sentences';
import type { Verdict } from '../verdict/verdict';
import { AIR, cutTo, HEAT, INK, QUIET, RULE, widthOf, type Chart, type Mark } from './chart';
import { wattsChart, type MeasuredMark } from './wattsChart';

/** Sizes of a card, in pixels: for an article, for a square, for a small place. */
export const CARD_SIZES = ['1200x675', '1080x1080', '800x450'] as const;
export type CardSize = (typeof CARD_SIZES)[number];

const MARGIN = 0.05;
/** Lines of the headline at most. */
const MOST_LINES = 4;

/** Width and height of a card. */
export function cardSizeOf(size: CardSize): { width: number; height: number } {
  const [width, height] = size.split('x').map(Number) as [number, number];
  return { width, height };
}

/**
 * Words in lines no wider than a width, of which the last is cut where there are more than fit.
 *
 * @param text one line
 * @param most lines
 */
export function linesOf(text: string, size: number, width: number, most: number): string[] {
  const lines: string[] = [];
  let line = '';
  for (const word of text.split(/\s+/).filter(Boolean)) {
    const longer = line ? `${line} ${word}` : word;
    if (line && widthOf(longer, size) > width) {
      lines.push(line);
      line = word;
    } else line = longer;
  }
  if (line) lines.push(line);
  const shown = lines.slice(0, most);
  if (lines.length > most) shown[most - 1] = `${shown[most - 1]} …`;
  return shown.map((l) => cutTo(l, size, width));
}

/**
 * One machine as a picture for an article: its name, the watts at the cap that is judged, the headline, and watts against noise.
 *
 * @param verdict what the figures come to
 * @param measured steady states with a level
 * @param conditions a line at the foot: room, firmware, whether it was run
 * @param size of the picture
 */
export function cardChart(
  verdict: Verdict,
  measured: readonly MeasuredMark[],
  conditions: string,
  size: CardSize,
): Chart {
  const { width, height } = cardSizeOf(size);
  const margin = Math.round(MARGIN * width);
  const inner = width - 2 * margin;
  const unit = width / 1200;
  const main = verdict.at.find((a) => a.cap === verdict.cap)!;
  const marks: Mark[] = [];
  let y = margin;
  const text = (
    words: string,
    points: number,
    colour: string,
    bold = false,
    x = margin,
    anchor: 'start' | 'end' = 'start',
  ) =>
    marks.push({
      kind: 'text',
      at: [x, y],
      text: words,
      size: points,
      colour,
      anchor,
      ...(bold ? { bold } : {}),
    });
  const name = 34 * unit;
  y += name;
  text(cutTo(verdict.name, name, inner), name, INK, true);
  const figure = 64 * unit;
  y += figure * 1.25;
  const watts = `${wattsText(main.watts.p50)} W`;
  text(watts, figure, HEAT, true);
  const beside = margin + widthOf(watts, figure) + 16 * unit;
  const small = 26 * unit;
  marks.push({
    kind: 'text',
    at: [beside, y],
    text: cutTo(
      `${capPhrase(verdict.cap)}, ${bandText(main.watts)} W`,
      small,
      width - margin - beside,
    ),
    size: small,
    colour: AIR,
    anchor: 'start',
  });
  const head = 24 * unit;
  for (const line of linesOf(saidBelow(verdict, main.heldBack), head, inner, MOST_LINES)) {
    y += head * 1.4;
    text(line, head, INK);
  }
  y += head;
  const foot = 18 * unit;
  const bottom = height - margin;
  const levels = verdict.at.flatMap((a) =>
    typeof a.cap === 'number' ? [{ levelDbA: a.cap, watts: a.watts }] : [],
  );
  const room = { width: inner, height: bottom - foot * 2 - y };
  if (levels.length > 0 && room.height > 60 * unit) {
    // drawn for paper, so that its letters grow with the card
    const scale = Math.max(1, 1.9 * unit);
    const chart = wattsChart(levels, measured, {
      width: room.width / scale,
      height: room.height / scale,
    });
    marks.push(...chart.marks.map((m) => moved(m, margin, y, scale)));
  }
  marks.push(ruleAt(bottom - foot * 1.5, margin, width));
  y = bottom;
  text(cutTo(conditions, foot, inner), foot, QUIET);
  return { width, height, alt: `${verdict.name}. ${verdict.headline} ${conditions}`, marks };
}

/** The line above the foot of a card. */
export const ruleAt = (y: number, margin: number, width: number): Mark => ({
  kind: 'line',
  points: [
    [margin, y],
    [width - margin, y],
  ],
  colour: RULE,
  width: 1,
});

/** What stands below the figure: what holds it back, and the reasons. */
const saidBelow = ({ reasons }: Verdict, heldBack: string): string =>
  [heldBack && `Held back by ${heldBack}.`, ...reasons].filter(Boolean).join(' ');

/** A mark of a drawing within another one. */
export function moved(mark: Mark, x: number, y: number, scale: number): Mark {
  const place = ([px, py]: readonly [number, number]) => [x + px * scale, y + py * scale] as const;
  switch (mark.kind) {
    case 'line':
      return { ...mark, points: mark.points.map(place), width: mark.width * scale };
    case 'area':
      return { ...mark, points: mark.points.map(place) };
    case 'diamond':
    case 'text':
      return { ...mark, at: place(mark.at), size: mark.size * scale };
  }
}
