import { existsSync } from 'node:fs';
import { rename, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { QueryTypes, Sequelize, type QueryInterface, type Transaction } from 'sequelize';
import * as machines from './migrations/0001-machines';
import * as labDefaults from './migrations/0002-lab-defaults';
import * as families from './migrations/0003-families';
import * as library from './migrations/0004-library';
import * as attachments from './migrations/0005-attachments';
import * as openUpLogs from './migrations/0006-open-up-logs';
import * as labSettings from './migrations/0007-lab-settings';
import * as documents from './migrations/0008-documents';
import * as nameKeys from './migrations/0009-name-keys';
import * as photosLookedAt from './migrations/0010-photos-looked-at';
import * as runs from './migrations/0011-runs';
import * as calibrations from './migrations/0012-calibrations';
import * as logLayouts from './migrations/0013-log-layouts';
import * as editions from './migrations/0014-editions';
import * as focalLengths from './migrations/0015-focal-lengths';
import * as writtenBy from './migrations/0016-written-by';
import { UnusableLibrary } from './unusable';

/** Migrations, oldest first. They only go forward; what an entry does is never changed once it has shipped. */
export const MIGRATIONS: readonly {
  name: string;
  up: (query: QueryInterface, transaction: Transaction) => Promise<void>;
}[] = [
  { name: '0001-machines', up: machines.up },
  { name: '0002-lab-defaults', up: labDefaults.up },
  { name: '0003-families', up: families.up },
  { name: '0004-library', up: library.up },
  { name: '0005-attachments', up: attachments.up },
  { name: '0006-open-up-logs', up: openUpLogs.up },
  { name: '0007-lab-settings', up: labSettings.up },
  { name: '0008-documents', up: documents.up },
  { name: '0009-name-keys', up: nameKeys.up },
  { name: '0010-photos-looked-at', up: photosLookedAt.up },
  { name: '0011-runs', up: runs.up },
  { name: '0012-calibrations', up: calibrations.up },
  { name: '0013-log-layouts', up: logLayouts.up },
  { name: '0014-editions', up: editions.up },
  { name: '0015-focal-lengths', up: focalLengths.up },
  { name: '0016-written-by', up: writtenBy.up },
];

const namesDone = async (sequelize: Sequelize): Promise<string[]> => {
  const tables = await sequelize.query<{ name: string }>(
    `SELECT name FROM sqlite_master WHERE type = 'table' AND name = 'migrations'`,
    { type: QueryTypes.SELECT },
  );
  if (!tables.length) return [];
  const rows = await sequelize.query<{ name: string }>('SELECT name FROM migrations', {
    type: QueryTypes.SELECT,
  });
  return rows.map((r) => r.name);
};

/**
 * A newer program may have changed what this one would misread and write over.
 *
 * @throws UnusableLibrary where one has written this library
 */
export async function refuseNewer(sequelize: Sequelize): Promise<void> {
  const known = new Set(MIGRATIONS.map((m) => m.name));
  const newer = (await namesDone(sequelize)).filter((name) => !known.has(name));
  if (!newer.length) return;
  throw new UnusableLibrary(
    `This library was written by a newer version of the program (it knows ${newer.join(', ')}, this one does not). ` +
      'Nothing was changed. Start the newer version, or use another data folder.',
  );
}

/**
 * Brings a library to what this program knows: the file is copied first, then each change is made together with its name, so that
 * a kill at any moment leaves it whole, before or after one of them.
 *
 * @param folder data directory, or null for a library in memory
 * @param upTo last change to make, all by default
 */
export async function migrate(
  sequelize: Sequelize,
  folder: string | null,
  upTo: string = MIGRATIONS.at(-1)!.name,
): Promise<void> {
  const done = new Set(await namesDone(sequelize));
  const last = MIGRATIONS.findIndex((m) => m.name === upTo);
  const open = MIGRATIONS.slice(0, last + 1).filter((m) => !done.has(m.name));
  if (!open.length) return;
  if (folder !== null && done.size) await copyBefore(sequelize, folder, open[0]!.name);
  const query = sequelize.getQueryInterface();
  for (const { name, up } of open) {
    const change = (work: (transaction: Transaction) => Promise<void>) =>
      sequelize.transaction(async (transaction) => {
        await sequelize.query(
          'CREATE TABLE IF NOT EXISTS `migrations` (`name` VARCHAR(255) NOT NULL UNIQUE PRIMARY KEY)',
          { transaction },
        );
        await work(transaction);
        await sequelize.query('INSERT INTO migrations (name) VALUES (:name)', {
          replacements: { name },
          transaction,
        });
      });
    try {
      await change((transaction) => up(query, transaction));
    } catch (cause) {
      // older versions kept the name after the change: a kill between the two left it nameless
      if (!(await isAlready(sequelize, name))) throw cause;
      await change(async () => undefined);
    }
  }
}

/** A copy of the library as it was, beside it; whole or not there. */
async function copyBefore(sequelize: Sequelize, folder: string, name: string): Promise<void> {
  const copy = join(folder, `zugluft.before-${name}.sqlite`);
  const draft = `${copy}.draft`;
  await rm(draft, { force: true });
  await sequelize.query('VACUUM INTO :draft', { replacements: { draft } });
  if (existsSync(draft)) await rename(draft, copy);
}

/** What a library is made of, without the names of its changes. */
const shapeOf = async (sequelize: Sequelize): Promise<string> => {
  const parts = await sequelize.query<{ sql: string }>(
    `SELECT sql FROM sqlite_master WHERE sql IS NOT NULL AND name <> 'migrations' ORDER BY type, name`,
    { type: QueryTypes.SELECT },
  );
  return parts.map((p) => p.sql).join('\n');
};

/** Whether a library is made as it would be after a change, by making one in memory. */
async function isAlready(sequelize: Sequelize, name: string): Promise<boolean> {
  const model = new Sequelize({ dialect: 'sqlite', storage: ':memory:', logging: false });
  try {
    await migrate(model, null, name);
    return (await shapeOf(model)) === (await shapeOf(sequelize));
  } finally {
    await model.close();
  }
}
