import { lightAt, type Picture } from './picture';
import type { PointPx } from './point';

/** A strip's two edges, where they cross the line between its clicks. */
export interface StripEdges {
  /** Refined to a fraction of a pixel. */
  edges: readonly [PointPx, PointPx];
  /** How well each is known, px. */
  plusMinusPx: number;
  note: string | null;
}

/** Beside the line, px: along an edge its light is averaged. */
const BESIDE = 9;
const STEP = 0.25;
/** Of so many steps. */
const PIXEL = 4;
/** How far a flat is looked at, steps. */
const FLAT = 10;
/** Turns of the edges against the line that are tried, as slopes. */
const LEAN = 0.45;
const LEANS = 19;
/** How far from a click its edge is looked for: this share of the strip, but a few pixels at least. */
const REACH_SHARE = 0.45;
const LEAST_REACH = 4;
const MOST_REACH = 40;
/** Metal is round and shaded at its edge: half of the light is about so far from where it ends, px (common practice, no source). */
const SHADED = 0.1;
/** An edge stands out of the noise by this many times. */
const CLEAR = 8;

/**
 * Finds the edges of a strip beside two rough clicks, one at each edge: where linear light is half way between what it is on both
 * sides. Edges may lean against the line; the width is taken at right angles to them.
 *
 * @returns null where no edge is near a click
 */
export function stripEdges(picture: Picture, from: PointPx, to: PointPx): StripEdges | null {
  const length = Math.hypot(to[0] - from[0], to[1] - from[1]);
  const reach = Math.min(MOST_REACH, Math.max(LEAST_REACH, REACH_SHARE * length));
  const along = [(to[0] - from[0]) / length, (to[1] - from[1]) / length] as const;
  const first = edgeNear(picture, from, along, reach, length / 2);
  const second = edgeNear(picture, to, [-along[0], -along[1]], reach, length / 2);
  if (!first || !second) return null;
  // slopes of both in the frame of the line; the second looks back, so that its own turns the other way
  const leans = [first.lean, second.lean] as const;
  const parallel = Math.abs(leans[0] - leans[1]) < 0.2;
  const lean = parallel ? (leans[0] + leans[1]) / 2 : 0;
  const at = (p: PointPx, d: number): PointPx => [p[0] + along[0] * d, p[1] + along[1] * d];
  const a = at(from, first.at);
  const b = at(to, -second.at);
  // across: the foot of the second edge's line from the first's place
  const across = Math.hypot(b[0] - a[0], b[1] - a[1]) / (1 + lean * lean);
  const normal = [along[0] + -along[1] * -lean, along[1] + along[0] * -lean] as const;
  const foot: PointPx = [a[0] + normal[0] * across, a[1] + normal[1] * across];
  return {
    edges: [a, foot],
    plusMinusPx: Math.hypot(Math.hypot(first.plusMinus, second.plusMinus) / Math.SQRT2, SHADED),
    note: parallel ? null : 'its edges are not parallel: measured along the line',
  };
}

interface Edge {
  /** From the click inward, px. */
  at: number;
  /** Of the edge against the line's normal, in the frame of the line. */
  lean: number;
  plusMinus: number;
}

/**
 * The edge nearest to a click along a line.
 *
 * @param inward direction of the line, into the strip
 * @param inside as far as the strip surely goes on
 */
function edgeNear(
  picture: Picture,
  click: PointPx,
  inward: readonly [number, number],
  reach: number,
  inside: number,
): Edge | null {
  const beside = Math.min(BESIDE, Math.max(2, inside));
  const far = Math.min(inside, reach);
  const n = Math.round((reach + far) / STEP) + 1;
  const rows = 2 * Math.ceil(beside) + 1;
  const light = new Float64Array(n * rows);
  for (let r = 0; r < rows; r++) {
    const t = ((r - (rows - 1) / 2) * beside) / ((rows - 1) / 2);
    for (let i = 0; i < n; i++) {
      const s = -reach + i * STEP;
      light[r * n + i] = lightAt(
        picture,
        click[0] + inward[0] * s - inward[1] * t,
        click[1] + inward[1] * s + inward[0] * t,
      );
    }
  }
  let best: { lean: number; sharp: number; profile: Float64Array } | null = null;
  for (let k = 0; k < LEANS; k++) {
    const lean = LEAN * ((2 * k) / (LEANS - 1) - 1);
    const profile = leaning(light, n, rows, beside, lean);
    const { sharp } = steepestOf(profile, reach);
    if (!best || sharp > best.sharp) best = { lean, sharp, profile };
  }
  const found = halfLight(best!.profile, reach, noiseOf(light, n, rows));
  return found && { ...found, lean: best!.lean };
}

