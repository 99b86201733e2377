/** Share of zero bytes at even or odd places from which a file without a mark is taken as UTF-16. */
const ZEROS = 0.2;
const LOOKED_AT = 4096;

/**
 * How the text of a file is to be decoded, as loggers write it: UTF-8, UTF-16 of either order, with a byte order mark or without;
 * what is no UTF-8 is read as Windows-1252, in which older programs write the degree sign.
 *
 * @param bytes the beginning of the file, or all of it
 * @returns a decoder's label
 */
export function encodingOf(bytes: Uint8Array): 'utf-8' | 'utf-16le' | 'utf-16be' | 'windows-1252' {
  const [a, b, c] = bytes;
  if (a === 0xef && b === 0xbb && c === 0xbf) return 'utf-8';
  if (a === 0xff && b === 0xfe) return 'utf-16le';
  if (a === 0xfe && b === 0xff) return 'utf-16be';
  const zeros = [0, 0];
  const looked = Math.min(bytes.length, LOOKED_AT);
  for (let i = 0; i < looked; i++) if (bytes[i] === 0) zeros[i % 2]!++;
  // letters and digits have their zero in the higher byte
  if (zeros[1]! > (ZEROS * looked) / 2) return 'utf-16le';
  if (zeros[0]! > (ZEROS * looked) / 2) return 'utf-16be';
  try {
    // what is cut at the end is no fault
    new TextDecoder('utf-8', { fatal: true }).decode(bytes, { stream: true });
    return 'utf-8';
  } catch {
    return 'windows-1252';
  }
}

/** Text of a whole file, see {@link encodingOf}. */
export function decodeText(bytes: Uint8Array): string {
  return new TextDecoder(encodingOf(bytes)).decode(bytes);
}
