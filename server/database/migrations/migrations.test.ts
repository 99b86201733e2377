import { QueryTypes } from 'sequelize';
import { createLibrary } from '../../library';
import { computeWatts } from '../../derived/computeWatts';
import { temporaryFolder } from '../../test-support/temporaryFolder';
import { openDatabase, type Database } from '../openDatabase';
import { UnusableLibrary } from '../unusable';

const AT = '2026-01-02 03:04:05.000 +00:00';
const run = (db: Database, sql: string) => db.sequelize.query(sql);
const select = <T extends object>(db: Database, sql: string) =>
  db.sequelize.query<T>(sql, { type: QueryTypes.SELECT });
const record = (n: string) =>
  JSON.stringify({ format: 'zugluft-record', formatVersion: 1, identity: { model: n } });

/** A library as the program of one migration left it, filled, and opened by this one. */
async function upgraded(upTo: string, fill: (db: Database) => Promise<unknown>): Promise<Database> {
  const folder = temporaryFolder();
  const old = await openDatabase(folder, upTo);
  await fill(old);
  await old.close();
  return openDatabase(folder);
}

/** A machine as the first program kept it. */
const firstMachine = (db: Database) =>
  run(
    db,
    `INSERT INTO machines (id, revision, record, complete, maker, model, variant, searchText, fans, pipes, stacks, createdAt, updatedAt)
      VALUES ('m', 2, '${record('b')}', 0, 'Oslund', 'Drift', 'v', 'oslund drift v', 1, 1, 1, '${AT}', '${AT}')`,
  ).then(() =>
    run(
      db,
      `INSERT INTO revisions (machineId, revision, record, createdAt) VALUES
        ('m', 1, '${record('a')}', '${AT}'), ('m', 2, '${record('b')}', '${AT}')`,
    ),
  );
/** The rows of a machine after there were variants and units. */
const machineRows = async (db: Database) => {
  await run(db, `INSERT INTO variants (id, createdAt) VALUES ('v', '${AT}')`);
  await run(
    db,
    `INSERT INTO units (id, variantId, revision, facts, createdAt, updatedAt) VALUES ('u', 'v', 4, '{"serial":"FS-1"}', '${AT}', '${AT}')`,
  );
  await run(
    db,
    `INSERT INTO machines (id, revision, complete, maker, model, variant, searchText, fans, pipes, stacks, chamber, describedBy, unitId, variantId, stateName, createdAt, updatedAt)
      VALUES ('m', 2, 0, 'Oslund', 'Drift', 'v', 'oslund drift v', 1, 1, 1, 0, 1, 'u', 'v', 'dusty', '${AT}', '${AT}')`,
  );
};
/** The same with its revisions, which were later kept with those of all documents. */
const laterMachine = async (db: Database) => {
  await machineRows(db);
  await run(
    db,
    `INSERT INTO revisions (machineId, revision, record, createdAt) VALUES
      ('m', 1, '${record('a')}', '${AT}'), ('m', 2, '${record('b')}', '${AT}')`,
  );
};
const revisionsOf = (db: Database, kind: string) =>
  select<{ revision: number; value: string; name: string | null; putAside: number }>(
    db,
    `SELECT revision, value, name, putAside FROM document_revisions WHERE kind = '${kind}' ORDER BY revision`,
  );

test('0001 and 0003: a machine of the first program has its revisions, a variant and a unit', async () => {
  const db = await upgraded('0001-machines', firstMachine);
  expect((await revisionsOf(db, 'record')).map((r) => JSON.parse(r.value).identity.model)).toEqual([
    'a',
    'b',
  ]);
  const machine = (await db.models.Machine.findByPk('m'))!;
  expect(machine).toMatchObject({ revision: 2, stateName: 'as found', maker: 'Oslund' });
  expect((await db.models.Unit.findByPk(machine.unitId))!.variantId).toBe(machine.variantId);
  await db.close();
});

test('0002: a library from before there were defaults opens', async () => {
  const db = await upgraded('0001-machines', async () => undefined);
  expect(await revisionsOf(db, 'defaults')).toEqual([]);
  await db.close();
});

test('0004: words are found, and a record that no revision held becomes one', async () => {
  const db = await upgraded('0003-families', async (old) => {
    await run(old, `INSERT INTO variants (id, createdAt) VALUES ('v', '${AT}')`);
    await run(
      old,
      `INSERT INTO units (id, variantId, revision, facts, createdAt, updatedAt) VALUES ('u', 'v', 1, '{}', '${AT}', '${AT}')`,
    );
    await run(
      old,
      `INSERT INTO machines (id, revision, record, complete, maker, model, variant, searchText, fans, pipes, stacks, unitId, variantId, createdAt, updatedAt)
        VALUES ('m', 3, '${record('c')}', 0, 'Oslund', 'Drift', 'v', 'oslund drift whistling', 1, 1, 1, 'u', 'v', '${AT}', '${AT}')`,
    );
  });
  expect((await revisionsOf(db, 'record')).map((r) => r.revision)).toEqual([3]);
  // a migration that left rows without words would leave them unfound for good
  const found = await select<{ machineId: string }>(
    db,
    `SELECT k.machineId FROM machine_words w JOIN search_keys k ON k.key = w.rowid WHERE machine_words MATCH '"whist"*'`,
  );
  expect(found).toEqual([{ machineId: 'm' }]);
  await db.close();
});

