import { copyFileSync, existsSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { QueryTypes } from 'sequelize';
import { temporaryFolder } from '../test-support/temporaryFolder';
import { LIBRARY_FILE } from './examineFolder';
import { MIGRATIONS } from './migrate';
import { openDatabase, type Database } from './openDatabase';

const AT = '2026-01-02 03:04:05.000 +00:00';
const FIRST = '0001-machines';

const run = (db: Database, sql: string) => db.sequelize.query(sql);
const select = <T extends object>(db: Database, sql: string) =>
  db.sequelize.query<T>(sql, { type: QueryTypes.SELECT });
const namesIn = async (db: Database) =>
  (await select<{ name: string }>(db, 'SELECT name FROM migrations ORDER BY name')).map(
    (r) => r.name,
  );

/** A library of the first program with three machines. */
async function oldLibrary(): Promise<string> {
  const folder = temporaryFolder();
  const db = await openDatabase(folder, FIRST);
  for (const id of ['a', 'b', 'c']) {
    await run(
      db,
      `INSERT INTO machines (id, revision, record, complete, maker, model, variant, searchText, fans, pipes, stacks, createdAt, updatedAt)
        VALUES ('${id}', 1, '{"of":"${id}"}', 0, 'Oslund', 'Drift', '${id}', 'oslund ${id}', 1, 1, 1, '${AT}', '${AT}')`,
    );
    await run(
      db,
      `INSERT INTO revisions (machineId, revision, record, createdAt) VALUES ('${id}', 1, '{"of":"${id}"}', '${AT}')`,
    );
  }
  await db.close();
  return folder;
}

/** What was kept of the three machines. */
const keptIn = async (db: Database) =>
  (
    await select<{ id: string; value: string }>(
      db,
      `SELECT id, value FROM document_revisions WHERE kind = 'record' ORDER BY id`,
    )
  ).map((r) => `${r.id} ${r.value}`);
const KEPT = ['a', 'b', 'c'].map((id) => `${id} {"of":"${id}"}`);

test('killed at any statement of all its changes, a library opens and has lost nothing', async () => {
  const folder = await oldLibrary();
  const copies: string[] = [];
  // what lies on the disk at a statement is what a kill there would leave
  const db = await openDatabase(folder, undefined, () => {
    const copy = temporaryFolder();
    for (const name of readdirSync(folder).filter((n) => n.startsWith(LIBRARY_FILE))) {
      if (!name.endsWith('-shm')) copyFileSync(join(folder, name), join(copy, name));
    }
    copies.push(copy);
  });
  await db.close();
  expect(copies.length).toBeGreaterThan(100);
  for (const copy of copies) {
    const again = await openDatabase(copy);
    expect(await keptIn(again)).toEqual(KEPT);
    expect(await namesIn(again)).toEqual(MIGRATIONS.map((m) => m.name));
    await again.close();
  }
}, 240_000);

test('a change that an older version left without its name is told, and the library opens', async () => {
  for (const [k, { name }] of MIGRATIONS.entries()) {
    if (k === 0) continue;
    const folder = await oldLibrary();
    const db = await openDatabase(folder, name);
    await run(db, `DELETE FROM migrations WHERE name = '${name}'`);
    await db.close();
    const again = await openDatabase(folder);
    expect(await namesIn(again)).toEqual(MIGRATIONS.map((m) => m.name));
    expect(await keptIn(again)).toEqual(KEPT);
    await again.close();
  }
});

test('a change that fails is taken back whole, and says why', async () => {
  const folder = await oldLibrary();
  const db = await openDatabase(folder, FIRST);
  // a record that no revision would hold
  await run(db, `CREATE TABLE variants (other TEXT)`);
  await db.close();
  await expect(openDatabase(folder)).rejects.toThrow(/variants|units|unitId|column/);
  const again = await openDatabase(folder, FIRST);
  expect(await namesIn(again)).toContain(FIRST);
  expect(await namesIn(again)).not.toContain('0003-families');
  expect(await select(again, 'SELECT id FROM machines')).toHaveLength(3);
  await again.close();
});

test('the file is copied as it was before it is changed, and not where nothing is', async () => {
  const folder = await oldLibrary();
  await (await openDatabase(folder)).close();
  const copy = join(folder, 'zugluft.before-0002-lab-defaults.sqlite');
  expect(existsSync(copy)).toBe(true);
  const other = temporaryFolder();
  copyFileSync(copy, join(other, LIBRARY_FILE));
  const old = await openDatabase(other, FIRST);
  expect(await namesIn(old)).toEqual([FIRST]);
  expect(await select(old, 'SELECT record FROM machines')).toHaveLength(3);
  await old.close();
  const fresh = temporaryFolder();
  await (await openDatabase(fresh)).close();
  await (await openDatabase(fresh)).close();
  expect(readdirSync(fresh).filter((n) => n.includes('before'))).toEqual([]);
});
