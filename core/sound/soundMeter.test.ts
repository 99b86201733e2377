import FFT from 'fft.js';
import { normalQuantile } from '../uncertainty/normal';
import { randomStream } from '../uncertainty/random';
import { aWeighting } from './aWeighting';
import { spectrumMeter } from './powerSpectrum';
import { soundMeter } from './soundMeter';
import { midBandHz, nominalHz, thirdOctaveResponse } from './thirdOctaves';
import { criticalBandHz, prominentToneToNoiseDb } from './tones';

const RATE = 48_000;
const sine = (hz: number, amplitude: number, seconds = 1.5, rate = RATE) =>
  Float64Array.from(
    { length: seconds * rate },
    (_, i) => amplitude * Math.sin((2 * Math.PI * hz * i) / rate),
  );
const white = (sd: number, seconds: number, seed = 7) => {
  const next = randomStream(seed);
  return Float64Array.from({ length: seconds * RATE }, () => sd * normalQuantile(next()));
};
const add = (a: Float64Array, b: Float64Array) => a.map((x, i) => x + b[i]!);
const measure = (x: Float64Array, fullScaleDb = 100, rate = RATE) => {
  const meter = soundMeter(rate, fullScaleDb, x.length);
  // in pieces of any length
  for (let at = 0; at < x.length; at += 10_007) meter.push(x.subarray(at, at + 10_007));
  return meter.end();
};

describe('levels against computed truth, within 0.1 dB', () => {
  test.each([63, 250, 1000, 16_000])('a pure tone of %d Hz', (hz) => {
    const { leqDb, leqDbA } = measure(sine(hz, 0.1));
    expect(leqDb).toBeCloseTo(80, 1);
    expect(Math.abs(leqDbA - (80 + aWeighting(hz)))).toBeLessThan(0.1);
  });

  // nominal octaves and class 1 limits of IEC 61672-1:2013, table 3; from memory
  test.each([
    [31.5, -39.4, 1.5, 1.5],
    [63, -26.2, 1, 1],
    [125, -16.1, 1, 1],
    [250, -8.6, 1, 1],
    [500, -3.2, 1, 1],
    [1000, 0, 0.7, 0.7],
    [2000, 1.2, 1, 1],
    [4000, 1, 1, 1],
    [8000, -1.1, 1.5, 2.5],
    [16_000, -6.6, 2.5, 16],
  ])('A-weighting at %d Hz is %d dB within class 1', (hz, db, above, below) => {
    // bins are the filter: the rate of the recording has no part in it
    const off = measure(sine(hz, 0.5, 1.5, 44_100), 94, 44_100).leqDbA - (94 - 6.02) - db;
    expect(off).toBeLessThan(above);
    expect(off).toBeGreaterThan(-below);
  });

  test('white noise: its mean square, and in each third octave its share of the band', () => {
    const { leqDb, thirdOctavesDb } = measure(white(0.05, 8), 100);
    const whole = 100 + 10 * Math.log10(0.05 ** 2 / 0.5);
    expect(Math.abs(leqDb - whole)).toBeLessThan(0.1);
    for (const { hz, db } of thirdOctavesDb.filter((b) => b.hz >= 1000 && b.hz <= 16_000)) {
      const exact = midBandHz(Math.round(10 * Math.log10(hz / 1000)));
      const width = exact * (10 ** 0.05 - 10 ** -0.05);
      expect(Math.abs(db - (whole + 10 * Math.log10(width / (RATE / 2))))).toBeLessThan(0.25);
    }
  });

  test('a spectrum that falls by 3 dB an octave is level in third octaves', () => {
    // pink by its definition: the same power in each third, put into bins, no noise in it
    const size = 65_536;
    const power = Float64Array.from({ length: size / 2 + 1 }, (_, k) => (k > 0 ? 1 / k : 0));
    const spectrum = { power, binHz: RATE / size, sampleRateHz: RATE, windows: 1 };
    const bands = [...Array(27).keys()]
      .map((k) => k - 13)
      .map((x) => {
        let sum = 0;
        power.forEach((p, k) => (sum += p * thirdOctaveResponse(k * spectrum.binHz, midBandHz(x))));
        return 10 * Math.log10(sum);
      });
    const expected = 10 * Math.log10(Math.log(10 ** 0.1));
    // the lowest bands hold few bins
    bands.slice(3).forEach((db) => expect(Math.abs(db - expected)).toBeLessThan(0.1));
  });

  test('four seconds of 40 and four of 50 dB have their energy mean', () => {
    const loud = sine(1000, 1, 8).map((x, i) => x * (i < 4 * RATE ? 10 ** -3 : 10 ** -2.5));
    expect(measure(loud, 100).leqDb).toBeCloseTo(47.4, 1);
  });

  test('a short recording is heard too, a cut one says so', () => {
    expect(measure(sine(1000, 0.1, 0.5)).leqDb).toBeCloseTo(80, 1);
    expect(
      measure(sine(1000, 1.2, 1).map((x) => Math.max(-1, Math.min(1, x)))).clipped,
    ).toBeGreaterThan(1000);
    expect(measure(sine(1000, 0.9, 1)).clipped).toBe(0);
  });
});

