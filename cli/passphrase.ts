import { hashPassphrase, LEAST_LENGTH, MOST_LENGTH } from '@zugluft/server/security/passphrase';
import { open } from 'node:fs/promises';
import { resolve } from 'node:path';
import type { Said } from './upkeep';

const USAGE = 'usage: npm run passphrase -- FILE, then the passphrase on a line';

/**
 * Writes the hash of a passphrase into a file that only its owner reads.
 *
 * @param args of the command
 * @param line what was typed
 * @returns what to print; code 0, 1 where it could not be written, 2 where it was not understood
 */
export async function run(args: readonly string[], line: () => Promise<string>): Promise<Said> {
  const [file, ...more] = args;
  if (file === undefined || more.length || file.startsWith('-')) {
    return { stdout: '', stderr: [USAGE], code: 2 };
  }
  const passphrase = (await line()).replace(/\r?\n[\s\S]*$/, '');
  if (passphrase.length < LEAST_LENGTH || passphrase.length > MOST_LENGTH) {
    const words = `a passphrase has ${LEAST_LENGTH} to ${MOST_LENGTH} characters`;
    return { stdout: '', stderr: [words], code: 2 };
  }
  const path = resolve(file);
  try {
    const to = await open(path, 'wx', 0o600);
    await to.writeFile(`${await hashPassphrase(passphrase)}\n`);
    await to.close();
  } catch (cause) {
    const { code } = cause as { code?: string };
    const why = code === 'EEXIST' ? 'is there already' : `cannot be written (${code})`;
    return { stdout: '', stderr: [`${path} ${why}`], code: 1 };
  }
  return { stdout: `${path}: say ZUGLUFT_PASSPHRASE_FILE=${path}`, stderr: [], code: 0 };
}
