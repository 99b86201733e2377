import { DataTypes, QueryTypes, type QueryInterface, type Transaction } from 'sequelize';

const LABORATORY = 'laboratory';
/** Indexed columns of watts at five caps that were the same for every laboratory. */
const WATTS = [
  'togetherAt28W',
  'togetherAt32W',
  'togetherAt36W',
  'togetherAt40W',
  'togetherAt45W',
  'togetherFullW',
] as const;

/**
 * One store for all that is kept: records, logs, facts of units and photos, settings and defaults of the laboratory, each with
 * a revision for every write. What was kept in tables of its own is moved here; nothing is left out.
 *
 * Watts in the library become one figure for each cap of the laboratory, with what they were computed by.
 */
export async function up(query: QueryInterface, transaction: Transaction): Promise<void> {
  await createTables(query, transaction);
  await moveRecords(query, transaction);
  await moveLogs(query, transaction);
  await moveFacts(query, transaction);
  await moveLaboratory(query, transaction);
  await checkNothingLost(query, transaction);
  for (const table of ['revisions', 'open_up_logs', 'lab_settings', 'lab_defaults']) {
    await query.dropTable(table, { transaction });
  }
  await wattsByCap(query, transaction);
}

const run = (query: QueryInterface, transaction: Transaction, sql: string) =>
  query.sequelize.query(sql, { transaction });

async function createTables(query: QueryInterface, transaction: Transaction): Promise<void> {
  await query.createTable(
    'documents',
    {
      kind: { type: DataTypes.STRING(30), allowNull: false, primaryKey: true },
      id: { type: DataTypes.STRING(60), allowNull: false, primaryKey: true },
      revision: { type: DataTypes.INTEGER, allowNull: false },
      putAsideAt: { type: DataTypes.DATE, allowNull: true },
      createdAt: { type: DataTypes.DATE, allowNull: false },
      updatedAt: { type: DataTypes.DATE, allowNull: false },
    },
    { transaction },
  );
  // name: of a machine's state; note: how it came about; writeId: the writer's own name for this write, by which an answer
  // that was lost is found again
  await run(
    query,
    transaction,
    `CREATE TABLE document_revisions (
      key INTEGER PRIMARY KEY AUTOINCREMENT,
      kind VARCHAR(30) NOT NULL,
      id VARCHAR(60) NOT NULL,
      revision INTEGER NOT NULL,
      value TEXT NOT NULL,
      name VARCHAR(80),
      putAside TINYINT(1) NOT NULL,
      note VARCHAR(200) NOT NULL,
      writeId VARCHAR(60),
      createdAt DATETIME NOT NULL,
      FOREIGN KEY (kind, id) REFERENCES documents (kind, id) ON DELETE RESTRICT
    )`,
  );
  await query.addIndex('document_revisions', ['kind', 'id', 'revision'], {
    unique: true,
    transaction,
  });
}

async function moveRecords(query: QueryInterface, transaction: Transaction): Promise<void> {
  await run(
    query,
    transaction,
    `INSERT INTO documents (kind, id, revision, putAsideAt, createdAt, updatedAt)
      SELECT 'record', id, revision, putAsideAt, createdAt, updatedAt FROM machines`,
  );
  await run(
    query,
    transaction,
    `INSERT INTO document_revisions (kind, id, revision, value, name, putAside, note, createdAt)
      SELECT 'record', r.machineId, r.revision, r.record, m.stateName, m.putAsideAt IS NOT NULL, '', r.createdAt
      FROM revisions r JOIN machines m ON m.id = r.machineId ORDER BY r.id`,
  );
}

async function moveLogs(query: QueryInterface, transaction: Transaction): Promise<void> {
  await run(
    query,
    transaction,
    `INSERT INTO documents (kind, id, revision, putAsideAt, createdAt, updatedAt)
      SELECT 'log', machineId, max(revision), NULL, min(createdAt), max(createdAt) FROM open_up_logs GROUP BY machineId`,
  );
  await run(
    query,
    transaction,
    `INSERT INTO document_revisions (kind, id, revision, value, name, putAside, note, createdAt)
      SELECT 'log', machineId, revision, log, NULL, 0, '', createdAt FROM open_up_logs ORDER BY id`,
  );
}

