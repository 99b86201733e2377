import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { QueryTypes, Sequelize, Transaction, type QueryInterface } from 'sequelize';
import { SequelizeStorage, Umzug } from 'umzug';
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
import { defineModels, type Models } from './models';
import { createWriteQueue, type WriteQueue } from './writeQueue';

/** Migrations, oldest first. They only go forward; an entry is never changed once it has shipped. */
const MIGRATIONS: { name: string; up: (query: QueryInterface) => Promise<void> }[] = [
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
];

/** An open library; its writes go through one queue. */
export interface Database extends WriteQueue {
  /** The data directory: photos and papers lie beside the library. */
  folder: string;
  sequelize: Sequelize;
  models: Models;
  close(): Promise<void>;
}

/** A library that this program cannot open without harm, in words. */
export class UnusableLibrary extends Error {}

/**
 * Opens the library in a folder, creating and migrating it where needed.
 *
 * @param folder data directory
 * @param upTo last migration to run, all by default: for tests that fill an older database
 * @throws UnusableLibrary where a newer program wrote it
 * @throws where the folder cannot be written or a migration fails; nothing is half migrated
 */
export async function openDatabase(folder: string, upTo?: string): Promise<Database> {
  mkdirSync(folder, { recursive: true });
  const sequelize = new Sequelize({
    dialect: 'sqlite',
    storage: join(folder, 'zugluft.sqlite'),
    logging: false,
    transactionType: Transaction.TYPES.IMMEDIATE,
  });
  try {
    await sequelize.query('PRAGMA journal_mode = WAL');
    await sequelize.query('PRAGMA synchronous = FULL');
    await refuseNewer(sequelize);
    await migrate(sequelize, upTo);
  } catch (cause) {
    await sequelize.close();
    throw cause;
  }
  const queue = createWriteQueue(sequelize);
  return {
    folder,
    sequelize,
    models: defineModels(sequelize),
    ...queue,
    async close() {
      await queue.close();
      await sequelize.close();
    },
  };
}

/** A newer program may have changed what this one would misread and write over. */
async function refuseNewer(sequelize: Sequelize): Promise<void> {
  const tables = await sequelize.query<{ name: string }>(
    `SELECT name FROM sqlite_master WHERE type = 'table' AND name = 'migrations'`,
    { type: QueryTypes.SELECT },
  );
  if (!tables.length) return;
  const done = await sequelize.query<{ name: string }>('SELECT name FROM migrations', {
    type: QueryTypes.SELECT,
  });
  const known = new Set(MIGRATIONS.map((m) => m.name));
  const newer = done.map((m) => m.name).filter((name) => !known.has(name));
  if (!newer.length) return;
  throw new UnusableLibrary(
    `This library was written by a newer version of the program (it knows ${newer.join(', ')}, this one does not). ` +
      'Nothing was changed. Start the newer version, or use another data folder.',
  );
}

async function migrate(sequelize: Sequelize, upTo: string | undefined): Promise<void> {
  const umzug = new Umzug({
    migrations: MIGRATIONS.map(({ name, up }) => ({
      name,
      up: ({ context }: { context: QueryInterface }) => up(context),
    })),
    context: sequelize.getQueryInterface(),
    storage: new SequelizeStorage({ sequelize, modelName: 'migrations' }),
    logger: undefined,
  });
  await umzug.up(upTo === undefined ? undefined : { to: upTo });
}
