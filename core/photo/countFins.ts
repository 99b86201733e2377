import type { FinProfile } from './finProfile';
import { finPhase, finPlaces } from './finPhase';
import { finPitch } from './finPitch';
import { medianOf } from './median';

/** A place where a fin is, or should be. */
export interface FinPlace {
  /** Along the line, mm. */
  atMm: number;
  is: 'seen' | 'bridged' | 'missing';
}

/** Fins along a line. */
export interface FinCount {
  count: number;
  /** One standard deviation of the count. */
  plusMinus: number;
  pitchMm: number;
  pitchPlusMinusMm: number;
  /** Of a fin, where the picture tells it. */
  thicknessMm: number | null;
  /** It is no thicker than this. */
  thicknessAtMostMm: number;
  places: FinPlace[];
  pitchPx: number;
  notes: string[];
}

/**
 * Pixels a fin under which nothing is told, since finer ones look the same: f and 1 − f of a pixel are one pattern. Under the second it is said
 * that it is close.
 */
export const LEAST_PITCH_PX = 2.6;
const CLOSE_PITCH_PX = 2.9;
/** No fins of a notebook stand so far apart: what repeats so is a pattern that pixels make of finer ones (common practice, no source). */
export const MOST_PITCH_MM = 3;
/** Unless there are so many pixels that it cannot be. */
const SURE_PITCH_PX = 20;
/** Wider than usual at so few pixels: fins of the usual pitch, under two pixels each, would look so (common practice, no source). */
const USUAL_PITCH_MM = 1.6;
const UNSURE_PITCH_PX = 4;
/** Swing over mean light: under it what repeats may be no fins but a pattern of the pixels. */
const LEAST_SWING = 0.04;
/** A fin stands this share of what is usual over the gap beside it. */
const SEEN = 0.3;
const UNSURE = 0.12;
/** It stands this share over the gap on its other side too. */
const BOTH_SIDES = 0.12;
/** From so many pixels a fin its shape is seen; it is the thin part, and a gap is not so narrow. */
const SHAPE_PX = 5;
const MOSTLY_BRIGHT = 0.62;
/** Light of a fin, of what is usual. */
const AS_BRIGHT = 0.85;
/** So many fins that are not seen may lie between others. */
const LONGEST_GAP = 6;
/** Of a pitch, how wide a fin or a gap is looked at. */
const LOOK = 0.15;
const NEIGHBOURS = 8;

/**
 * Counts the fins along a profile: a fin is where light stands over the gap on one side of it at least, at a place where what
 * repeats puts one.
 *
 * @returns words where it cannot be told
 */
export function countFins(profile: FinProfile): FinCount | { why: 'fine' | 'nothing' } {
  const bright = countBright(profile);
  if ('why' in bright || bright.pitchPx < SHAPE_PX || bright.brightShare < MOSTLY_BRIGHT) {
    return bright;
  }
  // what is thin and dark is the fin: light comes through the gaps
  const dark = countBright({ ...profile, light: profile.light.map((x) => 1 - x) });
  if ('why' in dark) return bright;
  return { ...dark, notes: [...dark.notes, 'fins seen dark between bright gaps'] };
}

type Counted = FinCount & { brightShare: number };

