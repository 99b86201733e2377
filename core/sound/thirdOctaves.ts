import type { PowerSpectrum } from './powerSpectrum';

/** Nominal mid-band frequencies of the thirds of one decade. */
const NOMINAL = [1, 1.25, 1.6, 2, 2.5, 3.15, 4, 5, 6.3, 8];
const LOWEST = -16;
const HIGHEST = 13;
/** Order of the Butterworth shape: its edges lie at 3 dB and its noise bandwidth within 0.05 dB of the band's. */
const ORDER = 6;
/** Beyond this share of the rate there is nothing that a recording holds. */
const USED = 0.45;

export interface Band {
  /** Nominal, Hz. */
  hz: number;
  /** Level, dB, unweighted. */
  db: number;
}

/** Exact mid-band frequency of band x, base ten: `1000 · 10^(x/10)`. */
export const midBandHz = (x: number): number => 1000 * 10 ** (x / 10);

/** Nominal frequency of band x. */
export function nominalHz(x: number): number {
  const decade = Math.floor(x / 10);
  return Number((1000 * 10 ** decade * NOMINAL[x - 10 * decade]!).toPrecision(3));
}

/**
 * Power response of a third-octave filter: `1 / (1 + ((f/f_m − f_m/f) / (f₂/f_m − f_m/f₂))^(2·6))`.
 *
 * @param hz frequency
 * @param midHz exact mid-band frequency
 * Source: within the limits of class 1, IEC 61260-1; from memory.
 */
export function thirdOctaveResponse(hz: number, midHz: number): number {
  if (!(hz > 0)) return 0;
  const edge = 10 ** (1 / 20);
  const x = (hz / midHz - midHz / hz) / (edge - 1 / edge);
  const square = x * x;
  return 1 / (1 + square ** ORDER);
}

/**
 * Third-octave levels from 25 Hz to 20 kHz, as far as the recording holds them.
 *
 * @param spectrum mean power
 * @param fullScaleDb level of a sine of full scale
 */
export function thirdOctaves(spectrum: PowerSpectrum, fullScaleDb: number): Band[] {
  const { power, binHz, sampleRateHz } = spectrum;
  const bands: Band[] = [];
  for (let x = LOWEST; x <= HIGHEST; x++) {
    const midHz = midBandHz(x);
    if (midHz * 10 ** (1 / 20) > USED * sampleRateHz) break;
    let sum = 0;
    for (let k = 1; k < power.length; k++) sum += power[k]! * thirdOctaveResponse(k * binHz, midHz);
    bands.push({ hz: nominalHz(x), db: levelOf(sum, fullScaleDb) });
  }
  return bands;
}

/** Level of a mean square of samples −1…1: a sine of full scale has a half. */
export const levelOf = (meanSquare: number, fullScaleDb: number): number =>
  fullScaleDb + 10 * Math.log10(Math.max(meanSquare, 1e-30) / 0.5);
