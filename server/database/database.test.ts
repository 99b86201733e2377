import { QueryTypes } from 'sequelize';
import { temporaryFolder } from '../test-support/temporaryFolder';
import { openDatabase } from './openDatabase';

const folder = temporaryFolder;

test('write-ahead log, foreign keys and full sync are on', async () => {
  const db = await openDatabase(folder());
  const pragma = async (name: string) =>
    Object.values((await db.sequelize.query(`PRAGMA ${name}`, { type: QueryTypes.SELECT }))[0]!)[0];
  expect(await pragma('journal_mode')).toBe('wal');
  expect(await pragma('foreign_keys')).toBe(1);
  expect(await pragma('synchronous')).toBe(2);
  await db.close();
});

test('a failed write leaves nothing behind, and the next one goes through', async () => {
  const db = await openDatabase(folder());
  const orphan = () =>
    db.write((transaction) =>
      db.models.DocumentRevision.create(
        {
          kind: 'record',
          id: 'nobody',
          revision: 1,
          value: '{}',
          name: null,
          putAside: false,
          note: '',
          writeId: null,
        },
        { transaction },
      ),
    );
  await expect(orphan()).rejects.toThrow();
  await db.write(async () => undefined);
  expect(await db.models.DocumentRevision.count()).toBe(0);
  await db.close();
});

test('opening a filled library again migrates nothing twice and keeps everything', async () => {
  const where = folder();
  const first = await openDatabase(where, '0001-machines');
  await first.sequelize.query(
    "INSERT INTO machines (id, revision, record, complete, maker, model, variant, searchText, fans, pipes, stacks, createdAt, updatedAt) VALUES ('a', 1, '{}', 0, 'm', 'n', 'v', 'm n v', 0, 0, 0, '2026-01-01', '2026-01-01')",
  );
  await first.close();
  const second = await openDatabase(where);
  expect(await second.models.Machine.count()).toBe(1);
  expect(await second.models.DocumentRevision.count({ where: { kind: 'record' } })).toBe(1);
  await second.close();
  const third = await openDatabase(where);
  expect(await third.models.Machine.count()).toBe(1);
  await third.close();
});
