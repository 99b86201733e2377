import { Unzip, UnzipInflate } from 'fflate';
import { Problem } from '../security/problem';

export const MOST_ENTRIES = 20_000;
export const MOST_UNPACKED = 200 * 1024 * 1024;
export const MOST_ENTRY = 26 * 1024 * 1024;

/**
 * Files of a zip, in memory. What they unpack to is counted while unpacking, since the sizes a zip states may be lies.
 *
 * @param bytes the zip
 * @throws Problem 422 where it is broken or holds too much
 */
export function unzip(bytes: Uint8Array): Map<string, Uint8Array> {
  const files = new Map<string, Uint8Array>();
  let total = 0;
  const reader = new Unzip((file) => {
    if (files.size >= MOST_ENTRIES) {
      throw new Problem(422, 'Too much', `the zip holds more than ${MOST_ENTRIES} files`);
    }
    if (file.name.endsWith('/')) return;
    const chunks: Uint8Array[] = [];
    let size = 0;
    file.ondata = (error, chunk, last) => {
      if (error) throw error;
      size += chunk.length;
      total += chunk.length;
      if (size > MOST_ENTRY || total > MOST_UNPACKED) {
        throw new Problem(422, 'Too much', 'the zip unpacks to more than is taken');
      }
      chunks.push(chunk);
      if (last) files.set(file.name, Buffer.concat(chunks));
    };
    file.start();
  });
  reader.register(UnzipInflate);
  try {
    // in pieces, so that a bomb is noticed before all of it is there
    for (let at = 0; at < bytes.length; at += 65_536) {
      reader.push(bytes.subarray(at, at + 65_536), at + 65_536 >= bytes.length);
    }
  } catch (cause) {
    if (cause instanceof Problem) throw cause;
    throw new Problem(422, 'Broken zip', 'the zip cannot be unpacked');
  }
  return files;
}
