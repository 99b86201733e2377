import { randomBytes, scrypt, timingSafeEqual } from 'node:crypto';
import { promisify } from 'node:util';

/** Work of scrypt: about 32 MB and a tenth of a second each. Source: RFC 7914; sizes from memory of common advice. */
const COST = { N: 2 ** 15, r: 8, p: 1 } as const;
const KEY_BYTES = 32;
const MAX_MEMORY = 128 * COST.N * COST.r * 2;

const derive = promisify<string, Buffer, number, object, Buffer>(scrypt);

/** Shorter ones are guessed. */
export const LEAST_LENGTH = 8;
export const MOST_LENGTH = 200;

/**
 * A passphrase as it may lie in a file: `scrypt$N$r$p$salt$key`, the last two in base64.
 *
 * @example await hashPassphrase('correct horse') // 'scrypt$32768$8$1$…$…'
 */
export async function hashPassphrase(passphrase: string): Promise<string> {
  const salt = randomBytes(16);
  const key = await derive(passphrase.normalize('NFKC'), salt, KEY_BYTES, {
    ...COST,
    maxmem: MAX_MEMORY,
  });
  const { N, r, p } = COST;
  return ['scrypt', N, r, p, salt.toString('base64'), key.toString('base64')].join('$');
}

const SHAPE = /^scrypt\$(\d+)\$(\d+)\$(\d+)\$([\w+/=]+)\$([\w+/=]+)$/;

/** Whether something is a hash as {@link hashPassphrase} makes it, with no more work than it would ask for. */
export function isPassphraseHash(text: string): boolean {
  const parts = SHAPE.exec(text);
  if (!parts) return false;
  const [N, r, p] = parts.slice(1, 4).map(Number) as [number, number, number];
  return N >= 2 && N <= 2 ** 20 && (N & (N - 1)) === 0 && r >= 1 && r <= 32 && p >= 1 && p <= 16;
}

/** Whether a passphrase is the one of a hash; takes as long whatever it is. */
export async function isPassphrase(passphrase: string, hash: string): Promise<boolean> {
  const parts = SHAPE.exec(hash);
  if (!parts || !isPassphraseHash(hash)) return false;
  const [N, r, p] = parts.slice(1, 4).map(Number) as [number, number, number];
  const told = Buffer.from(parts[5]!, 'base64');
  const key = await derive(
    passphrase.normalize('NFKC'),
    Buffer.from(parts[4]!, 'base64'),
    told.length,
    { N, r, p, maxmem: 128 * N * r * 2 },
  );
  return timingSafeEqual(key, told);
}
