/** What a WAV file's header says, checked against the file. */
export interface WavHeader {
  sampleRateHz: number;
  channels: number;
  bits: 16 | 24 | 32;
  isFloat: boolean;
  /** Byte at which samples begin, and how many bytes they take. */
  dataFrom: number;
  dataBytes: number;
}

const PCM = 1;
const FLOAT = 3;
const EXTENSIBLE = 0xfffe;
const RATE = { least: 8000, most: 384_000 };
const MOST_CHANNELS = 64;
/** Names of a few compressed kinds, by their number. */
const COMPRESSED: Readonly<Record<number, string>> = {
  2: 'ADPCM',
  6: 'A-law',
  7: 'µ-law',
  17: 'IMA ADPCM',
  85: 'MPEG',
};

/**
 * Reads the header of a WAV file.
 *
 * @param head the first bytes of the file, up to and with the beginning of its samples
 * @param fileBytes size of the whole file
 * @returns the header; or in words why the file cannot be taken: no WAV, 8 bit, compressed, a header that the file contradicts
 * Source: RIFF, Multimedia Programming Interface and Data Specifications 1.0; from memory.
 */
export function wavHeader(head: Uint8Array, fileBytes: number): WavHeader | { message: string } {
  const view = new DataView(head.buffer, head.byteOffset, head.byteLength);
  const word = (at: number) =>
    at + 4 <= head.length ? String.fromCharCode(...head.subarray(at, at + 4)) : '';
  const no = (message: string) => ({ message });
  if (word(0) !== 'RIFF' || word(8) !== 'WAVE') return no('this is no WAV file');
  let format: {
    tag: number;
    channels: number;
    rate: number;
    bytesPerS: number;
    block: number;
    bits: number;
  } | null = null;
  for (let at = 12; at + 8 <= head.length;) {
    const name = word(at);
    const size = view.getUint32(at + 4, true);
    const from = at + 8;
    if (name === 'fmt ') {
      if (size < 16 || from + size > head.length) return no('the header of this WAV file is cut');
      let tag = view.getUint16(from, true);
      if (tag === EXTENSIBLE && size >= 26) tag = view.getUint16(from + 24, true);
      format = {
        tag,
        channels: view.getUint16(from + 2, true),
        rate: view.getUint32(from + 4, true),
        bytesPerS: view.getUint32(from + 8, true),
        block: view.getUint16(from + 12, true),
        bits: view.getUint16(from + 14, true),
      };
    } else if (name === 'data') {
      if (!format) return no('this WAV file says nothing of its format before its samples');
      return checked(format, from, size, fileBytes);
    }
    at = from + size + (size % 2);
  }
  return no('this WAV file holds no samples');
}

function checked(
  f: {
    tag: number;
    channels: number;
    rate: number;
    bytesPerS: number;
    block: number;
    bits: number;
  },
  dataFrom: number,
  dataBytes: number,
  fileBytes: number,
): WavHeader | { message: string } {
  const no = (message: string) => ({ message });
  if (f.tag !== PCM && f.tag !== FLOAT) {
    const name = COMPRESSED[f.tag] ?? `kind ${f.tag}`;
    return no(`this WAV file is compressed (${name}): save it as 16, 24 or 32 bit`);
  }
  if (f.bits === 8)
    return no('8 bit is too coarse for quiet machines: record with 16, 24 or 32 bit');
  const isFloat = f.tag === FLOAT;
  if (isFloat ? f.bits !== 32 : ![16, 24, 32].includes(f.bits)) {
    return no(
      `${f.bits} bit ${isFloat ? 'float' : ''} samples are not read: save it as 16, 24 or 32 bit`,
    );
  }
  if (f.channels < 1 || f.channels > MOST_CHANNELS)
    return no(`the header says ${f.channels} channels`);
  if (f.rate < RATE.least || f.rate > RATE.most)
    return no(`the header says ${f.rate} samples a second`);
  const block = (f.channels * f.bits) / 8;
  if (f.block !== block || f.bytesPerS !== block * f.rate) {
    return no(
      'the header contradicts itself: its bytes a second are not its rate, channels and bits',
    );
  }
  const there = fileBytes - dataFrom;
  if (dataBytes > there) {
    const s = (bytes: number) => (bytes / f.bytesPerS).toFixed(1);
    return no(
      `the header promises ${s(dataBytes)} s of sound, the file holds ${s(Math.max(0, there))} s`,
    );
  }
  if (dataBytes < block) return no('this WAV file holds no samples');
  return {
    sampleRateHz: f.rate,
    channels: f.channels,
    bits: f.bits as 16 | 24 | 32,
    isFloat,
    dataFrom,
    dataBytes: dataBytes - (dataBytes % block),
  };
}

/** Bytes of one sample of all channels. */
export const blockBytes = ({ channels, bits }: WavHeader): number => (channels * bits) / 8;

/**
 * Samples of one channel, −1…1.
 *
 * @param bytes whole blocks
 * @param channel from 0
 */
export function wavSamples(bytes: Uint8Array, header: WavHeader, channel: number): Float32Array {
  const block = blockBytes(header);
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const n = Math.floor(bytes.length / block);
  const out = new Float32Array(n);
  const skip = (channel * header.bits) / 8;
  for (let i = 0; i < n; i++) {
    const at = i * block + skip;
    if (header.isFloat) out[i] = view.getFloat32(at, true);
    else if (header.bits === 16) out[i] = view.getInt16(at, true) / 0x8000;
    else if (header.bits === 32) out[i] = view.getInt32(at, true) / 0x8000_0000;
    else out[i] = (view.getUint16(at, true) + view.getInt8(at + 2) * 0x1_0000) / 0x80_0000;
  }
  return out;
}
