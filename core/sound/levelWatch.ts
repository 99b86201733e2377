import FFT from 'fft.js';
import { aWeighting } from './aWeighting';
import { levelOf } from './thirdOctaves';

/** What a meter shows at a moment, dB(A). */
export interface WatchedLevel {
  /** Time weighting F, 125 ms. */
  fastDbA: number;
  /** Time weighting S, 1 s. */
  slowDbA: number;
  /** Energy mean since the beginning. */
  leqDbA: number;
  /** For how long, s. */
  heardS: number;
  /** Samples at full scale: the microphone is overdriven. */
  clipped: number;
}

/** Source: IEC 61672-1; from memory. */
const FAST_S = 0.125;
const SLOW_S = 1;
const BLOCK_S = 0.04;
const HANN_POWER = 3 / 8;
const FULL = 0.9999;

/**
 * A level meter that goes on: time weightings F and S as exponential means of the A-weighted square, the energy mean beside them.
 * Half-overlapping Hann windows of about 40 ms are weighted bin by bin.
 *
 * @param sampleRateHz rate of the microphone
 * @param fullScaleDb level of a sine of digital full scale
 */
export function levelWatch(sampleRateHz: number, fullScaleDb: number) {
  const size = 2 ** Math.round(Math.log2(BLOCK_S * sampleRateHz));
  const hop = size / 2;
  const fft = new FFT(size);
  const hann = Float64Array.from(
    { length: size },
    (_, i) => 0.5 - 0.5 * Math.cos((2 * Math.PI * i) / size),
  );
  const weights = Float64Array.from({ length: size / 2 + 1 }, (_, k) =>
    k === 0 ? 0 : 10 ** (0.1 * aWeighting((k * sampleRateHz) / size)),
  );
  const keepFast = Math.exp(-hop / sampleRateHz / FAST_S);
  const keepSlow = Math.exp(-hop / sampleRateHz / SLOW_S);
  const held = new Float64Array(size);
  const windowed = new Array<number>(size).fill(0);
  const out = fft.createComplexArray();
  let filled = 0;
  let blocks = 0;
  let fast = 0;
  let slow = 0;
  let sum = 0;
  let clipped = 0;
  const take = () => {
    for (let i = 0; i < size; i++) windowed[i] = held[i]! * hann[i]!;
    fft.realTransform(out, windowed);
    let square = 0;
    for (let k = 1; k <= size / 2; k++) {
      const re = out[2 * k]!;
      const im = out[2 * k + 1]!;
      square += (k === size / 2 ? 1 : 2) * weights[k]! * (re * re + im * im);
    }
    square /= size * size * HANN_POWER;
    fast = keepFast * fast + (1 - keepFast) * square;
    slow = keepSlow * slow + (1 - keepSlow) * square;
    sum += square;
    blocks++;
  };
  return {
    push: (samples: ArrayLike<number>): void => {
      for (let i = 0; i < samples.length; i++) {
        const x = samples[i]!;
        if (Math.abs(x) >= FULL) clipped++;
        held[filled++] = x;
        if (filled < size) continue;
        take();
        held.copyWithin(0, hop);
        filled = hop;
      }
    },
    now: (): WatchedLevel => ({
      fastDbA: levelOf(fast, fullScaleDb),
      slowDbA: levelOf(slow, fullScaleDb),
      leqDbA: levelOf(blocks > 0 ? sum / blocks : 0, fullScaleDb),
      heardS: (blocks * hop) / sampleRateHz,
      clipped,
    }),
  };
}