// limits of class 1 at a few frequencies, IEC 61260-1:2014 table 1 mapped to third octaves; from memory
describe('third-octave filters within class 1', () => {
  const attenuation = (ratio: number) => -10 * Math.log10(thirdOctaveResponse(1000 * ratio, 1000));
  test.each([
    [1, -0.4, 0.4],
    [1.02667, -0.4, 0.5],
    [1.05575, -0.4, 0.7],
    [1.08746, -0.4, 1.4],
    [1.12202, 1.4, 5.3],
    [1.29437, 16.6, Infinity],
    [1.88173, 40.5, Infinity],
    [3.05365, 60, Infinity],
    [5.39195, 70, Infinity],
  ])('at %d times its middle: %d to %d dB', (ratio, least, most) => {
    for (const r of [ratio, 1 / ratio]) {
      expect(attenuation(r)).toBeGreaterThanOrEqual(least - 1e-9);
      expect(attenuation(r)).toBeLessThanOrEqual(most);
    }
  });

  test('a tone in the middle of a band is read there, and 60 dB down three bands away', () => {
    const { thirdOctavesDb } = measure(sine(1000, 0.1));
    const at = (hz: number) => thirdOctavesDb.find((b) => b.hz === hz)!.db;
    expect(at(1000)).toBeCloseTo(80, 1);
    expect(at(500)).toBeLessThan(20);
    expect(at(2000)).toBeLessThan(20);
  });

  test('nominal frequencies', () => {
    expect([-16, -15, -10, -1, 0, 1, 5, 13].map(nominalHz)).toEqual([
      25, 31.5, 100, 800, 1000, 1250, 3150, 20_000,
    ]);
  });
});

test('the spectrum is that of fft.js, and adds up to the mean square', () => {
  const x = white(0.1, 2, 3).subarray(0, 1024);
  const meter = spectrumMeter(1024, 1024);
  meter.push(x);
  const { power } = meter.end();
  const fft = new FFT(1024);
  const out = fft.createComplexArray() as number[];
  const hann = [...x].map((v, i) => v * (0.5 - 0.5 * Math.cos((2 * Math.PI * i) / 1024)));
  fft.realTransform(out, hann);
  const square = (k: number) => out[2 * k]! ** 2 + out[2 * k + 1]! ** 2;
  for (const k of [17, 200, 511]) {
    expect(power[k]! / power[100]!).toBeCloseTo(square(k) / square(100), 9);
  }
  const mean = x.reduce((a, b) => a + b, 0) / x.length;
  const variance = x.reduce((a, b) => a + (b - mean) ** 2, 0) / x.length;
  expect(power.subarray(1).reduce((a, b) => a + b, 0)).toBeCloseTo(variance, 12);
});

describe('tones', () => {
  test('a tone in white noise has its ratio to the noise of its critical band', () => {
    const sd = 0.01;
    const hz = 812;
    const amplitude = 0.004;
    const { tones } = measure(add(sine(hz, amplitude, 10), white(sd, 10)));
    const noise = (sd ** 2 * criticalBandHz(hz)) / (RATE / 2);
    const expected = 10 * Math.log10((0.5 * amplitude ** 2) / noise);
    expect(tones[0]!.hz).toBeCloseTo(hz, 0);
    expect(Math.abs(tones[0]!.toneToNoiseDb - expected)).toBeLessThan(0.5);
    // with neighbours of plain noise the band is above them by tone and noise together
    const ratio = 10 * Math.log10(1 + 10 ** (0.1 * expected));
    expect(Math.abs(tones[0]!.prominenceDb - ratio)).toBeLessThan(0.7);
    expect(tones[0]!.prominent).toBe(expected > prominentToneToNoiseDb(hz) || ratio > 9);
  });

  test('plain noise has none that is prominent, two tones are two', () => {
    expect(measure(white(0.01, 8)).tones.filter((t) => t.prominent)).toEqual([]);
    const two = add(add(sine(1000, 0.01, 8), sine(3000, 0.01, 8)), white(0.01, 8));
    expect(
      measure(two)
        .tones.map((t) => Math.round(t.hz))
        .sort((a, b) => a - b),
    ).toEqual([1000, 3000]);
  });

  test('prominent from 8 dB at 1 kHz and higher, lower down from more (ECMA-418-1, from memory)', () => {
    expect(prominentToneToNoiseDb(1000)).toBe(8);
    expect(prominentToneToNoiseDb(5000)).toBe(8);
    expect(prominentToneToNoiseDb(500)).toBeCloseTo(10.5, 1);
    expect(criticalBandHz(1000)).toBeCloseTo(162.2, 1);
  });
});
