import { mkdirSync, readdirSync, readFileSync, truncateSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { temporaryFolder } from '../test-support/temporaryFolder';
import { LIBRARY_FILE } from './examineFolder';
import { openDatabase } from './openDatabase';
import { inWords, UnusableLibrary } from './unusable';

const filled = async (): Promise<string> => {
  const folder = temporaryFolder();
  const db = await openDatabase(folder);
  for (let k = 0; k < 200; k++) {
    await db.sequelize.query(
      `INSERT INTO log_layouts (key, header, layout, createdAt, updatedAt) VALUES ('${k}', '${'x'.repeat(900)}', '{}', '2026-01-02', '2026-01-02')`,
    );
  }
  await db.close();
  return folder;
};
const withPhotos = (folder: string) => {
  mkdirSync(join(folder, 'files', 'ab'), { recursive: true });
  writeFileSync(join(folder, 'files', 'ab', 'abc'), 'photo');
  return folder;
};
const refusal = async (folder: string): Promise<string> => {
  const cause: unknown = await openDatabase(folder).then(
    async (db) => {
      await db.close();
      return null;
    },
    (e: unknown) => e,
  );
  expect(cause).toBeInstanceOf(UnusableLibrary);
  return (cause as Error).message;
};

test('photos without their library are no new library', async () => {
  const missing = withPhotos(temporaryFolder());
  expect(await refusal(missing)).toMatch(/missing.*photos/);
  expect(readdirSync(missing)).toEqual(['files']);
  const empty = withPhotos(temporaryFolder());
  writeFileSync(join(empty, LIBRARY_FILE), '');
  expect(await refusal(empty)).toMatch(/empty.*photos/);
  expect(readFileSync(join(empty, LIBRARY_FILE)).length).toBe(0);
});

test('an empty folder is a new library, also where a start was cut off, and where folders without files lie', async () => {
  const folder = temporaryFolder();
  writeFileSync(join(folder, LIBRARY_FILE), '');
  mkdirSync(join(folder, 'files'), { recursive: true });
  await (await openDatabase(folder)).close();
  await (await openDatabase(join(temporaryFolder(), 'not', 'there', 'yet'))).close();
});

test.each<[string, (file: string) => void, RegExp]>([
  ['words in place of a library', (file) => writeFileSync(file, 'dear colleague'), /begin/],
  [
    'the first bytes of one',
    (file) => writeFileSync(file, readFileSync(file).subarray(0, 10)),
    /begin/,
  ],
  ['half of one', (file) => truncateSync(file, readFileSync(file).length >> 1), /damaged/],
  [
    'one with bytes turned over',
    (file) => {
      const bytes = readFileSync(file);
      for (let at = 4096; at < bytes.length; at += 512) bytes[at] = 0xff;
      writeFileSync(file, bytes);
    },
    /damaged/,
  ],
])('%s is refused in words, and stays as it is', async (_, spoil, words) => {
  const folder = await filled();
  const file = join(folder, LIBRARY_FILE);
  spoil(file);
  const before = readFileSync(file);
  expect(await refusal(folder)).toMatch(words);
  expect(readFileSync(file).equals(before)).toBe(true);
});

test('what the system says of a folder is told in words', () => {
  const said = (code: string, at: 'code' | 'original' = 'code') =>
    (inWords(at === 'code' ? { code } : { original: { code } }, '/data') as Error).message;
  expect(said('ENOSPC')).toMatch(/disk.*full/);
  expect(said('SQLITE_FULL', 'original')).toMatch(/disk.*full/);
  expect(said('EROFS')).toMatch(/cannot be written/);
  expect(said('SQLITE_READONLY', 'original')).toMatch(/cannot be written/);
  expect(said('SQLITE_BUSY', 'original')).toMatch(/in use/);
  const other = new Error('something else');
  expect(inWords(other, '/data')).toBe(other);
});

test('a file in place of the folder is refused in words', async () => {
  const file = join(temporaryFolder(), 'file');
  writeFileSync(file, 'x');
  expect(await refusal(file)).toMatch(/no folder/);
});
