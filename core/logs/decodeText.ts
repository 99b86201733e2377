/** Share of zero bytes at even or odd places from which a file without a mark is taken as UTF-16. */
const ZEROS = 0.2;
const LOOKED_AT = 4096;

/**
 * Text of a file as loggers write it: UTF-8, UTF-16 of either order, with a byte order mark or without; what is no UTF-8 is read
 * as Windows-1252, in which older programs write the degree sign.
 *
 * @param bytes the whole file
 */
export function decodeText(bytes: Uint8Array): string {
  const [a, b, c] = bytes;
  if (a === 0xef && b === 0xbb && c === 0xbf) return new TextDecoder('utf-8').decode(bytes);
  if (a === 0xff && b === 0xfe) return new TextDecoder('utf-16le').decode(bytes);
  if (a === 0xfe && b === 0xff) return new TextDecoder('utf-16be').decode(bytes);
  const zeros = [0, 0];
  const looked = Math.min(bytes.length, LOOKED_AT);
  for (let i = 0; i < looked; i++) if (bytes[i] === 0) zeros[i % 2]!++;
  // letters and digits have their zero in the higher byte
  if (zeros[1]! > (ZEROS * looked) / 2) return new TextDecoder('utf-16le').decode(bytes);
  if (zeros[0]! > (ZEROS * looked) / 2) return new TextDecoder('utf-16be').decode(bytes);
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return new TextDecoder('windows-1252').decode(bytes);
  }
}
