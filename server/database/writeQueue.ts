import { AsyncResource } from 'node:async_hooks';
import { Transaction, type Sequelize } from 'sequelize';
import { forgetPrepared, runPrepared } from './prepared';
import { setOpen, writesOnlyWithin } from './writesOnlyWithin';

/** What a write changed of a machine as it is listed: its figures alone, its tags, or the words it is found by. */
export type Touch = (typeof TOUCHES)[number];
const TOUCHES = ['figures', 'tags', 'words'] as const;

/** Machines that a write changed as they are listed, by id. */
export type Touched = ReadonlyMap<string, Touch>;

/** Writes that share a transaction at most. */
const MAX_TOGETHER = 32;

export interface WriteOptions {
  /**
   * May share a transaction with others of its kind and run beside them. Only for work that can be done over, and that fails where
   * another one has changed, or is changing, what it read: writes of documents, each of whose revisions can be written only once.
   */
  together?: boolean;
}

interface Waiting {
  work: (transaction: Transaction) => Promise<unknown>;
  together: boolean;
  resolve: (value: unknown) => void;
  reject: (cause: unknown) => void;
}

/** Waits for all, also where one fails: nothing of a write may still be under way when it is taken back. */
export async function allDone<T>(steps: readonly Promise<T>[]): Promise<T[]> {
  const ended = await Promise.allSettled(steps);
  return ended.map((one) => {
    if (one.status === 'rejected') throw one.reason;
    return one.value;
  });
}

export type WriteQueue = ReturnType<typeof createWriteQueue>;

/**
 * The one way to write. It keeps a connection of its own, so that readers never see what is not yet kept. SQLite has one writer and
 * every commit waits for the disk, so that writes of documents which wait at the same time are kept by one transaction; where one of
 * them fails, all are taken back and done one by one. Whoever wrote goes on only when it is on disk and listed.
 *
 * @param sequelize an open library
 */
export function createWriteQueue(sequelize: Sequelize) {
  const waiting: Waiting[] = [];
  const listeners: ((touched: Touched) => Promise<void>)[] = [];
  const touchedBy = new WeakMap<Transaction, Map<string, Touch>>();
  let queued = 0;
  let running: Promise<void> | null = null;
  let opened: Promise<Transaction> | null = null;

  /**
   * What work is given as its transaction: one connection from the first write to the last. Sequelize's own way opens one for each,
   * and leaves it open and the library locked where a commit fails, as on a full disk.
   */
  const open = async (): Promise<Transaction> => {
    const transaction = await sequelize.transaction({ type: Transaction.TYPES.DEFERRED });
    await sequelize.query('COMMIT', { transaction });
    await sequelize.query('PRAGMA synchronous = FULL', { transaction });
    await writesOnlyWithin(sequelize, transaction);
    return transaction;
  };
  const connection = (): Promise<Transaction> => {
    opened ??= open().catch((cause: unknown) => {
      opened = null;
      throw cause;
    });
    return opened;
  };
  const inTransaction = async <T>(work: (transaction: Transaction) => Promise<T>): Promise<T> => {
    const transaction = await connection();
    await runPrepared(transaction, 'BEGIN IMMEDIATE');
    try {
      await setOpen(transaction, true);
      const value = await work(transaction);
      await setOpen(transaction, false);
      await runPrepared(transaction, 'COMMIT');
      return value;
    } catch (cause) {
      // where SQLite has taken everything back by itself there is nothing left to take back
      await sequelize.query('ROLLBACK', { transaction }).catch(() => undefined);
      throw cause;
    }
  };

  const keep = async (some: readonly Waiting[]) => {
    const touched = new Map<string, Touch>();
    const values = await inTransaction((transaction) => {
      touchedBy.set(transaction, touched);
      return allDone(some.map(({ work }) => work(transaction)));
    });
    return { values, touched };
  };

  const tell = async (touched: Touched) => {
    if (touched.size) for (const listener of listeners) await listener(touched);
  };

  const keepOne = async (one: Waiting): Promise<void> => {
    try {
      const { values, touched } = await keep([one]);
      await tell(touched);
      one.resolve(values[0]);
    } catch (cause) {
      one.reject(cause);
    } finally {
      queued--;
    }
  };

  const keepTogether = async (some: readonly Waiting[]): Promise<void> => {
    let kept: Awaited<ReturnType<typeof keep>>;
    try {
      kept = await keep(some);
    } catch {
      // whichever it was: each is told of its own
      for (const one of some) await keepOne(one);
      return;
    }
    try {
      await tell(kept.touched);
      some.forEach((one, k) => one.resolve(kept.values[k]));
    } catch (cause) {
      for (const one of some) one.reject(cause);
    } finally {
      queued -= some.length;
    }
  };

  const run = async (): Promise<void> => {
    while (waiting.length) {
      const alone = waiting.findIndex((one) => !one.together);
      const most = alone < 0 ? waiting.length : alone;
      const some = waiting.splice(0, Math.min(Math.max(most, 1), MAX_TOGETHER));
      await (some.length > 1 ? keepTogether(some) : keepOne(some[0]!));
    }
    running = null;
  };

  return {
    /** Runs a write; it resolves to what the work gives back, once that is kept. */
    write<T>(
      work: (transaction: Transaction) => Promise<T>,
      { together = false }: WriteOptions = {},
    ): Promise<T> {
      queued++;
      const kept = new Promise<T>((resolve, reject) => {
        // whoever asked is still known when its turn comes
        waiting.push({
          work: AsyncResource.bind(work),
          together,
          resolve: resolve as (value: unknown) => void,
          reject,
        });
      });
      running ??= run();
      return kept;
    },

    /** Writes that wait or are under way. */
    queued: () => queued,

    /** Called by a write that changes how a machine is listed. */
    touch(transaction: Transaction, machineId: string, what: Touch): void {
      const touched = touchedBy.get(transaction);
      const before = touched?.get(machineId);
      const more = before === undefined || TOUCHES.indexOf(what) > TOUCHES.indexOf(before);
      if (more) touched?.set(machineId, what);
    },

    /** Told after each transaction that changed what is listed, before whoever wrote goes on. */
    onTouched: (listener: (touched: Touched) => Promise<void>) => void listeners.push(listener),

    /** Waits for all that is to be written, and lets go of the connection; what comes later is refused. */
    async close(): Promise<void> {
      while (running) await running;
      if (!opened) return;
      const transaction = await opened;
      await forgetPrepared(transaction);
      await sequelize.query('BEGIN', { transaction });
      await transaction.commit();
    },
  };
}