/** Facts of units and photos had a revision but kept only the newest. */
async function moveFacts(query: QueryInterface, transaction: Transaction): Promise<void> {
  const photo = `json_object('path', path, 'name', name, 'caption', caption, 'covers', json(covers),
    'exported', json(CASE WHEN exported THEN 'true' ELSE 'false' END))`;
  for (const [kind, table, value, aside] of [
    ['unit', 'units', 'facts', 'NULL'],
    ['photo', 'attachments', photo, 'putAsideAt'],
  ] as const) {
    await run(
      query,
      transaction,
      `INSERT INTO documents (kind, id, revision, putAsideAt, createdAt, updatedAt)
        SELECT '${kind}', id, revision, ${aside}, createdAt, updatedAt FROM ${table}`,
    );
    await run(
      query,
      transaction,
      `INSERT INTO document_revisions (kind, id, revision, value, name, putAside, note, createdAt)
        SELECT '${kind}', id, revision, ${value}, NULL, ${aside} IS NOT NULL, '', updatedAt FROM ${table}`,
    );
  }
}

interface Change {
  key: string;
  value: unknown;
  createdAt: string;
}

/** Each change of one setting or default was a row; together they are one document, a revision for each change. */
async function moveLaboratory(query: QueryInterface, transaction: Transaction): Promise<void> {
  const select = <T extends object>(sql: string) =>
    query.sequelize.query<T>(sql, { type: QueryTypes.SELECT, transaction });
  const settings = await select<{ key: string; value: string; createdAt: string }>(
    'SELECT key, value, createdAt FROM lab_settings ORDER BY id',
  );
  const defaults = await select<{
    key: string;
    value: number | null;
    low: number | null;
    high: number | null;
    note: string;
    createdAt: string;
  }>('SELECT key, value, low, high, note, createdAt FROM lab_defaults ORDER BY id');
  const write = async (kind: string, changes: readonly Change[]) => {
    if (!changes.length) return;
    const at = (x: string) => new Date(x);
    await query.bulkInsert(
      'documents',
      [
        {
          kind,
          id: LABORATORY,
          revision: changes.length,
          putAsideAt: null,
          createdAt: at(changes[0]!.createdAt),
          updatedAt: at(changes[changes.length - 1]!.createdAt),
        },
      ],
      { transaction },
    );
    const now: Record<string, unknown> = {};
    for (const [i, { key, value, createdAt }] of changes.entries()) {
      if (value === null) delete now[key];
      else now[key] = value;
      await query.bulkInsert(
        'document_revisions',
        [
          {
            kind,
            id: LABORATORY,
            revision: i + 1,
            value: JSON.stringify(now),
            name: null,
            putAside: false,
            note: '',
            createdAt: at(createdAt),
          },
        ],
        { transaction },
      );
    }
  };
  await write(
    'settings',
    settings.map((x) => ({ ...x, value: JSON.parse(x.value) as unknown })),
  );
  await write(
    'defaults',
    defaults.map(({ key, value, low, high, note, createdAt }) => ({
      key,
      createdAt,
      value:
        value === null || low === null || high === null
          ? null
          : { value, low, high, note, since: new Date(createdAt).toISOString() },
    })),
  );
}

async function checkNothingLost(query: QueryInterface, transaction: Transaction): Promise<void> {
  const [counted] = await query.sequelize.query<{ before: number; after: number }>(
    `SELECT (SELECT count(*) FROM revisions) + (SELECT count(*) FROM open_up_logs) + (SELECT count(*) FROM units)
        + (SELECT count(*) FROM attachments) + (SELECT count(*) FROM lab_settings) + (SELECT count(*) FROM lab_defaults) AS before,
      (SELECT count(*) FROM document_revisions) AS after`,
    { type: QueryTypes.SELECT, transaction },
  );
  if (counted!.before !== counted!.after) {
    throw new Error(`${counted!.before} revisions became ${counted!.after}`);
  }
}

async function wattsByCap(query: QueryInterface, transaction: Transaction): Promise<void> {
  // computed anew for the laboratory's caps, by what they are computed by
  // the library is listed from memory: indexes for its orders only made writes slower
  const indexes = await query.sequelize.query<{ name: string }>(
    `SELECT name FROM sqlite_master WHERE type = 'index' AND tbl_name = 'machines'
      AND (name LIKE 'machines_by_%' OR name LIKE 'machines_put_aside_at_%')`,
    { type: QueryTypes.SELECT, transaction },
  );
  for (const { name } of indexes) await run(query, transaction, `DROP INDEX "${name}"`);
  for (const column of WATTS) {
    await run(query, transaction, `ALTER TABLE machines DROP COLUMN ${column}`);
  }
  await query.addColumn(
    'machines',
    'watts',
    { type: DataTypes.TEXT, allowNull: false, defaultValue: '{}' },
    { transaction },
  );
  await query.addColumn(
    'machines',
    'wattsBy',
    { type: DataTypes.STRING(60), allowNull: false, defaultValue: '' },
    { transaction },
  );
}
