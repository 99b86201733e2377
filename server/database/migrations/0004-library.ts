import { DataTypes, QueryTypes, type QueryInterface, type Transaction } from 'sequelize';

const FIGURES = [
  'finAreaCm2',
  'pipeSectionMm2',
  'togetherAt28W',
  'togetherAt32W',
  'togetherAt40W',
  'togetherAt45W',
] as const;

/** Columns by which the library sorts; an index each, so that a page is read without looking at every row. */
const SORTED = [
  'variant',
  'fans',
  'pipes',
  'thicknessMm',
  'massKg',
  'togetherAt36W',
  'togetherFullW',
  ...FIGURES,
] as const;

/**
 * A library of thousands: records stand in the revisions alone, so that the rows that are listed are short; more figures to
 * filter by; tags; words to search for.
 */
export async function up(query: QueryInterface, transaction: Transaction): Promise<void> {
  const run = (sql: string) => query.sequelize.query(sql, { transaction });
  // a record that its newest revision does not hold becomes one more revision
  await run(`UPDATE machines SET revision = 1 + (SELECT max(revision) FROM revisions WHERE machineId = machines.id)
      WHERE EXISTS (SELECT 1 FROM revisions r WHERE r.machineId = machines.id AND r.revision >= machines.revision AND r.record <> machines.record)`);
  await run(`INSERT INTO revisions (machineId, revision, record, createdAt)
      SELECT id, revision, record, updatedAt FROM machines m
      WHERE NOT EXISTS (SELECT 1 FROM revisions r WHERE r.machineId = m.id AND r.revision = m.revision)`);
  const [lost] = await query.sequelize.query<{ n: number }>(
    `SELECT count(*) AS n FROM machines m WHERE NOT EXISTS
        (SELECT 1 FROM revisions r WHERE r.machineId = m.id AND r.revision = m.revision AND r.record = m.record)`,
    { type: QueryTypes.SELECT, transaction },
  );
  if (lost!.n > 0) throw new Error(`${lost!.n} records are in no revision`);
  await run('ALTER TABLE machines DROP COLUMN record');
  for (const column of FIGURES) {
    await query.addColumn(
      'machines',
      column,
      { type: DataTypes.FLOAT, allowNull: true },
      { transaction },
    );
  }
  await query.addColumn(
    'machines',
    'chamber',
    { type: DataTypes.BOOLEAN, allowNull: false, defaultValue: false },
    { transaction },
  );
  // 0: the columns are older than what the program would write now
  await query.addColumn(
    'machines',
    'describedBy',
    { type: DataTypes.INTEGER, allowNull: false, defaultValue: 0 },
    { transaction },
  );
  await query.addIndex('machines', ['describedBy'], { transaction });
  for (const column of SORTED) {
    await query.addIndex('machines', ['putAsideAt', column, 'maker', 'model', 'id'], {
      name: `machines_by_${column}`,
      transaction,
    });
  }
  await query.createTable(
    'machine_tags',
    {
      machineId: {
        type: DataTypes.STRING(36),
        allowNull: false,
        primaryKey: true,
        references: { model: 'machines', key: 'id' },
        onDelete: 'RESTRICT',
      },
      tag: { type: DataTypes.STRING(40), allowNull: false, primaryKey: true },
    },
    { transaction },
  );
  await query.addIndex('machine_tags', ['tag', 'machineId'], { transaction });
  // the search index knows rows by a number of their own, which no clean-up of the file changes
  await run(
    'CREATE TABLE search_keys (key INTEGER PRIMARY KEY, machineId VARCHAR(36) NOT NULL UNIQUE)',
  );
  await run(
    `CREATE VIRTUAL TABLE machine_words USING fts5(words, tokenize = "unicode61 remove_diacritics 2", prefix = '1 2 3')`,
  );
  await run('INSERT INTO search_keys (machineId) SELECT id FROM machines');
  await run(
    'INSERT INTO machine_words (rowid, words) SELECT k.key, m.searchText FROM search_keys k JOIN machines m ON m.id = k.machineId',
  );
  await run(`CREATE TRIGGER machines_words_added AFTER INSERT ON machines BEGIN
      INSERT INTO search_keys (machineId) VALUES (new.id);
      INSERT INTO machine_words (rowid, words) VALUES ((SELECT key FROM search_keys WHERE machineId = new.id), new.searchText);
    END`);
  await run(`CREATE TRIGGER machines_words_changed AFTER UPDATE OF searchText ON machines WHEN old.searchText <> new.searchText BEGIN
      UPDATE machine_words SET words = new.searchText WHERE rowid = (SELECT key FROM search_keys WHERE machineId = new.id);
    END`);
}
