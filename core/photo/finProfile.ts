import { toPixel, toSpace, type Camera } from './camera';
import { lightAt, type Picture } from './picture';
import type { PointMm } from './point';

/** Light across a stack, evenly in its plane, averaged along the fins. */
export interface FinProfile {
  /** 0 to 1, from one end of the line to the other. */
  light: Float64Array;
  /** Share of the rows that are white there. */
  white: Float64Array;
  stepMm: number;
  /** How far fins lean against the line's normal, mm for each mm. */
  lean: number;
  /** Deviation of its light, from how rows differ. */
  noise: number;
  /** Pixels of a step, where the picture is coarsest along the line. */
  stepPx: number;
}

/** To each side of the line, px. */
const BESIDE_PX = 10;
const ROWS = 21;
const STEPS_PER_PX = 2;
const MOST_STEPS = 24_000;
const LEAN = 0.25;
const LEANS = 41;
/** As bright as files can tell: the sensor was full. */
const FULL = 0.97;

/**
 * Reads light along a line of a plane.
 *
 * @param from @param to its ends, mm in the plane
 * @param aboveMm height of the plane
 */
export function finProfile(
  picture: Picture,
  camera: Camera,
  from: PointMm,
  to: PointMm,
  aboveMm: number,
): FinProfile {
  const lengthMm = Math.hypot(to[0] - from[0], to[1] - from[1]);
  const e = [(to[0] - from[0]) / lengthMm, (to[1] - from[1]) / lengthMm] as const;
  const densest = pxPerMm(camera, from, to, e, aboveMm);
  const n = Math.min(MOST_STEPS, Math.max(16, Math.ceil(lengthMm * densest.most * STEPS_PER_PX)));
  const stepMm = lengthMm / (n - 1);
  const besideMm = BESIDE_PX / densest.most;
  const rows = new Float64Array(n * ROWS);
  // lines of sight go evenly through space along a line of the plane
  const begin = toSpace(camera, from, aboveMm);
  const end = toSpace(camera, to, aboveMm);
  const aside = toSpace(camera, [from[0] - e[1], from[1] + e[0]], aboveMm);
  const { focalPx, middle, k1 } = camera;
  const square = middle[0] ** 2 + middle[1] ** 2;
  const step = [0, 1, 2].map((k) => (end[k]! - begin[k]!) / (n - 1));
  const side = [0, 1, 2].map((k) => aside[k]! - begin[k]!);
  for (let r = 0; r < ROWS; r++) {
    const t = besideMm * ((2 * r) / (ROWS - 1) - 1);
    let x = begin[0] + t * side[0]!;
    let y = begin[1] + t * side[1]!;
    let z = begin[2] + t * side[2]!;
    for (let i = 0; i < n; i++) {
      const u = (focalPx * x) / z;
      const v = (focalPx * y) / z;
      const grown = 1 + (k1 * (u * u + v * v)) / square;
      rows[r * n + i] = lightAt(picture, middle[0] + grown * u, middle[1] + grown * v);
      x += step[0]!;
      y += step[1]!;
      z += step[2]!;
    }
  }
  const rowMm = (2 * besideMm) / (ROWS - 1);
  const lag = STEPS_PER_PX;
  let best: { lean: number; sharp: number; light: Float64Array } = {
    lean: 0,
    sharp: -1,
    light: new Float64Array(n),
  };
  for (let k = 0; k < LEANS; k++) {
    const lean = LEAN * ((2 * k) / (LEANS - 1) - 1);
    const light = averaged(rows, n, (lean * rowMm) / stepMm);
    let sharp = 0;
    for (let i = lag; i < n; i++) sharp += (light[i]! - light[i - lag]!) ** 2;
    if (sharp > best.sharp) best = { lean, sharp, light };
  }
  const white = averaged(
    rows.map((x) => (x >= FULL ? 1 : 0)),
    n,
    (best.lean * rowMm) / stepMm,
  );
  return {
    light: best.light,
    white,
    stepMm,
    lean: best.lean,
    noise: noiseOf(rows, n),
    stepPx: stepMm * densest.least,
  };
}

/** Pixels of a millimetre along a line: at most and at least. */
function pxPerMm(
  camera: Camera,
  from: PointMm,
  to: PointMm,
  e: readonly [number, number],
  aboveMm: number,
): { most: number; least: number } {
  const at = (p: PointMm) => {
    const a = toPixel(camera, p, aboveMm);
    const b = toPixel(camera, [p[0] + 0.1 * e[0], p[1] + 0.1 * e[1]], aboveMm);
    return 10 * Math.hypot(b[0] - a[0], b[1] - a[1]);
  };
  const all = [at(from), at([(from[0] + to[0]) / 2, (from[1] + to[1]) / 2]), at(to)];
  return { most: Math.max(...all), least: Math.min(...all) };
}

/** Mean of all rows, each moved by so many steps more than the one before. */
function averaged(rows: Float64Array, n: number, shift: number): Float64Array {
  const out = new Float64Array(n);
  const half = (ROWS - 1) / 2;
  for (let r = 0; r < ROWS; r++) {
    const by = shift * (r - half);
    const whole = Math.floor(by);
    const a = by - whole;
    const base = r * n;
    for (let i = 0; i < n; i++) {
      const k = i + whole;
      const x = k < 0 ? 0 : k > n - 2 ? n - 2 : k;
      out[i]! += (rows[base + x]! * (1 - a) + rows[base + x + 1]! * a) / ROWS;
    }
  }
  return out;
}

function noiseOf(rows: Float64Array, n: number): number {
  let sum = 0;
  let count = 0;
  for (let r = 2; r < ROWS; r += 2) {
    for (let i = 0; i < n; i += 3) {
      const d = rows[r * n + i]! - 2 * rows[(r - 1) * n + i]! + rows[(r - 2) * n + i]!;
      sum += (d * d) / 6;
      count++;
    }
  }
  return Math.sqrt(sum / count / ROWS);
}
