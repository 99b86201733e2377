import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { UnusableLibrary } from '../database/unusable';
import { temporaryFolder } from '../test-support/temporaryFolder';
import { accessOf } from './access';
import { hashPassphrase, isPassphrase, isPassphraseHash } from './passphrase';

const refusal = async (env: Record<string, string>) => {
  const cause: unknown = await accessOf(env).catch((e: unknown) => e);
  expect(cause).toBeInstanceOf(UnusableLibrary);
  return (cause as Error).message;
};
const file = (text: string) => {
  const path = join(temporaryFolder(), 'file');
  writeFileSync(path, text);
  return path;
};

test('by default it is reached from this machine alone, and nobody signs in', async () => {
  const { host, names, passphrase, tls } = await accessOf({});
  expect([host, [...names], passphrase, tls]).toEqual([
    '127.0.0.1',
    ['127.0.0.1', 'localhost', '[::1]'],
    null,
    null,
  ]);
  expect((await accessOf({ ZUGLUFT_HOST: '127.0.0.5' })).passphrase).toBeNull();
});

test('an address that others reach needs a passphrase', async () => {
  for (const host of ['0.0.0.0', '::', '192.168.1.5', 'lab.example']) {
    expect(await refusal({ ZUGLUFT_HOST: host })).toMatch(/needs a passphrase/);
  }
  const { names, passphrase } = await accessOf({
    ZUGLUFT_HOST: '192.168.1.5',
    ZUGLUFT_NAMES: 'Lab.example, fe80::1',
    ZUGLUFT_PASSPHRASE: 'quiet fans blow',
  });
  expect(names).toEqual(
    new Set(['127.0.0.1', 'localhost', '[::1]', '192.168.1.5', 'lab.example', '[fe80::1]']),
  );
  expect(await isPassphrase('quiet fans blow', passphrase!)).toBe(true);
  // all addresses are no name: a page that asks by one has to be allowed to
  const open = await accessOf({ ZUGLUFT_HOST: '0.0.0.0', ZUGLUFT_PASSPHRASE: 'quiet fans blow' });
  expect(open.names.has('0.0.0.0')).toBe(false);
});

test('a passphrase may lie in a file as its hash; anything else there is refused', async () => {
  const hash = await hashPassphrase('quiet fans blow');
  const { passphrase } = await accessOf({ ZUGLUFT_PASSPHRASE_FILE: file(`${hash}\n`) });
  expect(await isPassphrase('quiet fans blow', passphrase!)).toBe(true);
  expect(await refusal({ ZUGLUFT_PASSPHRASE_FILE: file('quiet fans blow') })).toMatch(/no hash/);
  expect(await refusal({ ZUGLUFT_PASSPHRASE_FILE: '/not/there' })).toMatch(/ENOENT/);
  expect(await refusal({ ZUGLUFT_PASSPHRASE: 'short' })).toMatch(/8 characters/);
  expect(await refusal({ ZUGLUFT_GUEST_PASSPHRASE: 'only looking' })).toMatch(/beside it/);
  expect(await refusal({ ZUGLUFT_TLS_CERT: file('x') })).toMatch(/go together/);
  expect(await refusal({ ZUGLUFT_NAMES: 'a b' })).toMatch(/“a b” is no name/);
});

test('a hash holds for its passphrase alone, salted, and asks for no more work than is bearable', async () => {
  const [a, b] = [await hashPassphrase('quiet fans blow'), await hashPassphrase('quiet fans blow')];
  expect(a).not.toBe(b);
  for (const other of ['quiet fans blo', 'Quiet fans blow', '']) {
    expect(await isPassphrase(other, a)).toBe(false);
  }
  // one letter typed in two ways
  expect(
    await isPassphrase('gru\u0308n und leise', await hashPassphrase('gr\u00fcn und leise')),
  ).toBe(true);
  expect(isPassphraseHash(a)).toBe(true);
  for (const bad of [
    '',
    a.slice(0, 20),
    a.replace('32768', '1073741824'),
    a.replace('32768', '3'),
  ]) {
    expect(isPassphraseHash(bad)).toBe(false);
  }
});
