import { createHash } from 'node:crypto';
import {
  copyFileSync,
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  writeFileSync,
} from 'node:fs';
import { join } from 'node:path';
import { Writable } from 'node:stream';
import sharp from 'sharp';
import { openDatabase } from '../database/openDatabase';
import { openSqlite } from '../database/sqliteFile';
import { temporaryFolder } from '../test-support/temporaryFolder';
import { testLibrary } from '../test-support/testServer';
import { checkFolder } from './checkFolder';
import { readBackup } from './readBackup';
import { stage, swapBack } from './restore';
import { backupToFile, writeBackup } from './writeBackup';

const EXAMPLE = JSON.parse(
  readFileSync(join(__dirname, '../../examples/one-die.json'), 'utf8'),
) as unknown;
const NOW = new Date('2026-11-29T10:00:00Z');
const photo = (colour: string) =>
  sharp({ create: { width: 64, height: 48, channels: 3, background: colour } })
    .png()
    .toBuffer();

/** A library with a machine and two photos, closed. */
async function filled(): Promise<{ folder: string; id: string; hashes: string[] }> {
  const folder = temporaryFolder();
  const library = await testLibrary(folder);
  const { id } = await library.machines.create(EXAMPLE);
  const hashes: string[] = [];
  for (const [k, colour] of ['#caa', '#aca'].entries()) {
    const about = { name: `${k}.png`, path: '' };
    hashes.push((await library.attachments.add(id, await photo(colour), about)).sha256);
  }
  await library.close();
  return { folder, id, hashes };
}

const fileOf = (folder: string, hash: string) => join(folder, 'files', hash.slice(0, 2), hash);
/** Everything that lies in a folder, by name, with its hash. */
const lying = (folder: string): string[] =>
  readdirSync(folder, { recursive: true, withFileTypes: true })
    .filter((e) => e.isFile())
    .map((e) => join(e.parentPath, e.name))
    .map((path) => `${path} ${createHash('sha256').update(readFileSync(path)).digest('hex')}`)
    .sort();
const machinesIn = async (folder: string): Promise<string[]> => {
  const db = await openDatabase(folder);
  const rows = await db.models.Machine.findAll({ attributes: ['id'] });
  await db.close();
  return rows.map((r) => r.id);
};

test('a backup of one folder brings all of it into another, which is set aside and compared', async () => {
  const { folder, id, hashes } = await filled();
  const file = join(temporaryFolder(), 'all.tar');
  const made = await backupToFile(folder, file, false, NOW);
  expect(made).toMatchObject({ missing: [], damaged: [], createdAt: NOW.toISOString() });
  expect(made.rows).toMatchObject({ machines: 1, attachments: 2 });
  expect(await readBackup(file, null)).toEqual(made);

  const other = await filled();
  const before = await machinesIn(other.folder);
  const { aside } = await (await stage(other.folder, file)).swap(NOW);
  expect(await machinesIn(other.folder)).toEqual([id]);
  for (const hash of hashes) {
    expect(readFileSync(fileOf(other.folder, hash))).toEqual(readFileSync(fileOf(folder, hash)));
  }
  // what was there is whole where it lies now
  expect(await machinesIn(aside)).toEqual(before);
  expect(await checkFolder(aside)).toMatchObject({ library: [], damaged: [], missing: [] });
  expect(readdirSync(other.folder).filter((n) => n.startsWith('.'))).toEqual([]);
  // once more, into nothing
  const fresh = temporaryFolder();
  await (await stage(fresh, file)).swap(NOW);
  expect(await machinesIn(fresh)).toEqual([id]);
  // and a library without photos, over one with some
  const bare = temporaryFolder();
  await (await openDatabase(bare)).close();
  const none = join(temporaryFolder(), 'none.tar');
  await backupToFile(bare, none, false);
  await (await stage(other.folder, none)).swap(new Date('2026-11-29T11:00:00Z'));
  expect(await machinesIn(other.folder)).toEqual([]);
  expect(existsSync(join(other.folder, 'files'))).toBe(false);
});

test('a library that is open and written to is backed up as it is at one moment', async () => {
  const folder = temporaryFolder();
  const library = await testLibrary(folder);
  const ids: string[] = [];
  let going = true;
  const writing = (async () => {
    while (going) ids.push((await library.machines.create(EXAMPLE)).id);
  })();
  while (ids.length < 5) await new Promise((resolve) => setTimeout(resolve, 1));
  const acknowledged = ids.length;
  const file = join(temporaryFolder(), 'all.tar');
  const made = await backupToFile(folder, file, false);
  going = false;
  await writing;
  await library.close();
  expect(made.rows['machines']).toBeGreaterThanOrEqual(acknowledged);
  expect(made.rows['documents']).toBe(2 * made.rows['machines']!);
  const fresh = temporaryFolder();
  await (await stage(fresh, file)).swap(NOW);
  expect(new Set(ids.slice(0, acknowledged))).toEqual(
    new Set((await machinesIn(fresh)).filter((id) => ids.indexOf(id) < acknowledged)),
  );
});

