import { join } from 'node:path';
import { temporaryFolder } from '../test-support/temporaryFolder';
import { LIBRARY_FILE } from './examineFolder';
import { openDatabase, type Database } from './openDatabase';
import { openReader } from './reader';

let db: Database;
let folder: string;
beforeEach(async () => {
  folder = temporaryFolder();
  db = await openDatabase(folder);
});
afterEach(() => db.close());

const write = (sql: string) =>
  db.write(async (transaction) => void (await db.sequelize.query(sql, { transaction })));
const ROW = (n: number) => `INSERT INTO search_keys (key, machineId) VALUES (${n}, 'm${n}')`;

test('reads what was written last, by values and by lists, however many ask at once', async () => {
  for (let n = 0; n < 12; n++) await write(ROW(n));
  const one = 'SELECT key FROM search_keys WHERE machineId = $id';
  const asked = Array.from({ length: 60 }, (_, n) => db.read(one, { id: `m${n % 15}` }));
  expect(await Promise.all(asked)).toEqual(
    Array.from({ length: 60 }, (_, n) => (n % 15 < 12 ? [{ key: n % 15 }] : [])),
  );
  const some =
    'SELECT key FROM search_keys WHERE machineId IN (SELECT value FROM json_each($ids)) ORDER BY key';
  expect(await db.read(some, { ids: JSON.stringify(['m3', `m2'`, 'm1']) })).toEqual([
    { key: 1 },
    { key: 3 },
  ]);
  expect(await db.read(some, { ids: '[]' })).toEqual([]);
  await write("UPDATE search_keys SET key = 77 WHERE machineId = 'm1'");
  expect(await db.read(one, { id: 'm1' })).toEqual([{ key: 77 }]);
});

test('sees nothing of a write that is under way, and does not hold it up', async () => {
  const count = () => db.read<{ n: number }>('SELECT count(*) AS n FROM search_keys');
  await db.write(async (transaction) => {
    await db.sequelize.query(ROW(1), { transaction });
    expect(await count()).toEqual([{ n: 0 }]);
  });
  expect(await count()).toEqual([{ n: 1 }]);
});

test('writes nothing, and what cannot be read is said and holds up nothing else', async () => {
  await expect(db.read(ROW(1))).rejects.toThrow('readonly');
  const failing = Array.from({ length: 10 }, () => db.read('SELECT 1 FROM nowhere'));
  const well = db.read('SELECT 1 AS one');
  for (const one of failing) await expect(one).rejects.toThrow('no such table');
  expect(await well).toEqual([{ one: 1 }]);
});

test('what was asked before it is closed is answered, what comes later refused', async () => {
  const reader = await openReader(join(folder, LIBRARY_FILE));
  const asked = Array.from({ length: 20 }, () => reader.read('SELECT 1 AS one'));
  await reader.close();
  for (const one of asked) expect(await one).toEqual([{ one: 1 }]);
  await expect(reader.read('SELECT 1 AS one')).rejects.toThrow('being closed');
});

test('a file that is not there is not made', async () => {
  await expect(openReader(join(folder, 'other.sqlite'))).rejects.toThrow('unable to open');
});
