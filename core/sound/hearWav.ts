import { blockBytes, wavHeader, wavSamples, type WavHeader } from './wavFile';

/** A WAV file cannot say that it is larger. */
export const LARGEST_WAV = 2 ** 32;
const HEAD = 65_536;
const LONGEST_S = 3700;

/** Whatever takes the samples of one channel, −1…1, in order. */
export interface Listener {
  push: (samples: Float32Array) => void;
}

/** Why a recording cannot be heard, and whether it is its channel that is not there. */
export interface NotHeard {
  message: string;
  channel?: true;
}

/**
 * Hears a WAV file piece by piece, in memory bounded by its pieces.
 *
 * @param pieces the file's bytes in order
 * @param bytes size of the whole file
 * @param channel from 1
 * @param listen told the header once that is known
 * @returns the header, or in words why it cannot be heard
 */
export async function hearWav(
  pieces: AsyncIterable<Uint8Array> | Iterable<Uint8Array>,
  bytes: number,
  channel: number,
  listen: (header: WavHeader) => Listener,
): Promise<{ header: WavHeader } | NotHeard> {
  if (bytes > LARGEST_WAV) return { message: 'the file is larger than a WAV file can be' };
  let held: Uint8Array = new Uint8Array(0);
  let header: WavHeader | null = null;
  let listener: Listener | null = null;
  let heard = 0;
  for await (const piece of pieces) {
    held = held.length ? joined(held, piece) : piece;
    if (!header) {
      if (held.length < Math.min(HEAD, bytes)) continue;
      const found = headerOf(held, bytes, channel);
      if ('message' in found) return found;
      header = found;
      listener = listen(found);
      held = held.subarray(found.dataFrom);
    }
    const block = blockBytes(header);
    const whole = Math.min(held.length - (held.length % block), header.dataBytes - heard);
    if (whole > 0) listener!.push(wavSamples(held.subarray(0, whole), header, channel - 1));
    heard += whole;
    held = held.slice(whole);
    if (heard >= header.dataBytes) break;
  }
  if (!header) {
    const found = headerOf(held, bytes, channel);
    return 'message' in found ? found : { message: 'the file became shorter while it was read' };
  }
  if (heard < header.dataBytes) return { message: 'the file became shorter while it was read' };
  return { header };
}

function headerOf(head: Uint8Array, bytes: number, channel: number): WavHeader | NotHeard {
  const header = wavHeader(head.subarray(0, HEAD), bytes);
  if ('message' in header) return header;
  if (channel > header.channels) {
    return { message: `the file has ${header.channels} channels`, channel: true };
  }
  if (header.dataBytes / blockBytes(header) > LONGEST_S * header.sampleRateHz) {
    return { message: 'the recording is longer than an hour' };
  }
  return header;
}

function joined(a: Uint8Array, b: Uint8Array): Uint8Array {
  const all = new Uint8Array(a.length + b.length);
  all.set(a);
  all.set(b, a.length);
  return all;
}
