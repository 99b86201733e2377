import FFT from 'fft.js';

/** Mean power of a sound by frequency. */
export interface PowerSpectrum {
  /** Mean square within each bin, of samples −1…1; bin k lies at `k · binHz`. */
  power: Float64Array;
  binHz: number;
  sampleRateHz: number;
  /** Windows that were averaged. */
  windows: number;
}

/** About how long a window is, s. */
const WINDOW_S = 1.2;
const MIN_SIZE = 1024;
/** Power of a Hann window, mean of its square. */
const HANN_POWER = 3 / 8;

/** Takes samples piece by piece, and gives their mean spectrum. */
export interface SpectrumMeter {
  push: (samples: ArrayLike<number>) => void;
  end: () => PowerSpectrum;
}

/**
 * Mean spectrum by Welch's method: Hann windows of about a second, each a quarter after the one before, so that every moment but
 * the first and last counts alike; the whole is then brought to the mean square of all samples, so that these count as well. Bins
 * above the first add up to the mean square about the mean.
 *
 * @param sampleRateHz rate
 * @param expected how many samples are to come: a short recording gets shorter windows
 * Source: Welch, IEEE Trans. Audio Electroacoust. 15 (1967).
 */
export function spectrumMeter(sampleRateHz: number, expected = Infinity): SpectrumMeter {
  const longest = 2 ** Math.round(Math.log2(WINDOW_S * sampleRateHz));
  const size = Math.max(
    MIN_SIZE,
    Math.min(longest, 2 ** Math.floor(Math.log2(Math.max(1, expected)))),
  );
  const hop = size / 4;
  const fft = new FFT(size);
  const hann = Float64Array.from(
    { length: size },
    (_, i) => 0.5 - 0.5 * Math.cos((2 * Math.PI * i) / size),
  );
  const held = new Float64Array(size);
  const windowed = new Array<number>(size).fill(0);
  const out = fft.createComplexArray();
  const power = new Float64Array(size / 2 + 1);
  let filled = 0;
  let windows = 0;
  let count = 0;
  let sum = 0;
  let squares = 0;
  const take = () => {
    for (let i = 0; i < size; i++) windowed[i] = held[i]! * hann[i]!;
    fft.realTransform(out, windowed);
    for (let k = 0; k <= size / 2; k++) {
      const re = out[2 * k]!;
      const im = out[2 * k + 1]!;
      // what lies at negative frequencies belongs to the same tone
      const both = k === 0 || k === size / 2 ? 1 : 2;
      power[k]! += (both * (re * re + im * im)) / (size * size * HANN_POWER);
    }
    windows++;
  };
  return {
    push: (samples) => {
      for (let i = 0; i < samples.length; i++) {
        const x = samples[i]!;
        held[filled++] = x;
        count++;
        sum += x;
        squares += x * x;
        if (filled < size) continue;
        take();
        held.copyWithin(0, hop);
        filled = size - hop;
      }
    },
    end: () => {
      if (windows === 0) {
        held.fill(0, filled);
        take();
      }
      let heard = 0;
      for (let k = 1; k < power.length; k++) heard += power[k]!;
      const all = count > 0 ? Math.max(0, squares / count - (sum / count) ** 2) : 0;
      const scale = heard > 0 ? all / heard : 0;
      return {
        power: power.map((p) => p * scale),
        binHz: sampleRateHz / size,
        sampleRateHz,
        windows,
      };
    },
  };
}
