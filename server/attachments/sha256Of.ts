import { createHash } from 'node:crypto';
import { setImmediate as nextTurn } from 'node:timers/promises';

/** Bytes that are taken in one go: a photo whole would hold up everybody else. */
const PIECE = 1 << 20;

/** The hash of some bytes, as hexadecimal digits; others are let in between. */
export async function sha256Of(bytes: Uint8Array): Promise<string> {
  const hash = createHash('sha256');
  for (let at = 0; at < bytes.length; at += PIECE) {
    if (at) await nextTurn();
    hash.update(bytes.subarray(at, at + PIECE));
  }
  return hash.digest('hex');
}
