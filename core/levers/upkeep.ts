import { openCase, type CaseRequest } from '../case/openCase';
import { sustainedTogether } from '../case/sustainedTogether';
import type { Cap } from '../envelope/fanStates';
import { DEFAULTS, type Default, type DefaultKey } from '../record/defaults';
import { figureValue } from '../record/figure';
import type { CaseRecord } from '../record/recordSchema';
import { SHOWN_DRAWS, SHOWN_SEED } from '../uncertainty/wattsBand';
import { sustainedBands } from '../uncertainty/sustainedBands';

/** Years after which something is worth doing; null: not within what is looked at. */
export interface PaysAfter {
  p05: number | null;
  p50: number | null;
  p95: number | null;
}

/** What time takes, and when undoing it pays. */
export interface UpkeepPart {
  /** Watts that renewal would bring so many years from now, at the median rate. */
  curve: { years: number; gainW: number }[];
  /** From now until renewal brings what is noticed, in watts. */
  pays: PaysAfter;
}

export interface Upkeep {
  hoursPerYear: number;
  /** Null where there are no fins. */
  dust: UpkeepPart | null;
  /** Null where dies are under different materials, or under one that does not age. */
  paste: UpkeepPart | null;
}

export interface UpkeepOptions {
  /** Hours of use in a year; the laboratory's default otherwise, with its range. */
  hoursPerYear?: number | undefined;
  /** Gain from which on it is noticed, W. */
  noticedW: number;
}

/** How far ahead is looked, years. */
export const AHEAD_YEARS = 12;
const CURVE_YEARS = [0, 0.5, 1, 1.5, 2, 3, 4, 5, 6, 8, 10, 12];
/** More lint than this is no longer a machine that is used. */
const MOST_LINT = 0.95;
const LINT_STEPS = 12;
/** The resistance of an interface stops growing at fourfold. */
const MOST_GROWTH = 3;
const GROWTH_STEPS = 6;
const v = figureValue;

/**
 * What dust and ageing interface material take with use, and when cleaning or renewing pays: the first moment at which it brings the
 * watts that are noticed.
 *
 * Lint fills a share s of what is still open in each thousand hours, `open(t) = open(0) (1 − s)^(h t / 1000)`; an interface grows by
 * its yearly share. The band comes from the ranges of these rates, which are wide; a cap's watts from the median of today's draws.
 *
 * @param request the case
 * @param cap at which the watts count
 * @param options hours, what is noticed
 * Source: both rates are common practice, no source.
 */
export function upkeep(request: CaseRequest, cap: Cap, options: UpkeepOptions): Upkeep {
  const open = openCase(request);
  const { ratio } = open;
  const [central] = sustainedTogether(open, [cap]);
  const [band] = sustainedBands(open, { caps: [cap], draws: SHOWN_DRAWS, seed: SHOWN_SEED });
  const toMedian = central! > 0 ? band!.p50 / central! : 1;
  const wattsOf = (record: CaseRecord): number => {
    // what a calibration learned holds for the machine as it is
    const other = openCase({ ...request, record, ratio: { ...ratio }, calibration: null });
    return sustainedTogether(other, [cap])[0]! * toMedian;
  };
  const of = (key: DefaultKey): Default => ({ ...DEFAULTS[key], ...request.lab?.defaults?.[key] });
  const hours = of('upkeep.hoursPerYear');
  const perYear = options.hoursPerYear ?? hours.value;
  const hourSpread =
    options.hoursPerYear === undefined ? spreadOf(hours) : { slower: 0, faster: 0 };
  return {
    hoursPerYear: perYear,
    dust: dustOf(
      request.record,
      wattsOf,
      of('upkeep.lintPerThousandHours'),
      perYear,
      hourSpread,
      options,
    ),
    paste: pasteOf(request.record, wattsOf, of, options),
  };
}

type Watts = (record: CaseRecord) => number;

/** Logarithms of how much slower and faster a rate may be. */
interface RateSpread {
  slower: number;
  faster: number;
}
const spreadOf = ({ value, low, high }: Pick<Default, 'value' | 'low' | 'high'>): RateSpread => ({
  slower: Math.log(value / low),
  faster: Math.log(high / value),
});