function countBright(profile: FinProfile): Counted | { why: 'fine' | 'nothing' } {
  const { light, white, stepMm, stepPx } = profile;
  const pitch = finPitch(light, stepPx, MOST_PITCH_MM / stepMm);
  if (pitch === null) return { why: 'nothing' };
  const pitchPx = pitch * stepPx;
  if (pitchPx < LEAST_PITCH_PX) return { why: 'fine' };
  const pitchMm = pitch * stepMm;
  if (pitchMm > MOST_PITCH_MM && pitchPx < SURE_PITCH_PX) return { why: 'fine' };
  if (pitchMm > USUAL_PITCH_MM && pitchPx < UNSURE_PITCH_PX) return { why: 'fine' };
  const phase = finPhase(light, pitch);
  const slots = finPlaces(phase);
  if (slots.length < 2) return { why: 'nothing' };
  const mean = (at: number, half: number) => meanAround(light, at, half);
  const look = Math.max(0.5, LOOK * pitch);
  const top = slots.map((s) => mean(s.at, look));
  const gapAfter = slots.map((s, k) => {
    const next = slots[k + 1]?.at ?? s.at + pitch;
    return mean((s.at + next) / 2, look);
  });
  const gapBefore = slots.map((s, k) => (k > 0 ? gapAfter[k - 1]! : mean(s.at - pitch / 2, look)));
  const over = slots.map((_, k) => Math.max(top[k]! - gapBefore[k]!, top[k]! - gapAfter[k]!));
  const inner = slots.map((_, k) => Math.min(top[k]! - gapBefore[k]!, top[k]! - gapAfter[k]!));
  const whole = medianOf(inner.filter((x) => x > 0));
  // what is usual nearby, since light falls off towards corners
  const usual = slots.map((_, k) => {
    const near = inner.slice(Math.max(0, k - NEIGHBOURS), k + NEIGHBOURS + 1);
    const own = medianOf(near.filter((x) => x > 0.3 * whole));
    return Number.isFinite(own) ? own : whole;
  });
  const level = medianOf(top);
  if (!(whole > 0) || whole < LEAST_SWING * level || whole < 6 * profile.noise) {
    return { why: pitchPx < 4 ? 'fine' : 'nothing' };
  }
  // with a gap on one side alone it is a fin only if what it runs into is as bright as a fin: else that is where something darker begins
  const share = over.map((x, k) => {
    const isSingle = inner[k]! < BOTH_SIDES * usual[k]!;
    return isSingle && top[k]! < AS_BRIGHT * level ? 0 : x / usual[k]!;
  });
  const seen = share.map((x) => x >= SEEN);
  const [first, last] = longestRun(seen);
  if (last - first + 1 < 3) return { why: 'nothing' };
  const notes: string[] = [];
  const places: FinPlace[] = [];
  let variance = 0;
  const e = energies(profile, slots, gapBefore, gapAfter);
  const one = medianOf(e.slice(first, last + 1).filter((_, k) => seen[first + k]));
  let missing = 0;
  let bridged = 0;
  let overexposed = 0;
  for (let k = first; k <= last; k++) {
    const atMm = slots[k]!.at * stepMm;
    if (seen[k]) {
      places.push({ atMm, is: 'seen' });
      continue;
    }
    let end = k;
    while (!seen[end + 1]) end++;
    const run = end - k + 1;
    const full = meanAround(white, (slots[k]!.at + slots[end]!.at) / 2, (run * pitch) / 2) > 0.3;
    // light of the run and of a fin on each side, in fins: one that is bent lies against its neighbour
    const fins = sumOf(e, k - 1, end + 1) / one - 2;
    const there = full ? run : Math.min(run, Math.max(0, Math.round(fins)));
    if (!full && Math.abs(fins - there) > 0.3) variance += 0.25;
    for (let i = k; i <= end; i++) {
      places.push({ atMm: slots[i]!.at * stepMm, is: i - k < there ? 'bridged' : 'missing' });
    }
    if (full) overexposed += run;
    else bridged += there;
    missing += run - there;
    k = end;
  }
  for (const k of [first, last, first - 1, last + 1]) {
    if (k >= 0 && k < share.length && Math.abs(share[k]! - SEEN) < UNSURE) variance += 0.25;
  }
  if (variance > 0) notes.push('at least one fin is hardly told from what is beside it');
  if (missing > 0) notes.push(`${missing} missing between others, not counted`);
  if (bridged > 0) notes.push(`${bridged} bent or hidden, bridged and counted`);
  if (overexposed > 0)
    notes.push(`${overexposed} where the picture is overexposed, bridged and counted`);
  if (pitchPx < CLOSE_PITCH_PX)
    notes.push('hardly more than two pixels a fin: a photo from nearer would tell more');
  const found = pitchOf(slots.slice(first, last + 1), seen.slice(first, last + 1));
  const width = thicknessOf(
    profile,
    slots.slice(first, last + 1),
    seen.slice(first, last + 1),
    pitch,
  );
  return {
    count: places.filter((p) => p.is !== 'missing').length,
    plusMinus: Math.sqrt(variance),
    pitchMm: found.pitch * stepMm,
    pitchPlusMinusMm: found.plusMinus * stepMm,
    thicknessMm: width.mm,
    thicknessAtMostMm: width.atMostMm,
    brightShare: width.share,
    places,
    pitchPx,
    notes,
  };
}

function meanAround(values: Float64Array, at: number, half: number): number {
  const lo = Math.max(0, Math.round(at - half));
  const hi = Math.min(values.length - 1, Math.round(at + half));
  let sum = 0;
  for (let i = lo; i <= hi; i++) sum += values[i]!;
  return sum / Math.max(1, hi - lo + 1);
}

