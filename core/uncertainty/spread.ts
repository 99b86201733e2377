import { DEFAULTS, type Default } from '../record/defaults';
import { fieldAt } from '../record/fieldTable';
import type { FigureDetail } from '../record/figure';
import type { CaseInput, LabDefaults } from '../record/resolver';

/** How a figure is drawn, and the cause it shares with others. */
export interface Spread {
  /** Figures of one group are drawn together, from one column. */
  group: string;
  /** Its value by a standard normal variable. */
  at: (z: number) => number;
  /** One standard deviation over the value, near the middle. */
  relative: number;
  /** Of a length off a photo: what it has in common with all others off that photo, and what is its own. */
  shared?: { group: string; relative: number; ownAt: (z: number) => number };
}

/** z of the 95 % quantile: ranges are 5–95 % intervals. */
const Z95 = 1.6448536269514722;
/** Unset ± by origin, as shares (common practice, no source). */
const BY_ORIGIN = { measured: 0.01, label: 0.02, photo: 0.04, estimated: 0.2, assumed: 0.2 };
const CALLIPER_MM = 0.1;
/** What a label's temperature is sure to, K. */
const LABEL_K = 1;
/** A calliper's 0.1 mm would be most of a thin fin; thin parts are measured with finer means. */
const CALLIPER_AT_MOST = 0.05;

/**
 * One standard deviation of a recorded figure.
 *
 * Its own ± where there is one. Else by origin: measured 1 %, lengths at least 0.1 mm but at most 5 %; label 2 %; photo 4 %;
 * estimated 20 %; a label's temperature 1 K. A plain number counts as measured. Counts are exact unless estimated.
 */
export function recordedDeviation(
  path: string,
  value: number,
  figure: number | FigureDetail,
): number {
  const detail = typeof figure === 'number' ? undefined : figure;
  if (detail?.plusMinus !== undefined) return detail.plusMinus;
  const origin = detail?.origin ?? 'measured';
  const size = Math.abs(value);
  const field = fieldAt(path);
  const kind = field?.plusMinus;
  if (kind === 'count' && origin !== 'estimated' && origin !== 'assumed') return 0;
  const share = BY_ORIGIN[origin];
  // a share of degrees would depend on where the scale begins
  if (origin === 'label' && field?.unit === '°C') return LABEL_K;
  if (origin === 'measured' && kind === 'length') {
    return Math.max(share * size, Math.min(CALLIPER_MM, CALLIPER_AT_MOST * size));
  }
  return share * size;
}

/** Figures that may be zero or below, or whose scale has no natural zero, are drawn from a normal distribution. */
function isNormal(unit: string, low: number): boolean {
  return low <= 0 || unit === '°C' || unit === 'dB(A)' || unit === 'dB';
}

const logit = (p: number) => Math.log(p / (1 - p));

/**
 * A share between 0 and 1 whose median and 5–95 % range are met: normal in its logit, with a deviation of its own on either
 * side. A beta distribution has two parameters and misses one of the three; on a narrow range its fit runs away.
 */
function ofShare(value: number, low: number, high: number): Spread['at'] {
  const middle = logit(value);
  const down = (middle - logit(low)) / Z95;
  const up = (logit(high) - middle) / Z95;
  return (z) => {
    return 1 / (1 + Math.exp(-(middle + z * (z < 0 ? down : up))));
  };
}

/** The 5–95 % range of a recorded share: as its ± says, kept above 0 and below 1. */
function rangeOfShare(value: number, sd: number): [low: number, high: number] {
  const low = value - Z95 * sd;
  const high = value + Z95 * sd;
  return [
    low > 0 ? low : value / (1 + (Z95 * sd) / value),
    high < 1 ? high : 1 - (1 - value) / (1 + (Z95 * sd) / (1 - value)),
  ];
}

