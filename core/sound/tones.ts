import type { PowerSpectrum } from './powerSpectrum';

/** A tone that stands out of a sound. */
export interface Tone {
  hz: number;
  /** Level of the tone over the noise in its critical band, dB. */
  toneToNoiseDb: number;
  /** Level of its critical band over those beside it, dB. */
  prominenceDb: number;
  prominent: boolean;
}

/** Range in which tones are judged, Hz. */
const RANGE = { low: 89.1, high: 11_220 };
/** A peak is looked at where it stands so many dB above what surrounds it. */
const STANDS_OUT_DB = 6;
/** A tone takes no more than this share of its critical band. */
const WIDEST = 0.15;
const MOST = 10;
/** Below this it is not heard beside the noise. */
const HEARD_DB = 0;

/**
 * Width of the critical band about a frequency: `25 + 75 (1 + 1.4 (f/1000)²)^0.69` Hz.
 *
 * @param hz frequency
 * Source: ECMA-418-1 (formerly ECMA-74 annex D), after Zwicker; from memory.
 * @example criticalBandHz(1000) // 162.2
 */
export function criticalBandHz(hz: number): number {
  return 25 + 75 * (1 + 1.4 * (hz / 1000) ** 2) ** 0.69;
}

/** Edges of the critical band about a frequency, which is their geometric mean. */
function edgesOf(hz: number): [number, number] {
  const width = criticalBandHz(hz);
  const low = 0.5 * (Math.sqrt(width * width + 4 * hz * hz) - width);
  return [low, low + width];
}

/** Tone-to-noise ratio from which on a tone is prominent: 8 dB, below 1 kHz more by 8.33·log10(1000/f). */
export const prominentToneToNoiseDb = (hz: number): number =>
  8 + (hz < 1000 ? 8.33 * Math.log10(1000 / hz) : 0);

/** Prominence ratio from which on a tone is prominent: 9 dB, below 1 kHz more by 10·log10(1000/f). */
export const prominentRatioDb = (hz: number): number =>
  9 + (hz < 1000 ? 10 * Math.log10(1000 / hz) : 0);

/**
 * Tones that stand out of a sound, the most prominent first, by tone-to-noise ratio and prominence ratio. Noise is that of the
 * critical band without this and other tones, for its whole width.
 *
 * @param spectrum mean power, bins of about a hertz
 * Source: ECMA-418-1 (formerly ECMA-74 annex D); from memory.
 */
export function tonesOf(spectrum: PowerSpectrum): Tone[] {
  const { power, binHz } = spectrum;
  const last = power.length - 1;
  const binAt = (hz: number) => Math.max(1, Math.min(last, Math.round(hz / binHz)));
  const peaks: { k: number; from: number; to: number }[] = [];
  const isTone = new Uint8Array(power.length);
  const quiet = surroundings(power, binHz);
  let place = 0;
  for (let k = binAt(RANGE.low); k <= binAt(RANGE.high); k++) {
    while (place + 1 < quiet.length && quiet[place + 1]!.from <= k) place++;
    const { around, low, high } = quiet[place]!;
    const own = power[k]!;
    if (own <= power[k - 1]! || own < power[k + 1]!) continue;
    if (10 * Math.log10(own / around) < STANDS_OUT_DB + noiseScatterDb(spectrum.windows)) continue;
    const reach = Math.max(3, Math.floor((WIDEST * (high - low)) / binHz / 2));
    // down on both sides until it has fallen to what surrounds it
    let from = k;
    while (from > 1 && k - from < reach && power[from - 1]! > 2 * around) from--;
    let to = k;
    while (to < last && to - k < reach && power[to + 1]! > 2 * around) to++;
    const before = peaks[peaks.length - 1];
    if (before && from <= before.to) {
      if (own > power[before.k]!) peaks[peaks.length - 1] = { k, from: before.from, to };
      else before.to = Math.max(before.to, to);
    } else peaks.push({ k, from, to });
  }
  for (const p of peaks) isTone.fill(1, p.from, p.to + 1);
  const tones = peaks.map((p) => judge(p, power, binHz, isTone));
  return tones
    .filter((t) => t.toneToNoiseDb > HEARD_DB)
    .sort((a, b) => excess(b) - excess(a))
    .slice(0, MOST);
}

