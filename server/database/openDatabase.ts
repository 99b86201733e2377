import { join } from 'node:path';
import { finishSwap } from '../backup/swapIn';
import { QueryTypes, Sequelize, Transaction } from 'sequelize';
import { examineFolder, LIBRARY_FILE } from './examineFolder';
import { migrate, refuseNewer } from './migrate';
import { defineModels, type Models } from './models';
import { openReader, type Reader } from './reader';
import { damagedWords, inWords, UnusableLibrary } from './unusable';
import { createWriteQueue, type WriteQueue } from './writeQueue';

/** An open library; its writes go through one queue. */
export interface Database extends WriteQueue {
  /** The data directory: photos and papers lie beside the library. */
  folder: string;
  sequelize: Sequelize;
  models: Models;
  /** Reads by a statement of its own, on a connection that only reads. */
  read: Reader['read'];
  close(): Promise<void>;
}

/**
 * Opens the library in a folder, creating and migrating it where needed.
 *
 * @param folder data directory
 * @param upTo last migration to run, all by default: for tests that fill an older database
 * @param onStatement told of each statement before it is run: for tests that kill at each
 * @throws UnusableLibrary where it is damaged, a newer program wrote it, the folder cannot be written or the disk is full: in words,
 * and nothing is overwritten or half migrated
 */
export async function openDatabase(
  folder: string,
  upTo?: string,
  onStatement?: (sql: string) => void,
): Promise<Database> {
  // a restore that was cut off is done first
  await finishSwap(folder);
  await examineFolder(folder);
  const file = join(folder, LIBRARY_FILE);
  const sequelize = new Sequelize({
    dialect: 'sqlite',
    storage: file,
    logging: onStatement ?? false,
    transactionType: Transaction.TYPES.IMMEDIATE,
  });
  let reader: Reader;
  try {
    await refuseDamaged(sequelize);
    await refuseNewer(sequelize);
    await sequelize.query('PRAGMA journal_mode = WAL');
    await sequelize.query('PRAGMA synchronous = FULL');
    await migrate(sequelize, folder, upTo);
    reader = await openReader(file);
  } catch (cause) {
    await sequelize.close();
    throw inWords(cause, folder);
  }
  const queue = createWriteQueue(sequelize);
  return {
    folder,
    sequelize,
    models: defineModels(sequelize),
    ...queue,
    read: reader.read,
    async close() {
      await queue.close();
      await reader.close();
      await sequelize.close();
    },
  };
}

/** Reads through the file as it is, before anything is written to it. */
async function refuseDamaged(sequelize: Sequelize): Promise<void> {
  const [first] = await sequelize.query<{ quick_check: string }>('PRAGMA quick_check(1)', {
    type: QueryTypes.SELECT,
  });
  if (first?.quick_check !== 'ok') {
    throw new UnusableLibrary(damagedWords(first?.quick_check ?? 'nothing can be read'));
  }
}
