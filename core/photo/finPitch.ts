import FFT from 'fft.js';

/** Fewest fins that are counted. */
export const FEWEST_FINS = 4;
/** A pitch as small as this share of the best one's score is taken before its multiples. */
const AS_GOOD = 0.8;
/** More would find something in everything. */
const HARMONICS = 8;

/**
 * The pitch of what repeats along a profile: where the harmonics of its changes lie and, half way between them, nothing does.
 *
 * @param light a profile
 * @param stepPx pixels of a step
 * @param longest steps beyond which no fins stand apart: a longer pitch is told only where none within explains half as much
 * @returns pitch in steps; null where nothing repeats
 * Source: spectrum by fft.js; the comb with negative teeth between is this project's own.
 */
export function finPitch(light: Float64Array, stepPx: number, longest: number): number | null {
  const n = light.length;
  const size = 2 ** Math.ceil(Math.log2(2 * n));
  const fft = new FFT(size);
  const input = new Array<number>(size).fill(0);
  // changes, so that the light of the whole matters less
  for (let i = 1; i < n; i++) {
    const hann = 0.5 - 0.5 * Math.cos((2 * Math.PI * i) / n);
    input[i] = hann * (light[i]! - light[i - 1]!);
  }
  const out = fft.createComplexArray() as number[];
  fft.realTransform(out, input);
  const power = new Float64Array(size / 2);
  for (let k = 0; k < size / 2; k++) power[k] = out[2 * k]! ** 2 + out[2 * k + 1]! ** 2;
  // what lies within a line of its width, about the bin
  const wide = Math.max(1, Math.round(size / n));
  const lines = new Float64Array(size / 2);
  let sum = 0;
  for (let k = 0; k < size / 2; k++) {
    sum += power[k]!;
    if (k > 2 * wide) sum -= power[k - 2 * wide - 1]!;
    if (k >= wide) lines[k - wide] = sum;
  }
  // two pixels a fin are the least, over the line at least a few fins
  const highest = Math.floor(0.5 * stepPx * size);
  const last = Math.min(size / 2 - 1, highest);
  const first = Math.ceil((FEWEST_FINS * size) / n);
  const near = Math.ceil(size / longest);
  let most = 0;
  let nearMost = 0;
  const score = new Float64Array(last + 1);
  for (let k = first; k <= last; k++) {
    let s = 0;
    for (let m = 1; m <= HARMONICS && m * k <= last; m++) {
      s += lines[m * k]! - lines[Math.round((m - 0.5) * k)]!;
    }
    score[k] = s;
    if (s > most) most = s;
    if (k >= near && s > nearMost) nearMost = s;
  }
  if (!(most > 0)) return null;
  const isNear = nearMost > 0.5 * most;
  const best = isNear ? nearMost : most;
  // the highest frequency that explains about as much, on its own top
  for (let k = last; k >= (isNear ? Math.max(first, near) : first); k--) {
    if (score[k]! < AS_GOOD * best) continue;
    let top = k;
    while (top > first && score[top - 1]! >= score[top]!) top--;
    return size / peakOf(power, top, wide);
  }
  return null;
}

/** The top of a line of a spectrum between its bins. */
function peakOf(power: Float64Array, at: number, wide: number): number {
  let top = at;
  for (let k = Math.max(1, at - wide); k <= at + wide; k++) if (power[k]! > power[top]!) top = k;
  const [a, b, c] = [power[top - 1]!, power[top]!, power[top + 1]!];
  const d = a - 2 * b + c;
  return d < 0 ? top + (0.5 * (a - c)) / d : top;
}
