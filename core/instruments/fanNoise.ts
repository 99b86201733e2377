import { soundMeter } from '../sound/soundMeter';
import { normalQuantile } from '../uncertainty/normal';
import { randomStream } from '../uncertainty/random';

/** How a fan sounds. */
export interface FanNoiseOptions {
  sampleRateHz: number;
  /** Level of a sine of digital full scale, dB. */
  fullScaleDb: number;
  rpm: number;
  blades: number;
  seed: number;
  durationS: number;
}

/** The tone of the blades and its first overtone below the noise's own level, dB (common practice, no source). */
const BLADE_DB = [-5, -14];
/** Corner below which the noise falls with frequency, Hz (common practice, no source). */
const CORNER_HZ = 500;
const TRIED_S = 4;

/** Frequency at which blades pass, Hz. @example bladePassHz(3000, 29) // 1450 */
export const bladePassHz = (rpm: number, blades: number): number => (rpm / 60) * blades;

/**
 * Noise of a fan with the tone of its blades, as a microphone would record it: broad noise that falls by 6 dB an octave above a
 * corner, and a tone where blades pass, brought to a level.
 *
 * @param levelDbA wanted
 * @returns samples −1…1
 */
export function fanNoise(levelDbA: number, options: FanNoiseOptions): Float32Array {
  const { sampleRateHz, fullScaleDb, durationS } = options;
  const raw = shaped(options, Math.round(sampleRateHz * durationS));
  const tried = raw.subarray(0, Math.min(raw.length, Math.round(TRIED_S * sampleRateHz)));
  const meter = soundMeter(sampleRateHz, fullScaleDb, tried.length);
  meter.push(tried);
  const gain = 10 ** ((levelDbA - meter.end().leqDbA) / 20);
  return raw.map((x) => Math.max(-1, Math.min(1, x * gain)));
}

function shaped({ sampleRateHz, rpm, blades, seed }: FanNoiseOptions, n: number): Float32Array {
  const next = randomStream(seed);
  const keep = Math.exp((-2 * Math.PI * CORNER_HZ) / sampleRateHz);
  const out = new Float32Array(n);
  let low = 0;
  let square = 0;
  for (let i = 0; i < n; i++) {
    low = keep * low + (1 - keep) * normalQuantile(next());
    out[i] = low;
    square += low * low;
  }
  const sd = Math.sqrt(square / Math.max(1, n)) || 1;
  const hz = bladePassHz(rpm, blades);
  BLADE_DB.forEach((db, k) => {
    const tone = (k + 1) * hz;
    if (tone > 0.45 * sampleRateHz) return;
    const amplitude = sd * Math.SQRT2 * 10 ** (db / 20);
    for (let i = 0; i < n; i++) {
      out[i]! += amplitude * Math.sin((2 * Math.PI * tone * i) / sampleRateHz);
    }
  });
  // quiet enough that nothing is cut while it is measured
  return out.map((x) => (0.02 * x) / sd);
}
