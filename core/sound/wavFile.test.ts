import { wavHeader, wavSamples, type WavHeader } from './wavFile';
import { wavBytes } from './wavBytes';

const read = (bytes: Uint8Array, channel = 0) => {
  const header = wavHeader(bytes, bytes.length) as WavHeader;
  const data = bytes.subarray(header.dataFrom, header.dataFrom + header.dataBytes);
  return { header, samples: [...wavSamples(data, header, channel)] };
};
const refused = (bytes: Uint8Array, size = bytes.length) =>
  (wavHeader(bytes, size) as { message: string }).message;

test.each<[number, boolean, number]>([
  [16, false, 1e-4],
  [24, false, 1e-6],
  [32, false, 1e-7],
  [32, true, 1e-7],
])('%d bit, float %p', (bits, isFloat, within) => {
  const wanted = [0, 0.5, -0.5, 0.25, -1, 0.999];
  const { header, samples } = read(wavBytes([wanted], { bits, isFloat, rate: 44_100 }));
  expect(header).toMatchObject({ sampleRateHz: 44_100, channels: 1, bits, isFloat });
  wanted.forEach((x, i) => expect(Math.abs(samples[i]! - x)).toBeLessThan(within));
});

test('of two channels the one that is asked for', () => {
  const bytes = wavBytes(
    [
      [0.1, 0.2],
      [-0.1, -0.2],
    ],
    { bits: 24 },
  );
  expect(read(bytes, 1).samples.map((x) => x.toFixed(4))).toEqual(['-0.1000', '-0.2000']);
});

test('chunks before the samples are passed over, also of odd length; the extended header is read', () => {
  const bytes = wavBytes([[0.5]], { bits: 24, extensible: true, before: 3 });
  expect(read(bytes).samples[0]).toBeCloseTo(0.5, 6);
});

describe('refused in words', () => {
  const plain = wavBytes([new Array(100).fill(0.1)], { bits: 16 });
  const changed = (at: number, value: number, width: 16 | 32) => {
    const bytes = plain.slice();
    const view = new DataView(bytes.buffer);
    if (width === 16) view.setUint16(at, value, true);
    else view.setUint32(at, value, true);
    return bytes;
  };
  test.each<[string, () => Uint8Array, string]>([
    ['no WAV', () => new TextEncoder().encode('time;level\n0;40\n'), 'this is no WAV file'],
    ['8 bit', () => changed(34, 8, 16), '8 bit is too coarse'],
    ['compressed', () => changed(20, 2, 16), 'compressed (ADPCM)'],
    ['no rate', () => changed(24, 0, 32), '0 samples a second'],
    ['bytes a second that are not', () => changed(28, 1234, 32), 'the header contradicts itself'],
    ['a block that is none', () => changed(32, 3, 16), 'the header contradicts itself'],
    [
      'samples that are not there',
      () => changed(40, 480_000, 32),
      'the header promises 5.0 s of sound, the file holds 0.0 s',
    ],
    ['no samples', () => changed(40, 0, 32), 'holds no samples'],
    ['a cut header', () => plain.subarray(0, 30), 'the header of this WAV file is cut'],
  ])('%s', (_, bytes, message) => {
    expect(refused(bytes())).toContain(message);
  });
});
