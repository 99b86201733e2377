import { correctForBackground } from './background';
import { hearWav } from './hearWav';
import { levelWatch } from './levelWatch';
import { fullScaleFromTone, soundOfBlocks, withFullScale } from './soundOfBlocks';
import { blockBytes } from './wavFile';
import { wavBytes } from './wavBytes';
import { normalQuantile } from '../uncertainty/normal';
import { randomStream } from '../uncertainty/random';

const RATE = 48_000;
const sine = (hz: number, amplitude: number, seconds: number, rate = RATE) =>
  Float64Array.from(
    { length: Math.round(seconds * rate) },
    (_, i) => amplitude * Math.sin((2 * Math.PI * hz * i) / rate),
  );
const white = (sd: number, seconds: number) => {
  const next = randomStream(3);
  return Float64Array.from({ length: seconds * RATE }, () => sd * normalQuantile(next()));
};
function* pieces(bytes: Uint8Array, size = 7001) {
  for (let at = 0; at < bytes.length; at += size) yield bytes.subarray(at, at + size);
}
const hear = async (bytes: Uint8Array, channel = 1) => {
  let own: ReturnType<typeof soundOfBlocks> | null = null;
  const found = await hearWav(pieces(bytes), bytes.length, channel, (header) => {
    own = soundOfBlocks(header.sampleRateHz, header.dataBytes / blockBytes(header));
    return own;
  });
  return { found, heard: 'header' in found ? own!.end() : null };
};

test('a recording is heard second by second, whatever its pieces and bits', async () => {
  const loud = Float64Array.from([...sine(1000, 0.1, 2), ...sine(1000, 0.01, 1.5)]);
  for (const options of [
    { bits: 16 as const },
    { bits: 24 as const },
    { bits: 32 as const, isFloat: true },
  ]) {
    const { heard } = await hear(wavBytes([loud], options));
    // the last half second is no block
    expect(heard!.levelsDbA).toHaveLength(3);
    expect(heard!.levelsDbA[0]).toBeCloseTo(-20, 1);
    expect(heard!.levelsDbA[1]).toBeCloseTo(-20, 1);
    expect(Math.abs(heard!.levelsDbA[2]! + 40)).toBeLessThan(0.1);
  }
});

test('the second channel is the second channel, and one that is not there is said', async () => {
  const bytes = wavBytes([sine(1000, 0.001, 1), sine(1000, 0.1, 1)]);
  expect((await hear(bytes, 2)).heard!.sound.leqDb).toBeCloseTo(-20, 1);
  expect((await hear(bytes, 3)).found).toEqual({
    message: 'the file has 2 channels',
    channel: true,
  });
});

test('a file that is cut, is none, or runs for too long is not heard', async () => {
  const bytes = wavBytes([sine(1000, 0.1, 1)]);
  expect((await hear(bytes.subarray(0, 20_000))).found).toMatchObject({
    message: expect.stringMatching(/promises/),
  });
  const gone = await hearWav(pieces(bytes.subarray(0, 90_000)), bytes.length, 1, () => ({
    push: () => undefined,
  }));
  expect(gone).toMatchObject({ message: expect.stringMatching(/shorter/) });
  expect((await hear(new TextEncoder().encode('Time,W\n1,2\n'))).found).toMatchObject({
    message: expect.stringMatching(/no WAV/),
  });
  const long = wavBytes([new Float64Array(8000 * 3701)], { rate: 8000 });
  expect((await hear(long)).found).toMatchObject({ message: expect.stringMatching(/hour/) });
});

test('a calibrator tells full scale; noise and what is overdriven do not', async () => {
  const { heard } = await hear(wavBytes([sine(1000, 0.1, 2)]));
  const told = fullScaleFromTone(heard!.sound, 94);
  expect(told).toEqual({ fullScaleDb: expect.closeTo(114, 1) });
  expect(fullScaleFromTone(heard!.sound, 114)).toEqual({ fullScaleDb: expect.closeTo(134, 1) });
  const levels = withFullScale(heard!.sound, 114);
  expect(levels.leqDb).toBeCloseTo(94, 1);
  expect(levels.leqDbA).toBeCloseTo(94, 1);
  expect(Math.max(...levels.thirdOctavesDb.map((b) => b.db))).toBeCloseTo(94, 1);
  expect(fullScaleFromTone((await hear(wavBytes([white(0.1, 2)]))).heard!.sound, 94)).toMatchObject(
    {
      message: expect.stringMatching(/no clear tone/),
    },
  );
  expect(
    fullScaleFromTone((await hear(wavBytes([sine(1000, 1.2, 2)]))).heard!.sound, 94),
  ).toMatchObject({
    message: expect.stringMatching(/overdriven/),
  });
});

describe('the live meter', () => {
  const after = (x: ArrayLike<number>, rate = RATE) => {
    const watch = levelWatch(rate, 114);
    for (let at = 0; at < x.length; at += 128)
      watch.push(Array.prototype.slice.call(x, at, at + 128));
    return watch.now();
  };

  test.each([48_000, 44_100, 96_000])('a tone of 94 dB at %d Hz reads 94 within 0.1 dB', (rate) => {
    const now = after(sine(1000, 0.1, 8, rate), rate);
    for (const level of [now.fastDbA, now.slowDbA, now.leqDbA]) {
      expect(Math.abs(level - 94)).toBeLessThan(0.1);
    }
    expect(now.clipped).toBe(0);
  });

  // IEC 61672-1, time weightings F 125 ms and S 1 s; from memory
  test('fast and slow reach 63 % of the energy after their own time, the fast one first', () => {
    const rest = 10 * Math.log10(1 - Math.exp(-1));
    expect(Math.abs(after(sine(1000, 0.1, 0.125 + 0.02)).fastDbA - (94 + rest))).toBeLessThan(0.6);
    expect(Math.abs(after(sine(1000, 0.1, 1.02)).slowDbA - (94 + rest))).toBeLessThan(0.2);
    // and fall by 34.7 and 4.3 dB a second
    const quiet = Float64Array.from([...sine(1000, 0.1, 6), ...new Float64Array(RATE)]);
    const now = after(quiet);
    expect(Math.abs(now.slowDbA - (94 - 4.34))).toBeLessThan(0.3);
    expect(Math.abs(now.fastDbA - (94 - 34.7))).toBeLessThan(1.5);
    // ISO 3744's correction is of the reading, not of the meter
    expect(correctForBackground(now.leqDbA, 20).upperBound).toBe(false);
  });

  test('white noise is read as its A-weighted mean square', () => {
    const x = white(0.05, 6);
    const watch = after(x);
    const { heard } = { heard: soundOfBlocks(RATE, x.length) };
    heard.push(Float32Array.from(x));
    expect(Math.abs(watch.leqDbA - (heard.end().sound.leqDbA + 114))).toBeLessThan(0.1);
  });

  test('nothing heard is no level, and what is overdriven is counted', () => {
    expect(levelWatch(RATE, 114).now()).toMatchObject({ heardS: 0, clipped: 0 });
    expect(after(sine(1000, 1.5, 1)).clipped).toBeGreaterThan(1000);
  });
});
