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
const COARSE = 3;
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
  const light = new Float64Array(n);
  const sharpAt = (lean: number): number => {
    averaged(rows, n, (lean * rowMm) / stepMm, light);
    let sharp = 0;
    for (let i = lag; i < n; i++) sharp += (light[i]! - light[i - lag]!) ** 2;
    return sharp;
  };
  const lean = sharpest(sharpAt);
  averaged(rows, n, (lean * rowMm) / stepMm, light);
  const full = rows.map((x) => (x >= FULL ? 1 : 0));
  const white = new Float64Array(n);
  averaged(full, n, (lean * rowMm) / stepMm, white);
  return {
    light,
    white,
    stepMm,
    lean,
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

/** The lean at which light is sharpest: every third one first, since fins that can be told leave no narrower peak, then those beside. */
function sharpest(sharpAt: (lean: number) => number): number {
  const leanOf = (k: number) => LEAN * ((2 * k) / (LEANS - 1) - 1);
  const half = (LEANS - 1) / 2;
  let best = { k: half, sharp: -1 };
  const look = (k: number) => {
    if (Math.abs(k - half) > half) return;
    const sharp = sharpAt(leanOf(k));
    if (sharp > best.sharp) best = { k, sharp };
  };
  for (let k = half % COARSE; k < LEANS; k += COARSE) look(k);
  const { k: near } = best;
  for (let d = 1; d < COARSE; d++) {
    look(near - d);
    look(near + d);
  }
  return leanOf(best.k);
}

/** Mean of all rows, each moved by so many steps more than the one before, into `out`. */
function averaged(rows: Float64Array, n: number, shift: number, out: Float64Array): void {
  out.fill(0);
  const half = (ROWS - 1) / 2;
  for (let r = 0; r < ROWS; r++) {
    const by = shift * (r - half);
    const whole = Math.floor(by);
    const after = (by - whole) / ROWS;
    const before = 1 / ROWS - after;
    const base = r * n + whole;
    const first = Math.min(n, Math.max(0, -whole));
    const last = Math.max(first, Math.min(n, n - 1 - whole));
    // beyond an end light is as it is there
    const [low, high] = [rows[r * n]! / ROWS, rows[r * n + n - 1]! / ROWS];
    for (let i = 0; i < first; i++) out[i]! += low;
    for (let i = first; i < last; i++) {
      out[i]! += rows[base + i]! * before + rows[base + i + 1]! * after;
    }
    for (let i = last; i < n; i++) out[i]! += high;
  }
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
