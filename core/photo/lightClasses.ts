import { normalQuantile } from '../uncertainty/normal';
import { medianOf } from './median';

/** Light that falls off over the area is evened out by a plane through the web; so many times. */
const EVENINGS = 3;
/** Of a class, the share of its pixels that is less itself. */
const DEEP = 0.65;
/** Where narrow webs cross they come nearest to it. */
const BRIGHTEST = 0.97;
/** Of all changes of light, those at the steepest edges. */
const STEEPEST = 0.97;
/** Blur of more pixels is not undone. */
const MOST_BLUR_PX = 1.5;
/** Two classes lie this many deviations of the noise apart. */
const NOISES = 6;

/** Light of both classes where they are most themselves: narrow webs and small holes hardly come to it. */
export function classesOf(light: Float32Array): {
  dark: number;
  bright: number;
  brightest: number;
} {
  const BINS = 512;
  const bins = new Float64Array(BINS);
  let all = 0;
  for (const x of light) {
    if (x !== x) continue;
    bins[Math.min(BINS - 1, Math.max(0, Math.floor(Math.sqrt(Math.max(0, x)) * BINS)))]!++;
    all++;
  }
  let sum = 0;
  for (let b = 0; b < BINS; b++) sum += b * bins[b]!;
  let below = 0;
  let sumBelow = 0;
  let best = -1;
  let cut = BINS / 2;
  for (let b = 0; b < BINS - 1; b++) {
    below += bins[b]!;
    sumBelow += b * bins[b]!;
    const above = all - below;
    if (below === 0 || above === 0) continue;
    const between = below * above * (sumBelow / below - (sum - sumBelow) / above) ** 2;
    if (between > best) {
      best = between;
      cut = b;
    }
  }
  const at = (from: number, to: number, share: number) => {
    let total = 0;
    for (let b = from; b < to; b++) total += bins[b]!;
    let seen = 0;
    for (let b = from; b < to; b++) {
      seen += bins[b]!;
      if (seen >= share * total) return ((b + 0.5) / BINS) ** 2;
    }
    return (from / BINS) ** 2;
  };
  return {
    dark: at(0, cut + 1, 1 - DEEP),
    bright: at(cut + 1, BINS, DEEP),
    brightest: at(cut + 1, BINS, BRIGHTEST),
  };
}

export function meanOf(light: Float32Array): number {
  let sum = 0;
  let n = 0;
  for (const x of light) {
    if (x !== x) continue;
    sum += x;
    n++;
  }
  return sum / n;
}

/** Deviation of a pixel's light, from second differences along rows. */
function noiseOf(light: Float32Array, width: number): number {
  const all: number[] = [];
  for (let k = 1; k + 1 < light.length; k += 7) {
    const d = light[k - 1]! - 2 * light[k]! + light[k + 1]!;
    if (d === d && k % width > 0) all.push(Math.abs(d));
  }
  // the middle of them, since edges of holes are few
  return medianOf(all) / (0.6745 * Math.sqrt(6));
}

/** Light over that of a plane through the web, times the web's middle: what falls off towards a corner is evened out. */
export function evened(light: Float32Array, width: number): Float32Array {
  let out = light;
  for (let k = 0; k < EVENINGS; k++) {
    const { dark, bright } = classesOf(out);
    const cut = (dark + bright) / 2;
    let [n, sx, sy, sxx, sxy, syy, sz, sxz, syz] = [0, 0, 0, 0, 0, 0, 0, 0, 0];
    for (let at = 0; at < light.length; at += 3) {
      if (!(out[at]! > cut)) continue;
      const x = at % width;
      const y = (at - x) / width;
      const z = light[at]!;
      n++;
      sx += x;
      sy += y;
      sxx += x * x;
      sxy += x * y;
      syy += y * y;
      sz += z;
      sxz += x * z;
      syz += y * z;
    }
    const cxx = sxx - (sx * sx) / n;
    const cxy = sxy - (sx * sy) / n;
    const cyy = syy - (sy * sy) / n;
    const cxz = sxz - (sx * sz) / n;
    const cyz = syz - (sy * sz) / n;
    const det = cxx * cyy - cxy * cxy;
    if (!(n > 50) || !(det > 1e-6 * cxx * cyy)) return out;
    const a = (cxz * cyy - cyz * cxy) / det;
    const b = (cyz * cxx - cxz * cxy) / det;
    const mean = sz / n;
    out = light.map((z, at) => {
      const x = at % width;
      const y = (at - x) / width;
      const web = mean + a * (x - sx / n) + b * (y - sy / n);
      return (z * mean) / Math.max(mean / 4, web);
    });
  }
  return out;
}

/**
 * Light as it was before a picture's own blur, to second order: `I − σ²/2 ∇²I`. A blurred small hole is smaller at half its light, and a
 * narrow web darker; σ comes from the steepest edges, `Φ⁻¹(½ + g / contrast) = 1 / σ` for differences g over two pixels.
 *
 * Source: series of the Gaussian's inverse; the estimate of σ is this project's own.
 */
export function sharpened(light: Float32Array, width: number): Float32Array {
  const { dark, bright } = classesOf(light);
  const contrast = bright - dark;
  if (!(contrast > NOISES * noiseOf(light, width))) return light;
  const steep: number[] = [];
  for (let k = width; k + width < light.length; k += 5) {
    const gx = (light[k + 1]! - light[k - 1]!) / 2;
    const gy = (light[k + width]! - light[k - width]!) / 2;
    const g = Math.sqrt(gx * gx + gy * gy);
    if (g === g) steep.push(g);
  }
  steep.sort((a, b) => a - b);
  const most = steep[Math.floor(STEEPEST * steep.length)] ?? 0;
  const z = normalQuantile(Math.min(0.98, 0.5 + most / contrast));
  const sigma = Math.min(MOST_BLUR_PX, 1 / Math.max(0.1, z));
  const half = (sigma * sigma) / 2;
  return light.map((x, k) => {
    const around = light[k - 1]! + light[k + 1]! + light[k - width]! + light[k + width]!;
    return around === around ? x - half * (around - 4 * x) : x;
  });
}

/** Whether an area's light has two classes that are more than noise. */
export const hasClasses = (light: Float32Array, width: number, contrast: number): boolean =>
  contrast >= NOISES * noiseOf(light, width);