function dustOf(
  record: CaseRecord,
  wattsOf: Watts,
  share: Default,
  hoursPerYear: number,
  hourSpread: RateSpread,
  { noticedW }: UpkeepOptions,
): UpkeepPart | null {
  const stacks = record.finStacks ?? [];
  if (stacks.length === 0) return null;
  const now = Math.max(0, ...stacks.map((s) => v(s.lintShare) ?? 0));
  const withLint = (lint: number): CaseRecord => ({
    ...record,
    finStacks: stacks.map((s) => ({ ...s, lintShare: lint })),
  });
  const clean = wattsOf(withLint(0));
  const places = Array.from({ length: LINT_STEPS + 1 }, (_, i) => (MOST_LINT * i) / LINT_STEPS);
  const gains = places.map((lint) => Math.max(0, clean - wattsOf(withLint(lint))));
  // in units of a thousand hours at the median rate, −ln of what is open grows evenly
  const rate = -Math.log(1 - share.value);
  const yearsTo = (lint: number) => (Math.log((1 - now) / (1 - lint)) / rate / hoursPerYear) * 1000;
  const lintAt = (years: number) => 1 - (1 - now) * Math.exp((-rate * hoursPerYear * years) / 1000);
  const lint = firstReached(places, gains, noticedW);
  const rates = spreadOf({
    value: rate,
    low: -Math.log(1 - share.low),
    high: -Math.log(1 - share.high),
  });
  return {
    curve: CURVE_YEARS.map((years) => ({
      years,
      gainW: at(places, gains, Math.min(MOST_LINT, lintAt(years))),
    })),
    pays: paysAfter(lint === null ? null : yearsTo(lint), {
      slower: Math.hypot(rates.slower, hourSpread.slower),
      faster: Math.hypot(rates.faster, hourSpread.faster),
    }),
  };
}

function pasteOf(
  record: CaseRecord,
  wattsOf: Watts,
  of: (key: DefaultKey) => Default,
  { noticedW }: UpkeepOptions,
): UpkeepPart | null {
  const dies = record.dies ?? [];
  const kinds = [...new Set(dies.map((d) => d.interface?.kind ?? 'paste'))];
  const key = `dies.interface.ageingPerYear.${kinds[0]}`;
  if (kinds.length !== 1 || !(key in DEFAULTS)) return null;
  const rate = of(key as DefaultKey);
  if (!(rate.value > 0)) return null;
  const usualAge = of('dies.interface.ageYears').value;
  const now = Math.max(0, ...dies.map((d) => v(d.interface?.ageYears) ?? usualAge));
  const aged = (years: number): CaseRecord => ({
    ...record,
    dies: dies.map((d) => ({ ...d, interface: { ...d.interface, ageYears: years } })),
  });
  const fresh = wattsOf(aged(0));
  const places = Array.from(
    { length: GROWTH_STEPS + 1 },
    (_, i) => (MOST_GROWTH * i) / GROWTH_STEPS / rate.value,
  );
  const gains = places.map((years) => Math.max(0, fresh - wattsOf(aged(years))));
  const age = firstReached(places, gains, noticedW);
  return {
    curve: CURVE_YEARS.map((years) => ({ years, gainW: at(places, gains, now + years) })),
    // what has passed has aged at the same rate as what is to come
    pays: paysAfter(age, spreadOf(rate), now),
  };
}

/** Where a gain that grows first reaches something, straight between places; null where it never does. */
function firstReached(
  places: readonly number[],
  gains: readonly number[],
  wanted: number,
): number | null {
  const i = gains.findIndex((g) => g >= wanted);
  if (i < 0) return null;
  if (i === 0) return places[0]!;
  const [a, b] = [gains[i - 1]!, gains[i]!];
  return places[i - 1]! + ((wanted - a) / (b - a)) * (places[i]! - places[i - 1]!);
}

function at(places: readonly number[], gains: readonly number[], x: number): number {
  const last = places.length - 1;
  if (x >= places[last]!) return gains[last]!;
  const i = Math.max(
    1,
    places.findIndex((p) => p > x),
  );
  const t = Math.max(0, (x - places[i - 1]!) / (places[i]! - places[i - 1]!));
  return gains[i - 1]! + t * (gains[i]! - gains[i - 1]!);
}

/** A time with its band, less what has passed; beyond what is looked at it is none. */
function paysAfter(years: number | null, { slower, faster }: RateSpread, passed = 0): PaysAfter {
  const left = (factor: number): number | null => {
    if (years === null) return null;
    const x = Math.max(0, years * factor - passed);
    return x > AHEAD_YEARS ? null : x;
  };
  return { p05: left(Math.exp(-faster)), p50: left(1), p95: left(Math.exp(slower)) };
}
