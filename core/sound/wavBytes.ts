/** How a WAV file is written. */
export interface WavOptions {
  bits?: number;
  isFloat?: boolean;
  rate?: number;
  /** With the longer header that names its format by an id. */
  extensible?: boolean;
  /** Bytes of another chunk before the samples. */
  before?: number;
}

/**
 * A WAV file.
 *
 * @param channels samples of each, −1…1
 */
export function wavBytes(
  channels: readonly ArrayLike<number>[],
  options: WavOptions = {},
): Uint8Array {
  const { bits = 16, isFloat = false, rate = 48_000, extensible = false, before = 0 } = options;
  const n = channels[0]!.length;
  const block = (channels.length * bits) / 8;
  const formatBytes = extensible ? 40 : 16;
  const padded = before > 0 ? 8 + before + (before % 2) : 0;
  const dataFrom = 12 + 8 + formatBytes + padded + 8;
  const bytes = new Uint8Array(dataFrom + n * block);
  const view = new DataView(bytes.buffer);
  const word = (at: number, text: string) => bytes.set(new TextEncoder().encode(text), at);
  word(0, 'RIFF');
  view.setUint32(4, bytes.length - 8, true);
  word(8, 'WAVEfmt ');
  view.setUint32(16, formatBytes, true);
  const tag = isFloat ? 3 : 1;
  view.setUint16(20, extensible ? 0xfffe : tag, true);
  view.setUint16(22, channels.length, true);
  view.setUint32(24, rate, true);
  view.setUint32(28, rate * block, true);
  view.setUint16(32, block, true);
  view.setUint16(34, bits, true);
  if (extensible) view.setUint16(44, tag, true);
  if (before > 0) {
    word(20 + formatBytes, 'LIST');
    view.setUint32(24 + formatBytes, before, true);
  }
  word(dataFrom - 8, 'data');
  view.setUint32(dataFrom - 4, n * block, true);
  for (let i = 0; i < n; i++) {
    channels.forEach((samples, c) => {
      const at = dataFrom + i * block + (c * bits) / 8;
      const x = samples[i]!;
      if (isFloat) view.setFloat32(at, x, true);
      else {
        const full = 2 ** (bits - 1);
        const whole = Math.max(-full, Math.min(full - 1, Math.round(x * full)));
        if (bits === 16) view.setInt16(at, whole, true);
        else if (bits === 32) view.setInt32(at, whole, true);
        else {
          view.setUint16(at, whole & 0xffff, true);
          view.setInt8(at + 2, whole >> 16);
        }
      }
    });
  }
  return bytes;
}