function sumOf(values: readonly number[], from: number, to: number): number {
  let sum = 0;
  for (let k = Math.max(0, from); k <= Math.min(values.length - 1, to); k++) sum += values[k]!;
  return sum;
}

/** Light of each place over the gaps about it. */
function energies(
  { light }: FinProfile,
  slots: readonly { at: number }[],
  before: readonly number[],
  after: readonly number[],
): number[] {
  // a gap that is none, beside a fin that is not seen, is as deep as its neighbours
  const gaps = slots.map((_, k) => {
    const near = [
      ...before.slice(Math.max(0, k - 4), k + 5),
      ...after.slice(Math.max(0, k - 4), k + 5),
    ];
    return [...near].sort((a, b) => a - b)[Math.floor(near.length / 4)]!;
  });
  return slots.map((s, k) => {
    const a = k > 0 ? (slots[k - 1]!.at + s.at) / 2 : s.at - 1;
    const b = slots[k + 1] ? (s.at + slots[k + 1]!.at) / 2 : s.at + 1;
    let sum = 0;
    for (let i = Math.max(0, Math.round(a)); i < Math.min(light.length, Math.round(b)); i++) {
      sum += light[i]! - gaps[k]!;
    }
    return sum;
  });
}

/** The longest run of places with fins, gaps of a few within it; at each end two stand side by side. */
function longestRun(seen: readonly boolean[]): [number, number] {
  let best: [number, number] = [0, -1];
  let first = -1;
  let last = -1;
  const close = () => {
    if (first < 0) return;
    let [a, b] = [first, last];
    while (a < b && !(seen[a] && seen[a + 1])) a++;
    while (b > a && !(seen[b] && seen[b - 1])) b--;
    if (b - a > best[1] - best[0]) best = [a, b];
  };
  seen.forEach((is, k) => {
    if (!is) return;
    if (first >= 0 && k - last > LONGEST_GAP + 1) {
      close();
      first = -1;
    }
    if (first < 0) first = k;
    last = k;
  });
  close();
  return best;
}

/** Steps from a fin to the next by a straight line through all that are seen, and its error. */
function pitchOf(
  slots: readonly { fin: number; at: number }[],
  seen: readonly boolean[],
): { pitch: number; plusMinus: number } {
  const own = slots.filter((_, k) => seen[k]);
  const n = own.length;
  const mx = own.reduce((s, p) => s + p.fin, 0) / n;
  const my = own.reduce((s, p) => s + p.at, 0) / n;
  const sxx = own.reduce((s, p) => s + (p.fin - mx) ** 2, 0);
  const sxy = own.reduce((s, p) => s + (p.fin - mx) * (p.at - my), 0);
  const pitch = sxy / sxx;
  const rest = own.reduce((s, p) => s + (p.at - my - pitch * (p.fin - mx)) ** 2, 0);
  return { pitch, plusMinus: Math.sqrt(rest / Math.max(1, n - 2) / sxx) };
}

/**
 * Thickness of a fin: the share of a pitch that is brighter than half way between fin and gap, of all fins laid over each other. Under
 * about three pixels a picture's own blur is as wide, and it is only a bound.
 */
function thicknessOf(
  { light, stepMm, stepPx }: FinProfile,
  slots: readonly { at: number }[],
  seen: readonly boolean[],
  pitch: number,
): { mm: number | null; atMostMm: number; share: number } {
  const bins = Math.max(8, Math.round(pitch));
  const sum = new Float64Array(bins);
  const count = new Float64Array(bins);
  slots.forEach((s, k) => {
    if (!seen[k] || !seen[k - 1] || !seen[k + 1]) return;
    for (let i = Math.ceil(s.at - pitch / 2); i < s.at + pitch / 2; i++) {
      const bin = Math.floor((((i - s.at) / pitch + 0.5) * bins) % bins);
      if (bin < 0 || i < 0 || i >= light.length) continue;
      sum[bin]! += light[i]!;
      count[bin]!++;
    }
  });
  const shape = sum.map((x, b) => (count[b] ? x / count[b]! : NaN));
  const known = [...shape].filter(Number.isFinite);
  const half = (Math.max(...known) + Math.min(...known)) / 2;
  const wide = known.filter((x) => x > half).length / known.length;
  const mm = wide * pitch * stepMm;
  return { mm: wide * pitch * stepPx >= 3 ? mm : null, atMostMm: mm, share: wide };
}
