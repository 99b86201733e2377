import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { Sequelize, Transaction, type QueryInterface } from 'sequelize';
import { SequelizeStorage, Umzug } from 'umzug';
import * as machines from './migrations/0001-machines';
import * as labDefaults from './migrations/0002-lab-defaults';
import * as families from './migrations/0003-families';
import * as library from './migrations/0004-library';
import * as attachments from './migrations/0005-attachments';
import * as openUpLogs from './migrations/0006-open-up-logs';
import * as labSettings from './migrations/0007-lab-settings';
import { defineModels, type Models } from './models';

/** Migrations, oldest first. They only go forward; an entry is never changed once it has shipped. */
const MIGRATIONS: { name: string; up: (query: QueryInterface) => Promise<void> }[] = [
  { name: '0001-machines', up: machines.up },
  { name: '0002-lab-defaults', up: labDefaults.up },
  { name: '0003-families', up: families.up },
  { name: '0004-library', up: library.up },
  { name: '0005-attachments', up: attachments.up },
  { name: '0006-open-up-logs', up: openUpLogs.up },
  { name: '0007-lab-settings', up: labSettings.up },
];

export interface Database {
  /** The data directory: photos and papers lie beside the library. */
  folder: string;
  sequelize: Sequelize;
  models: Models;
  /** Runs a write as one transaction; writes queue up, since SQLite has one writer. */
  write<T>(work: (transaction: Transaction) => Promise<T>): Promise<T>;
  /** How many writes there were: whoever remembers what he read can tell whether it still holds. */
  changes(): number;
  close(): Promise<void>;
}

/**
 * Opens the library in a folder, creating and migrating it where needed.
 *
 * @param folder data directory
 * @param upTo last migration to run, all by default: for tests that fill an older database
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
  await sequelize.query('PRAGMA journal_mode = WAL');
  await sequelize.query('PRAGMA synchronous = FULL');
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
  let tail: Promise<unknown> = Promise.resolve();
  let changes = 0;
  return {
    folder,
    sequelize,
    models: defineModels(sequelize),
    write(work) {
      const result = tail
        .then(() => sequelize.transaction(work))
        .finally(() => {
          changes++;
        });
      tail = result.catch(() => undefined);
      return result;
    },
    changes: () => changes,
    async close() {
      await tail;
      await sequelize.close();
    },
  };
}