/** Where light changes most within two pixels. */
function steepestOf(profile: Float64Array, reach: number): { steepest: number; sharp: number } {
  let steepest = PIXEL;
  let sharp = 0;
  for (let i = PIXEL; i < profile.length - PIXEL; i++) {
    const change = profile[i + PIXEL]! - profile[i - PIXEL]!;
    const d = (change < 0 ? -change : change) * nearness(-reach + i * STEP, reach);
    if (d > sharp) {
      sharp = d;
      steepest = i;
    }
  }
  return { steepest, sharp };
}

/** An edge far from its click is less likely the one that is meant. */
const nearness = (s: number, reach: number): number => 1 - 0.5 * (s / reach) ** 2;

/** Mean of all rows, each moved by how far an edge that leans so lies off in it. */
function leaning(
  light: Float64Array,
  n: number,
  rows: number,
  beside: number,
  lean: number,
): Float64Array {
  const out = new Float64Array(n);
  const half = (rows - 1) / 2;
  for (let r = 0; r < rows; r++) {
    const shift = (lean * ((r - half) * beside)) / half / STEP;
    for (let i = 0; i < n; i++) {
      const x = i + shift;
      const at = x < 0 ? 0 : x > n - 1 ? n - 1 : x;
      const k = at >= n - 1 ? n - 2 : at | 0;
      const a = at - k;
      out[i]! += (light[r * n + k]! * (1 - a) + light[r * n + k + 1]! * a) / rows;
    }
  }
  return out;
}

/** Deviation of a mean of all rows, from how rows a little apart differ. */
function noiseOf(light: Float64Array, n: number, rows: number): number {
  let sum = 0;
  let count = 0;
  for (let r = 2; r < rows; r += 2) {
    for (let i = 0; i < n; i += 4) {
      // second differences leave what changes evenly out
      const d = light[r * n + i]! - 2 * light[(r - 1) * n + i]! + light[(r - 2) * n + i]!;
      sum += (d * d) / 6;
      count++;
    }
  }
  return Math.sqrt(sum / Math.max(1, count) / rows);
}

/** Where the steepest change near the middle passes half way between its two sides. */
function halfLight(
  profile: Float64Array,
  reach: number,
  noise: number,
): { at: number; plusMinus: number } | null {
  const n = profile.length;
  const w = PIXEL;
  const { steepest } = steepestOf(profile, reach);
  const rising = profile[steepest + w]! > profile[steepest - w]!;
  const s = rising ? 1 : -1;
  // the flats on both sides: as far as light goes on changing the same way, a little noise aside
  const slack = 2 * noise + 0.03 * Math.abs(profile[steepest + w]! - profile[steepest - w]!);
  const flat = (step: -1 | 1) => {
    let k = steepest;
    let extreme = profile[k]!;
    let at = k;
    while (k + step >= 0 && k + step < n) {
      k += step;
      const x = profile[k]!;
      if (s * step * (x - extreme) > 0) {
        extreme = x;
        at = k;
      } else if (s * step * (extreme - x) > slack || Math.abs(k - at) > 3 * w) break;
    }
    return { level: flatLevel(profile, at, step), at };
  };
  const low = flat(-1);
  const high = flat(1);
  const half = (low.level + high.level) / 2;
  const height = Math.abs(high.level - low.level);
  if (!(height > CLEAR * noise) || height < 0.004) return null;
  // the crossing next to the steepest place
  let found = NaN;
  for (let d = 0; d < n; d++) {
    for (const i of [steepest + d, steepest - d - 1]) {
      if (i < 0 || i + 1 >= n) continue;
      const a = s * (profile[i]! - half);
      const b = s * (profile[i + 1]! - half);
      if (a <= 0 && b > 0) {
        found = i + a / (a - b);
        break;
      }
    }
    if (Number.isFinite(found)) break;
  }
  if (!Number.isFinite(found)) return null;
  const i = Math.floor(found);
  const slope =
    Math.abs(profile[Math.min(n - 1, i + 2)]! - profile[Math.max(0, i - 1)]!) / (3 * STEP);
  return {
    at: -reach + found * STEP,
    plusMinus: Math.max(0.02, Math.min(2, noise / Math.max(1e-6, slope))),
  };
}

/** Median of the flat that begins at a place. */
function flatLevel(profile: Float64Array, at: number, step: -1 | 1): number {
  const values: number[] = [];
  for (let k = 0; k < FLAT; k++) {
    const i = at + step * k;
    if (i >= 0 && i < profile.length) values.push(profile[i]!);
  }
  values.sort((a, b) => a - b);
  return values[Math.floor(values.length / 2)] ?? profile[at]!;
}
