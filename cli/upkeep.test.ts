import { existsSync, mkdtempSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { lockFolder } from '@zugluft/server/database/folderLock';
import { openDatabase } from '@zugluft/server/database/openDatabase';
import { run as backup } from './backup';
import { run as check } from './check';
import { isPassphrase } from '@zugluft/server/security/passphrase';
import { run as passphrase } from './passphrase';
import { run as restore } from './restore';

const folder = () => mkdtempSync(join(process.env['ZUGLUFT_TEST_FOLDER'] ?? tmpdir(), 'upkeep-'));
const library = async (): Promise<NodeJS.ProcessEnv> => {
  const data = folder();
  await (await openDatabase(data)).close();
  return { ZUGLUFT_DATA: data };
};

test('backup, check and restore go there and back, and say what they did', async () => {
  const env = await library();
  const file = join(folder(), 'all.tar');
  const made = await backup([file], env);
  expect(made).toMatchObject({ code: 0, stderr: [] });
  expect(made.stdout).toMatch(/0 machines, 0 photos, papers and logs/);
  expect(await check([], env)).toMatchObject({ code: 0, stderr: [] });
  expect(await check([file], env)).toMatchObject({ code: 0, stderr: [] });
  const back = await restore([file], env);
  expect(back).toMatchObject({ code: 0, stderr: [] });
  const aside = /lies in (\S+)$/.exec(back.stdout)![1]!;
  expect(readdirSync(aside)).toContain('zugluft.sqlite');
  // into a folder that is not there yet
  const fresh = join(folder(), 'new');
  const into = await restore([file], { ZUGLUFT_DATA: fresh });
  expect(into).toMatchObject({ code: 0 });
  expect(into.stdout).toMatch(/were compared$/);
  expect(readdirSync(fresh).filter((n) => n.startsWith('before'))).toEqual([]);
  expect(existsSync(join(fresh, 'zugluft.sqlite'))).toBe(true);
});

test('while a server runs a backup is made, but nothing is restored', async () => {
  const env = await library();
  const data = env['ZUGLUFT_DATA']!;
  const file = join(folder(), 'all.tar');
  const lock = await lockFolder(data);
  await lock.tell('http://127.0.0.1:4180');
  expect(await backup([file], env)).toMatchObject({ code: 0 });
  const { code, stderr } = await restore([file], env);
  expect([code, stderr.join()]).toEqual([1, expect.stringMatching(/at http:.*4180/)]);
  expect(readdirSync(data).filter((n) => /restor/.test(n))).toEqual([]);
  await lock.release();
});

test('what cannot be done is said in words, with a code', async () => {
  const env = await library();
  const file = join(folder(), 'all.tar');
  writeFileSync(file, 'mine');
  expect(await backup([file], env)).toMatchObject({
    code: 1,
    stderr: [expect.stringMatching(/--force/)],
  });
  expect(readFileSync(file, 'utf8')).toBe('mine');
  expect(await backup([file, '--force'], env)).toMatchObject({ code: 0 });
  expect(await backup([file], { ZUGLUFT_DATA: folder() })).toMatchObject({ code: 1 });
  expect(await check([], { ZUGLUFT_DATA: folder() })).toMatchObject({ code: 1 });
  writeFileSync(file, readFileSync(file).subarray(0, 5000));
  for (const command of [restore, check]) {
    const { code, stderr } = await command([file], env);
    expect([code, stderr.join()]).toEqual([1, expect.stringMatching(/damaged/)]);
  }
  for (const args of [[], ['a', 'b'], ['a', '--other'], ['']]) {
    expect((await backup(args, env)).code).toBe(2);
  }
  expect((await restore(['--force'], env)).code).toBe(2);
  expect((await check(['a', 'b'], env)).code).toBe(2);
});

test('a passphrase goes into a file as its hash, once', async () => {
  const file = join(folder(), 'hash');
  expect(await passphrase([file], async () => 'quiet fans blow\n')).toMatchObject({ code: 0 });
  const hash = readFileSync(file, 'utf8').trim();
  expect(hash).not.toContain('quiet');
  expect(await isPassphrase('quiet fans blow', hash)).toBe(true);
  expect(await passphrase([file], async () => 'another one\n')).toMatchObject({ code: 1 });
  expect(await passphrase([`${file}2`], async () => 'short\n')).toMatchObject({ code: 2 });
  expect(await passphrase([], async () => '')).toMatchObject({ code: 2 });
});