/** A distribution whose median and 5–95 % range are met on both sides. */
function ofRange(value: number, low: number, high: number, d: Default): Spread['at'] {
  if (d.share && low > 0 && low <= value && value <= high && high < 1) {
    return ofShare(value, low, high);
  }
  if (isNormal(d.unit, low)) {
    const down = (value - low) / Z95;
    const up = (high - value) / Z95;
    return (z) => value + z * (z < 0 ? down : up);
  }
  const down = Math.log(value / low) / Z95;
  const up = Math.log(high / value) / Z95;
  return (z) => value * Math.exp(z * (z < 0 ? down : up));
}

/**
 * How an input of a case is drawn, or null where it is exact.
 *
 * @param input as the resolver noted it
 * @param lab a lab's own defaults
 */
export function spreadOf(input: CaseInput, lab: LabDefaults = {}): Spread | null {
  const { path, value } = input;
  if (input.recorded === null) {
    const d = DEFAULTS[input.key] as Default;
    if (!(input.high > input.low)) return null;
    const middle = Math.max(Math.abs(value), 1e-12);
    return spread(
      path,
      (input.high - input.low) / (2 * Z95) / middle,
      ofRange(value, input.low, input.high, d),
    );
  }
  const detail = typeof input.recorded === 'number' ? undefined : input.recorded;
  if (detail?.origin === 'assumed' && detail.plusMinus === undefined && input.key) {
    const d = DEFAULTS[input.key] as Default;
    const of = lab[input.key] ?? d;
    if (of.value > 0 && value > 0 && !isNormal(d.unit, of.low)) {
      const scale = value / of.value;
      const relative = (of.high - of.low) / (2 * Z95) / of.value;
      const high = d.share ? Math.min(0.99, of.high * scale) : of.high * scale;
      return spread(path, relative, ofRange(value, of.low * scale, high, d));
    }
  }
  const sd = recordedDeviation(path, value, input.recorded);
  if (!(sd > 0)) return null;
  const kind = fieldAt(path)?.plusMinus;
  const isShare = kind === 'share';
  if (isShare && value > 0 && value < 1) {
    return spread(groupOf(path, detail), sd / value, ofShare(value, ...rangeOfShare(value, sd)));
  }
  const normal = isShare || value <= 0 || kind === 'level';
  const log = Math.log1p(sd / Math.max(Math.abs(value), 1e-12));
  const common = normal ? 0 : scaleShareOf(detail, sd / value);
  if (common > 0) {
    const own = Math.sqrt(Math.max(0, log * log - common * common));
    return {
      ...spread(groupOf(path, detail), sd / value, (z) => value * Math.exp(log * z)),
      shared: {
        group: photoGroup(detail),
        relative: common,
        ownAt: (z) => value * Math.exp(own * z),
      },
    };
  }
  return spread(groupOf(path, detail), sd / Math.max(Math.abs(value), 1e-12), (z) => {
    if (!normal) return value * Math.exp(log * z);
    const x = value + sd * z;
    // nothing or everything: what lies beyond is the same
    return isShare ? Math.min(1, Math.max(0, x)) : x;
  });
}

function spread(group: string, relative: number, at: Spread['at']): Spread {
  return { group, relative, at };
}

/** A point of a curve or a sweep, as it stands in a path. */
const POINT = /^(fans\.[^.]+\.curve|noise\.sweep)\.\d+\./;

/** Lengths off one photo share its scale; the points of one curve or sweep their instrument. */
function groupOf(path: string, detail: FigureDetail | undefined): string {
  if (detail?.origin !== 'photo' || detail.plusMinus !== undefined) {
    return path.replace(POINT, '$1.');
  }
  return photoGroup(detail);
}

const photoGroup = (detail: FigureDetail | undefined): string =>
  `photo ${typeof detail?.['photo'] === 'string' ? detail['photo'] : 'scale'}`;

/** Share by which the scale of its photo may be off, at most all of its ±; 0 where it is none of a photo with marks. */
function scaleShareOf(detail: FigureDetail | undefined, relative: number): number {
  if (detail?.origin !== 'photo' || detail.plusMinus === undefined) return 0;
  const share = detail['scaleShare'];
  return typeof share === 'number' && share > 0 ? Math.log1p(Math.min(share, relative)) : 0;
}