test('0005: a photo keeps what is known of it, put aside or not', async () => {
  const db = await upgraded('0007-lab-settings', async (old) => {
    await laterMachine(old);
    await run(
      old,
      `INSERT INTO attachments (id, machineId, revision, path, name, type, sha256, bytes, caption, covers, exported, putAsideAt, createdAt, updatedAt)
        VALUES ('p', 'm', 5, 'fans.a', 'x "1".png', 'image/png', 'ff', 9, 'it''s left', '[[0.1,0.2,0.3,0.4]]', 0, '${AT}', '${AT}', '${AT}')`,
    );
  });
  const [photo] = await revisionsOf(db, 'photo');
  expect(photo).toMatchObject({ revision: 5, putAside: 1 });
  expect(JSON.parse(photo!.value)).toEqual({
    path: 'fans.a',
    name: 'x "1".png',
    caption: 'it’s left'.replace('’', "'"),
    covers: [[0.1, 0.2, 0.3, 0.4]],
    exported: false,
  });
  await db.close();
});

test('0006: every version of a log is there', async () => {
  const log = (note: string) =>
    JSON.stringify({ format: 'zugluft-openup', formatVersion: 1, note });
  const db = await upgraded('0007-lab-settings', async (old) => {
    await laterMachine(old);
    await run(
      old,
      `INSERT INTO open_up_logs (machineId, revision, log, createdAt) VALUES ('m', 1, '${log('one')}', '${AT}'), ('m', 2, '${log('two')}', '${AT}')`,
    );
  });
  expect((await revisionsOf(db, 'log')).map((r) => JSON.parse(r.value).note)).toEqual([
    'one',
    'two',
  ]);
  await db.close();
});

test('0009: names are compared without the case of any script', async () => {
  const db = await upgraded('0008-documents', async (old) => {
    await machineRows(old);
    await run(old, "UPDATE machines SET maker = 'Ökobook', model = 'Straße 15'");
  });
  expect(await select(db, 'SELECT maker, makerKey, modelKey, variantKey FROM machines')).toEqual([
    { maker: 'Ökobook', makerKey: 'ökobook', modelKey: 'strasse 15', variantKey: 'v' },
  ]);
  await db.close();
});

test('0010: photos that were there wait for a look, and whether they may go out stays', async () => {
  const db = await upgraded('0009-name-keys', async (old) => {
    await machineRows(old);
    await run(
      old,
      `INSERT INTO attachments (id, machineId, revision, path, name, type, sha256, bytes, caption, covers, exported, createdAt, updatedAt)
        VALUES ('p', 'm', 1, '', 'a.jpg', 'image/jpeg', 'x', 1, '', '[]', 1, '${AT}', '${AT}')`,
    );
  });
  expect(await select(db, 'SELECT id, exported, looked FROM attachments')).toEqual([
    { id: 'p', exported: 1, looked: 0 },
  ]);
  await db.close();
});

test('0011: a library that was there takes runs, and nothing of it changes', async () => {
  const db = await upgraded('0010-photos-looked-at', machineRows);
  expect(await select(db, 'SELECT count(*) AS n FROM machines')).toEqual([{ n: 1 }]);
  await run(
    db,
    `INSERT INTO runs (id, machineId, revision, createdAt, updatedAt) VALUES ('r', 'm', 1, '${AT}', '${AT}')`,
  );
  expect(await select(db, 'SELECT id, putAsideAt FROM runs')).toEqual([
    { id: 'r', putAsideAt: null },
  ]);
  // a run belongs to a machine that is there
  await expect(
    run(
      db,
      `INSERT INTO runs (id, machineId, revision, createdAt, updatedAt) VALUES ('s', 'none', 1, '${AT}', '${AT}')`,
    ),
  ).rejects.toThrow();
  await db.close();
});

test('0013: a library that was there remembers layouts of logs, and its runs stay', async () => {
  const db = await upgraded('0012-calibrations', async (old) => {
    await machineRows(old);
    await run(
      old,
      `INSERT INTO runs (id, machineId, revision, createdAt, updatedAt) VALUES ('r', 'm', 1, '${AT}', '${AT}')`,
    );
  });
  expect(await select(db, 'SELECT id FROM runs')).toEqual([{ id: 'r' }]);
  expect(await select(db, 'SELECT count(*) AS n FROM log_layouts')).toEqual([{ n: 0 }]);
  await run(
    db,
    `INSERT INTO log_layouts (key, header, layout, createdAt, updatedAt) VALUES ('k', 'Time', '{}', '${AT}', '${AT}')`,
  );
  // said twice, it is what was said last
  await expect(
    run(
      db,
      `INSERT INTO log_layouts (key, header, layout, createdAt, updatedAt) VALUES ('k', 'Time', '{}', '${AT}', '${AT}')`,
    ),
  ).rejects.toThrow();
  await db.close();
});

