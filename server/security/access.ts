import { readFileSync } from 'node:fs';
import { isIP } from 'node:net';
import { UnusableLibrary } from '../database/unusable';
import { hashPassphrase, isPassphraseHash, LEAST_LENGTH } from './passphrase';

/** Who may reach the server, and how. */
export interface Access {
  /** Address to listen on. */
  host: string;
  /** Names and addresses under which pages may ask, in small letters. */
  names: ReadonlySet<string>;
  /** Hash of the passphrase; null where nobody signs in. */
  passphrase: string | null;
  /** Hash of that of guests, who may only read. */
  guestPassphrase: string | null;
  tls: { cert: Buffer; key: Buffer } | null;
  /** A proxy on this machine says who asks. */
  behindProxy: boolean;
}

export const LOOPBACK_NAMES = ['127.0.0.1', 'localhost', '[::1]'];
const isLoopback = (host: string) => host === 'localhost' || host === '::1' || /^127\./.test(host);
/** Whoever is not let in by a passphrase reaches nothing but this machine. */
export const LOOPBACK_ONLY: Access = {
  host: '127.0.0.1',
  names: new Set(LOOPBACK_NAMES),
  passphrase: null,
  guestPassphrase: null,
  tls: null,
  behindProxy: false,
};

const asName = (host: string) => (isIP(host) === 6 ? `[${host}]` : host).toLowerCase();
const refused = (words: string) => new UnusableLibrary(words);

function fileOf(env: NodeJS.ProcessEnv, key: string): Buffer | null {
  const path = env[key];
  if (!path) return null;
  try {
    return readFileSync(path);
  } catch (cause) {
    throw refused(`${key}: ${path} cannot be read (${(cause as { code?: string }).code}).`);
  }
}

async function passphraseOf(env: NodeJS.ProcessEnv, key: string): Promise<string | null> {
  const said = env[key];
  const file = fileOf(env, `${key}_FILE`);
  if (said && file) throw refused(`Say ${key} or ${key}_FILE, not both.`);
  if (said) {
    if (said.length < LEAST_LENGTH) throw refused(`${key} needs ${LEAST_LENGTH} characters.`);
    return hashPassphrase(said);
  }
  if (!file) return null;
  const hash = file.toString('utf8').trim();
  if (!isPassphraseHash(hash)) {
    throw refused(`${key}_FILE holds no hash: make one with npm run passphrase -- FILE.`);
  }
  return hash;
}

/**
 * Reads from the environment who may reach the server.
 *
 * @throws UnusableLibrary in words where it would stand open, or what is said cannot be used
 */
export async function accessOf(env: NodeJS.ProcessEnv): Promise<Access> {
  const host = env['ZUGLUFT_HOST'] || '127.0.0.1';
  const passphrase = await passphraseOf(env, 'ZUGLUFT_PASSPHRASE');
  const guestPassphrase = await passphraseOf(env, 'ZUGLUFT_GUEST_PASSPHRASE');
  if (!isLoopback(host) && !passphrase) {
    throw refused(
      `ZUGLUFT_HOST is ${host}, which others can reach: that needs a passphrase (ZUGLUFT_PASSPHRASE, or the file of its hash ZUGLUFT_PASSPHRASE_FILE).`,
    );
  }
  if (guestPassphrase && !passphrase) {
    throw refused('ZUGLUFT_GUEST_PASSPHRASE needs ZUGLUFT_PASSPHRASE beside it.');
  }
  const names = (env['ZUGLUFT_NAMES'] ?? '')
    .split(',')
    .map((n) => n.trim())
    .filter(Boolean);
  const odd = names.find((n) => !/^[\w.:[\]-]+$/.test(n));
  if (odd !== undefined) throw refused(`ZUGLUFT_NAMES: “${odd}” is no name of a machine.`);
  const everywhere = host === '0.0.0.0' || host === '::';
  const [cert, key] = [fileOf(env, 'ZUGLUFT_TLS_CERT'), fileOf(env, 'ZUGLUFT_TLS_KEY')];
  if ((cert === null) !== (key === null)) {
    throw refused('ZUGLUFT_TLS_CERT and ZUGLUFT_TLS_KEY go together.');
  }
  return {
    host,
    names: new Set([
      ...LOOPBACK_NAMES,
      ...(everywhere ? [] : [asName(host)]),
      ...names.map(asName),
    ]),
    passphrase,
    guestPassphrase,
    tls: cert && key ? { cert, key } : null,
    behindProxy: env['ZUGLUFT_PROXY'] === '1',
  };
}