test('every part of a backup that is damaged is found, and what is there stays as it is', async () => {
  const { folder } = await filled();
  const file = join(temporaryFolder(), 'all.tar');
  await backupToFile(folder, file, false, NOW);
  const whole = readFileSync(file);
  const other = await filled();
  const before = lying(other.folder);
  const refused = async (bytes: Buffer) => {
    const spoiled = join(temporaryFolder(), 'spoiled.tar');
    writeFileSync(spoiled, bytes);
    await expect(stage(other.folder, spoiled)).rejects.toThrow(/^the backup is damaged: /);
    expect(lying(other.folder)).toEqual(before);
  };
  // one byte of each block that holds anything
  for (let at = 0; at < whole.length - 1024; at += 512) {
    const block = whole.subarray(at, at + 512);
    const filledAt = block.findIndex((b) => b !== 0);
    if (filledAt < 0 || (at % 8192 !== 0 && at > 16_384 && at < whole.length - 32_768)) continue;
    const spoiled = Buffer.from(whole);
    spoiled[at + filledAt]! ^= 0x21;
    await refused(spoiled);
  }
  // cut off anywhere
  for (const share of [0, 0.1, 0.5, 0.9, 0.98]) {
    await refused(whole.subarray(0, Math.floor(share * whole.length)));
  }
  await refused(Buffer.from('dear colleague, here is the backup'));
  await refused(Buffer.concat([whole.subarray(0, whole.length - 1024), whole]));
}, 120_000);

test('a backup of a newer program is refused, as is one that is not there', async () => {
  const { folder } = await filled();
  const db = await openDatabase(folder);
  await db.sequelize.query(`INSERT INTO migrations (name) VALUES ('0099-dreams')`);
  await db.close();
  const file = join(temporaryFolder(), 'new.tar');
  await backupToFile(folder, file, false);
  await expect(stage(temporaryFolder(), file)).rejects.toThrow(/newer version.*0099-dreams/);
  await expect(stage(temporaryFolder(), `${file}.not`)).rejects.toThrow(/there is no file/);
  await expect(stage(temporaryFolder(), temporaryFolder())).rejects.toThrow(/folder, no backup/);
});

test('a restore that is cut off at any step is done at the next start, one library or the other', async () => {
  const { folder, id } = await filled();
  const file = join(temporaryFolder(), 'all.tar');
  await backupToFile(folder, file, false, NOW);
  const staged = ['zugluft.sqlite', 'files'];
  const parts = ['zugluft.sqlite', 'files', 'thumbnails'];
  // the steps of a swap: each part aside, then the new one in its place
  const cuts = Array.from({ length: 2 * parts.length + 1 }, (_, done) => done);
  // one that had photos, and one that had none to set aside
  for (const [done, had] of cuts.flatMap((cut) => [[cut, true] as const, [cut, false] as const])) {
    const other = await filled();
    if (!had) rmSync(join(other.folder, 'files'), { recursive: true });
    const next = join(other.folder, '.restoring-x');
    await stage(other.folder, file);
    const laid = readdirSync(other.folder).find((n) => n.startsWith('.restoring-'))!;
    renameSync(join(other.folder, laid), next);
    const aside = join(other.folder, 'before-restore-x');
    mkdirSync(aside);
    writeFileSync(
      join(other.folder, 'restoring.json'),
      JSON.stringify({ staged: '.restoring-x', aside: 'before-restore-x', parts: staged }),
    );
    for (let step = 0; step < done; step++) {
      const part = parts[step >> 1]!;
      const [from, to] =
        step % 2 === 0
          ? [join(other.folder, part), join(aside, part)]
          : [join(next, part), join(other.folder, part)];
      if (existsSync(from)) renameSync(from, to);
    }
    expect([done, had, await machinesIn(other.folder)]).toEqual([done, had, [id]]);
    expect(await machinesIn(aside)).toEqual([other.id]);
    expect(await checkFolder(other.folder)).toMatchObject({ damaged: [], missing: [] });
    expect(readdirSync(other.folder).filter((n) => /restoring/.test(n))).toEqual([]);
    expect(existsSync(join(other.folder, 'thumbnails'))).toBe(false);
  }
  // cut off before it began: nothing has changed
  const other = await filled();
  await stage(other.folder, file);
  expect(await machinesIn(other.folder)).toEqual([other.id]);
  expect(readdirSync(other.folder).filter((n) => /restoring/.test(n))).toEqual([]);
});