test('0014: a library that was there publishes editions, each of its number once', async () => {
  const db = await upgraded('0013-log-layouts', async (old) => {
    await machineRows(old);
  });
  expect(await select(db, 'SELECT id FROM machines')).toEqual([{ id: 'm' }]);
  const edition = (id: string, machine: string) =>
    run(
      db,
      `INSERT INTO editions (id, machineId, number, recordRevision, source, files, sha256, bytes, createdAt)
       VALUES ('${id}', '${machine}', 1, 1, '{}', '[]', '0', 1, '${AT}')`,
    );
  await edition('a', 'm');
  await expect(edition('b', 'm')).rejects.toThrow();
  await expect(edition('c', 'none')).rejects.toThrow();
  await db.close();
});

test('0015: photos from before have no focal length, those that come may', async () => {
  const photo = (db: Database, id: string, more: [names: string, values: string]) =>
    run(
      db,
      `INSERT INTO attachments (id, machineId, revision, path, name, type, sha256, bytes, caption, covers, exported, looked, createdAt, updatedAt${more[0]})
       VALUES ('${id}', 'm', 1, '', 'a.jpg', 'image/jpeg', '0', 9, 'before', '[]', 1, 1, '${AT}', '${AT}'${more[1]})`,
    );
  const db = await upgraded('0014-editions', async (old) => {
    await machineRows(old);
    await photo(old, 'p', ['', '']);
  });
  await photo(db, 'q', [', focalPx', ', 3000.5']);
  const rows = await db.models.Attachment.findAll({ order: ['id'] });
  expect(rows.map((r) => [r.id, r.caption, r.focalPx])).toEqual([
    ['p', 'before', null],
    ['q', 'before', 3000.5],
  ]);
  await db.close();
});

test('0016: revisions from before say of nobody that he wrote them', async () => {
  const db = await upgraded('0015-focal-lengths', async (old) => {
    await run(
      old,
      `INSERT INTO documents (kind, id, revision, createdAt, updatedAt) VALUES ('record', 'm', 1, '${AT}', '${AT}')`,
    );
    await run(
      old,
      `INSERT INTO document_revisions (kind, id, revision, value, putAside, note, createdAt) VALUES ('record', 'm', 1, '{}', 0, 'n', '${AT}')`,
    );
  });
  expect(await select(db, 'SELECT note, writtenBy FROM document_revisions')).toEqual([
    { note: 'n', writtenBy: null },
  ]);
  await db.close();
});

test('0007 and 0008: changes of settings and defaults become revisions of one document each; the library goes on', async () => {
  const db = await upgraded('0007-lab-settings', async (old) => {
    await laterMachine(old);
    await run(
      old,
      `INSERT INTO lab_settings (key, value, createdAt) VALUES
        ('house-rules', '{"battery":"take-out"}', '${AT}'), ('rubric', '{}', '${AT}')`,
    );
    await run(
      old,
      `INSERT INTO lab_defaults (key, value, low, high, note, createdAt) VALUES
        ('fans.psi', 1, 0.8, 1.2, 'own', '${AT}'), ('fans.phi', 0.1, 0.08, 0.12, '', '${AT}'),
        ('fans.psi', NULL, NULL, NULL, '', '${AT}')`,
    );
  });
  const library = createLibrary(
    db,
    async (job) => computeWatts(job),
    (cause) => {
      throw cause;
    },
  );
  const settings = await library.documents.read('settings', 'laboratory');
  expect(settings.revision).toBe(2);
  expect(settings.value['house-rules'].battery).toBe('take-out');
  const defaults = await library.documents.read('defaults', 'laboratory');
  expect(defaults.revision).toBe(3);
  expect(Object.keys(defaults.value)).toEqual(['fans.phi']);
  expect((await revisionsOf(db, 'defaults')).map((r) => Object.keys(JSON.parse(r.value)))).toEqual([
    ['fans.psi'],
    ['fans.psi', 'fans.phi'],
    ['fans.phi'],
  ]);
  // what was kept goes on under the same lock
  expect((await revisionsOf(db, 'unit'))[0]).toMatchObject({ revision: 4 });
  const written = await library.documents.write('unit', 'u', 4, { serial: 'FS-2' });
  expect(written.revision).toBe(5);
  const machine = await library.machines.read('m');
  expect(machine).toMatchObject({ revision: 2, stateName: 'dusty' });
  expect((await revisionsOf(db, 'record')).map((r) => r.name)).toEqual(['dusty', 'dusty']);
  await library.close();
});

test('a library that a newer program wrote is refused in words, and nothing of it is changed', async () => {
  const folder = temporaryFolder();
  const newer = await openDatabase(folder);
  await run(newer, `INSERT INTO migrations (name) VALUES ('0099-dreams')`);
  await newer.close();
  await expect(openDatabase(folder)).rejects.toThrow(UnusableLibrary);
  await expect(openDatabase(folder)).rejects.toThrow(/newer version of the program.*0099-dreams/);
});
