import { ORIGINS, type Origin } from './figure';
import { shownUnit, tidy, toRecordUnit, type UnitPreference } from './units';

/** What was understood of a typed figure, in the record's unit. */
export interface ReadFigure {
  value: number;
  plusMinus?: number;
  origin?: Origin;
  /** Nothing but a number was typed: ± and origin stay as they are. */
  plain: boolean;
}

const NUMBER = String.raw`[+-]?(?:\d+(?:[.,]\d*)?|[.,]\d+)(?:e[+-]?\d+)?`;
const FRACTION = String.raw`(?:\d+\s+)?\d+\s*\/\s*\d+`;
const ABOUT = String.raw`(~|≈|(?:ca|circa|about|approx)\.?\s)?\s*`;
const QUANTITY = new RegExp(String.raw`^${ABOUT}(${FRACTION}|${NUMBER})\s*(.*)$`, 'iu');
/** From one to another: the second without a sign, which would be the dash. */
const RANGE = new RegExp(
  String.raw`^${ABOUT}(${FRACTION}|${NUMBER})\s*(?:-|to\s|\.\.)\s*(${FRACTION}|${NUMBER.replace('[+-]?', '')})\s*(.*)$`,
  'iu',
);
const PLUS_MINUS = /±|\+\/-|\+-/;

function numberOf(text: string): number {
  const fraction = /^(?:(\d+)\s+)?(\d+)\s*\/\s*(\d+)$/.exec(text);
  if (fraction) {
    return Number(fraction[1] ?? 0) + Number(fraction[2]) / Number(fraction[3]);
  }
  return Number(text.replace(',', '.'));
}

/**
 * Reads a figure as people type it: “24”, “2,5 cm”, “0.3 in”, “1/4 in”, “45 %”, “7.4 mm ± 0.1”, “~12 photo”, “about 12”,
 * “12?”, “12-14 mm”, which is 13 ± 1 mm, estimated.
 *
 * @param text what was typed
 * @param unit the record's unit for the field, `share` for shares, undefined where there is none
 * @param preference units in which plain numbers are read
 * @returns what was understood, undefined where nothing stands there, or the text itself where it is no figure
 * @example readFigure('7.4 mm ± 0.1', 'mm') // { value: 7.4, plusMinus: 0.1, plain: false }
 */
export function readFigure(
  text: string,
  unit: string | undefined,
  preference?: UnitPreference,
): ReadFigure | string | undefined {
  const trimmed = text.replace(/[\u2212\u2013]/g, '-').trim();
  if (trimmed === '') return undefined;
  const own = unit ?? 'count';
  const usual = preference && unit ? shownUnit(unit, preference) : own;
  const [head, tail, ...more] = trimmed.split(PLUS_MINUS);
  if (more.length) return text.trim();
  const range = tail === undefined && RANGE.exec(head!.trim());
  if (range) return rangeOf(range, own, usual) ?? text.trim();
  const quantity = QUANTITY.exec(head!.trim());
  if (!quantity) return text.trim();
  const doubted = quantity[3]!.endsWith('?');
  const { rest, ...taken } = takeOrigin(doubted ? quantity[3]!.slice(0, -1) : quantity[3]!);
  let { origin } = taken;
  if ((quantity[1] || doubted) && !origin) origin = 'estimated';
  let typed = rest || usual;
  let plusMinus: number | undefined;
  if (tail !== undefined) {
    const error = new RegExp(String.raw`^(${NUMBER})\s*(.*)$`, 'iu').exec(tail.trim());
    if (!error) return text.trim();
    const after = takeOrigin(error[2]!);
    if (after.origin) origin = after.origin;
    const size = Math.abs(numberOf(error[1]!));
    if (after.rest === '%' && own !== 'share') {
      const middle = convert(numberOf(quantity[2]!), typed, own, usual);
      if (middle === undefined) return text.trim();
      plusMinus = tidy((Math.abs(middle) * size) / 100);
    } else {
      // “7.4 ± 0.1 mm”: the unit behind both
      if (after.rest && !rest) typed = after.rest;
      plusMinus = convert(size, after.rest || typed, own, usual, true);
    }
    if (plusMinus === undefined) return text.trim();
  }
  const value = convert(numberOf(quantity[2]!), typed, own, usual);
  if (value === undefined || !Number.isFinite(value)) return text.trim();
  return {
    value,
    ...(plusMinus === undefined ? {} : { plusMinus }),
    ...(origin ? { origin } : {}),
    plain: plusMinus === undefined && !origin,
  };
}

/** “12-14 mm”: the middle, ± half of what lies between; estimated where no origin is said. */
function rangeOf(match: RegExpExecArray, own: string, usual: string): ReadFigure | undefined {
  const { rest, origin = 'estimated' } = takeOrigin(match[4]!);
  const [from, to] = [match[2]!, match[3]!].map((x) =>
    convert(numberOf(x), rest || usual, own, usual),
  );
  if (from === undefined || to === undefined) return undefined;
  const value = tidy((from + to) / 2);
  const plusMinus = tidy(Math.abs(to - from) / 2);
  if (!Number.isFinite(value) || !Number.isFinite(plusMinus)) return undefined;
  return { value, plusMinus, origin, plain: false };
}

function convert(
  value: number,
  typed: string,
  own: string,
  usual: string,
  step = false,
): number | undefined {
  if (typed === own) return value;
  return toRecordUnit(value, typed === usual ? usual : typed, own, step);
}

/** Takes a word for the origin off the end. */
function takeOrigin(text: string): { origin: Origin | undefined; rest: string } {
  const trimmed = text.trim().replace(/,\s*/g, ' ');
  const match = /(?:^|\s)([a-z]+)$/i.exec(trimmed);
  const word = match?.[1]?.toLowerCase();
  const origin = ORIGINS.find((o) => o === word);
  return origin
    ? { origin, rest: trimmed.slice(0, trimmed.length - word!.length).trim() }
    : { origin: undefined, rest: trimmed };
}