test('two restores within one second set aside each what was there, and lose nothing of it', async () => {
  const { folder, id } = await filled();
  const file = join(temporaryFolder(), 'all.tar');
  await backupToFile(folder, file, false, NOW);
  const other = await filled();
  const first = await (await stage(other.folder, file)).swap(NOW);
  const between = (await machinesIn(other.folder))[0]!;
  const library = await testLibrary(other.folder);
  const { id: later } = await library.machines.create(EXAMPLE);
  await library.attachments.add(later, await photo('#aac'), { name: 'x.png', path: '' });
  await library.close();
  const second = await (await stage(other.folder, file)).swap(NOW);
  expect(first.aside).not.toBe(second.aside);
  expect([between, ...(await machinesIn(other.folder))]).toEqual([id, id]);
  expect(await machinesIn(first.aside)).toEqual([other.id]);
  expect((await machinesIn(second.aside)).sort()).toEqual([id, later].sort());
  // put back twice within that second too
  await swapBack(other.folder, second.aside, NOW);
  expect((await machinesIn(other.folder)).sort()).toEqual([id, later].sort());
  await swapBack(other.folder, first.aside, NOW);
  expect(await machinesIn(other.folder)).toEqual([other.id]);
  const aside = readdirSync(other.folder).filter((n) => n.startsWith('before-restore-'));
  expect(aside.map((n) => n.replace(/.*Z?-00-00/, '')).sort()).toEqual(['-failed', '-failed-2']);
  expect(await checkFolder(other.folder)).toMatchObject({ damaged: [], missing: [] });
});

test('a restore that found something aside already, under its own name, is done at the next start', async () => {
  const { folder, id } = await filled();
  const file = join(temporaryFolder(), 'all.tar');
  await backupToFile(folder, file, false, NOW);
  const other = await filled();
  await stage(other.folder, file);
  const laid = readdirSync(other.folder).find((n) => n.startsWith('.restoring-'))!;
  const aside = join(other.folder, 'before-restore-x');
  mkdirSync(join(aside, 'files'), { recursive: true });
  writeFileSync(join(aside, 'files', 'earlier'), 'x');
  writeFileSync(
    join(other.folder, 'restoring.json'),
    JSON.stringify({ staged: laid, aside: 'before-restore-x', parts: ['zugluft.sqlite', 'files'] }),
  );
  expect(await machinesIn(other.folder)).toEqual([id]);
  expect(await checkFolder(other.folder)).toMatchObject({ damaged: [], missing: [] });
  expect(readFileSync(join(aside, 'files', 'earlier'), 'utf8')).toBe('x');
  expect(readdirSync(join(aside, 'files-2')).length).toBeGreaterThan(0);
  expect(await machinesIn(aside)).toEqual([other.id]);
});

test('a file is written over only when told, and one that cannot be written says why', async () => {
  const { folder } = await filled();
  const file = join(temporaryFolder(), 'all.tar');
  writeFileSync(file, 'mine');
  await expect(backupToFile(folder, file, false)).rejects.toThrow(/there already.*--force/);
  expect(readFileSync(file, 'utf8')).toBe('mine');
  await backupToFile(folder, file, true);
  await readBackup(file, null);
  await expect(backupToFile(folder, join(file, 'not', 'there'), false)).rejects.toThrow(/folder/);
  await expect(backupToFile(temporaryFolder(), `${file}2`, false)).rejects.toThrow(/no library/);
  // a reader that goes away leaves no copy of the library behind
  const gone = new Writable({ write: (_p, _e, done) => done(new Error('gone')) });
  await expect(writeBackup(folder, gone)).rejects.toThrow('gone');
  expect(readdirSync(folder).filter((n) => n.startsWith('.'))).toEqual([]);
});

test('a look at every byte names what is damaged or missing, and so does a backup', async () => {
  const { folder, hashes } = await filled();
  expect(await checkFolder(folder)).toMatchObject({
    files: 2,
    library: [],
    damaged: [],
    missing: [],
    unnamed: 0,
  });
  const [first, second] = hashes as [string, string];
  const bytes = readFileSync(fileOf(folder, first));
  bytes[40]! ^= 1;
  writeFileSync(fileOf(folder, first), bytes);
  rmSync(fileOf(folder, second));
  const left = 'ab'.repeat(32);
  copyFileSync(fileOf(folder, first), `${join(folder, 'files')}/copy`);
  writeFileSync(join(folder, 'files', first.slice(0, 2), left), 'x');
  const found = await checkFolder(folder);
  expect(found).toMatchObject({ missing: [second], unnamed: 1, library: [] });
  expect(found.damaged).toContain(first);
  const made = await backupToFile(folder, join(temporaryFolder(), 'all.tar'), false);
  expect(made.missing).toEqual([second]);
  expect(made.damaged).toContain(first);
  const db = await openSqlite(join(folder, 'zugluft.sqlite'));
  await db.all('PRAGMA foreign_keys = OFF');
  await db.all('DELETE FROM machines');
  await db.close();
  expect((await checkFolder(folder)).library.join()).toMatch(/belong to nothing/);
});