/** What a critical band holds without its peaks, for bands a quarter of their width apart. */
function surroundings(power: Float64Array, binHz: number) {
  const out: { from: number; around: number; low: number; high: number }[] = [];
  const last = power.length - 1;
  for (let hz = RANGE.low; hz <= RANGE.high; hz += criticalBandHz(hz) / 4) {
    const [low, high] = edgesOf(hz);
    const from = Math.max(1, Math.round(low / binHz));
    if (from >= last) break;
    const around = median(power, from, Math.min(last, Math.round(high / binHz)));
    // it holds for an eighth of its width on either side
    out.push({ from: Math.round((hz - criticalBandHz(hz) / 8) / binHz), around, low, high });
  }
  return out;
}

/** Few windows leave peaks in plain noise: so many dB more are asked then. */
const noiseScatterDb = (windows: number) => 10 * Math.log10(1 + 6 / Math.sqrt(windows));

const excess = (t: Tone) => t.toneToNoiseDb - prominentToneToNoiseDb(t.hz);

function judge(
  { from, to }: { from: number; to: number },
  power: Float64Array,
  binHz: number,
  isTone: Uint8Array,
): Tone {
  // the tone's own frequency, by its power
  let weight = 0;
  let moment = 0;
  for (let k = from; k <= to; k++) {
    weight += power[k]!;
    moment += power[k]! * k * binHz;
  }
  const hz = moment / weight;
  const [low, high] = edgesOf(hz);
  const first = Math.max(1, Math.round(low / binHz));
  const end = Math.min(power.length - 1, Math.round(high / binHz));
  let noise = 0;
  let bins = 0;
  for (let k = first; k <= end; k++) {
    if (isTone[k]) continue;
    noise += power[k]!;
    bins++;
  }
  const perBin = bins > 0 ? noise / bins : 0;
  const tone = Math.max(0, weight - perBin * (to - from + 1));
  const toneToNoiseDb = 10 * Math.log10(tone / (perBin * (end - first + 1)));
  const prominenceDb = prominence(hz, power, binHz);
  const prominent =
    toneToNoiseDb >= prominentToneToNoiseDb(hz) || prominenceDb >= prominentRatioDb(hz);
  return { hz, toneToNoiseDb, prominenceDb, prominent };
}

/** Level of the critical band over the mean of the two that join it. */
function prominence(hz: number, power: Float64Array, binHz: number): number {
  const [low, high] = edgesOf(hz);
  const within = (from: number, to: number) => {
    let sum = 0;
    const end = Math.min(power.length - 1, Math.round(to / binHz) - 1);
    for (let k = Math.max(1, Math.round(from / binHz)); k <= end; k++) sum += power[k]!;
    return sum;
  };
  const below = meeting(low, -1);
  const above = meeting(high, 1);
  // below 20 Hz there is nothing to hear: a band that would reach there is taken for its whole width
  const [from] = edgesOf(below);
  const cut = Math.max(20, from);
  const lower = within(cut, low) * ((low - from) / (low - cut));
  const upper = within(high, edgesOf(above)[1]);
  return 10 * Math.log10(within(low, high) / (0.5 * (lower + upper)));
}

/** Middle of the critical band that ends, or begins, at an edge. */
function meeting(edgeHz: number, side: -1 | 1): number {
  let hz = edgeHz;
  for (let round = 0; round < 40; round++) {
    const [low, high] = edgesOf(Math.max(1, hz));
    hz += edgeHz - (side < 0 ? high : low);
  }
  return Math.max(1, hz);
}

function median(power: Float64Array, from: number, to: number): number {
  const own = power.slice(from, to + 1).sort();
  // of exponential scatter the median lies below the mean
  return own[own.length >> 1]! / Math.LN2;
}
