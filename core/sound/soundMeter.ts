import { aWeighting } from './aWeighting';
import { spectrumMeter, type PowerSpectrum } from './powerSpectrum';
import { levelOf, thirdOctaves, type Band } from './thirdOctaves';
import { tonesOf, type Tone } from './tones';

/** What a recording says. */
export interface SoundAnalysis {
  /** A-weighted energy mean, dB. */
  leqDbA: number;
  /** Unweighted. */
  leqDb: number;
  thirdOctavesDb: Band[];
  tones: Tone[];
  durationS: number;
  /** Samples at full scale: the recording is overdriven and its levels are too low. */
  clipped: number;
}

/** Samples this near to full scale are taken for cut. */
const FULL = 0.9999;

/**
 * Measures a sound piece by piece: energy mean, third octaves, tones.
 *
 * @param sampleRateHz rate
 * @param fullScaleDb level of a sine of digital full scale, from a calibration
 * @param expected samples to come, where that is known
 */
export function soundMeter(sampleRateHz: number, fullScaleDb: number, expected?: number) {
  const meter = spectrumMeter(sampleRateHz, expected);
  let count = 0;
  let clipped = 0;
  return {
    push: (samples: ArrayLike<number>): void => {
      count += samples.length;
      for (let i = 0; i < samples.length; i++) if (Math.abs(samples[i]!) >= FULL) clipped++;
      meter.push(samples);
    },
    end: (): SoundAnalysis => {
      const spectrum = meter.end();
      return {
        ...levels(spectrum, fullScaleDb),
        thirdOctavesDb: thirdOctaves(spectrum, fullScaleDb),
        tones: tonesOf(spectrum),
        durationS: count / sampleRateHz,
        clipped,
      };
    },
  };
}

function levels({ power, binHz }: PowerSpectrum, fullScaleDb: number) {
  let plain = 0;
  let weighted = 0;
  for (let k = 1; k < power.length; k++) {
    plain += power[k]!;
    weighted += power[k]! * 10 ** (0.1 * aWeighting(k * binHz));
  }
  return { leqDbA: levelOf(weighted, fullScaleDb), leqDb: levelOf(plain, fullScaleDb) };
}
