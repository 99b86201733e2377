import { aWeighting } from './aWeighting';
import { spectrumMeter } from './powerSpectrum';
import { soundMeter, type SoundAnalysis } from './soundMeter';
import { levelOf } from './thirdOctaves';

/** What a recording says as a whole, and its A-level second by second; levels over a sine of digital full scale. */
export interface RecordedSound {
  sound: SoundAnalysis;
  /** A-level of each block, dB. */
  levelsDbA: Float64Array;
  stepS: number;
}

/** Length of a block, s. */
const BLOCK_S = 1;

/**
 * Measures a recording as a whole and in blocks of a second, so that it lies beside a log as a channel of its own.
 *
 * @param sampleRateHz rate
 * @param expected samples to come
 */
export function soundOfBlocks(sampleRateHz: number, expected?: number) {
  const whole = soundMeter(sampleRateHz, 0, expected);
  const size = Math.round(BLOCK_S * sampleRateHz);
  const levels: number[] = [];
  let block = spectrumMeter(sampleRateHz, size);
  let filled = 0;
  const take = () => {
    levels.push(aLevel(block.end()));
    block = spectrumMeter(sampleRateHz, size);
    filled = 0;
  };
  return {
    push: (samples: Float32Array): void => {
      whole.push(samples);
      for (let at = 0; at < samples.length;) {
        const count = Math.min(samples.length - at, size - filled);
        block.push(samples.subarray(at, at + count));
        filled += count;
        at += count;
        if (filled === size) take();
      }
    },
    end: (): RecordedSound => {
      // what is left is shorter and counts as a block only where there is no other
      if (levels.length === 0 && filled > 0) take();
      return { sound: whole.end(), levelsDbA: Float64Array.from(levels), stepS: BLOCK_S };
    },
  };
}

function aLevel({ power, binHz }: ReturnType<ReturnType<typeof spectrumMeter>['end']>): number {
  let weighted = 0;
  for (let k = 1; k < power.length; k++)
    weighted += power[k]! * 10 ** (0.1 * aWeighting(k * binHz));
  return levelOf(weighted, 0);
}

/** A recording's levels once it is known what a sine of full scale is, dB. */
export function withFullScale(sound: SoundAnalysis, fullScaleDb: number): SoundAnalysis {
  return {
    ...sound,
    leqDbA: sound.leqDbA + fullScaleDb,
    leqDb: sound.leqDb + fullScaleDb,
    thirdOctavesDb: sound.thirdOctavesDb.map(({ hz, db }) => ({ hz, db: db + fullScaleDb })),
  };
}

/** Share of a calibrator's power that lies in the third octave of its tone, at least (common practice, no source). */
const CLEAR_DB = 0.5;

/**
 * The level of a sine of full scale, from the recording of a calibrator.
 *
 * @param sound of the recording, over full scale
 * @param toneDb what the calibrator gives, 94 or 114 dB as a rule
 * @returns in words why it is no clear tone where it is none: more than a tenth of its power lies outside the tone's band
 * @example fullScaleFromTone({ leqDb: -20, … }, 94) // 114
 */
export function fullScaleFromTone(
  sound: SoundAnalysis,
  toneDb: number,
): { fullScaleDb: number } | { message: string } {
  if (sound.clipped > 0) return { message: 'the tone is overdriven: record it with less gain' };
  const loudest = Math.max(...sound.thirdOctavesDb.map((b) => b.db));
  if (!(sound.leqDb - loudest <= CLEAR_DB)) {
    return { message: 'this holds no clear tone: put the calibrator on and record it again' };
  }
  return { fullScaleDb: toneDb - sound.leqDb };
}
