import type { KeptLog, LogSibling } from '@zugluft/core/library/answers';
import { Op } from 'sequelize';
import type { Database } from '../database/openDatabase';
import type { DocumentStore, WriteAbout } from '../documents/documentStore';
import type { Shelf } from '../documents/shelf';
import { found } from '../machines/machineRows';

const MAX_SIBLINGS = 60;

export type OpenUpStore = ReturnType<typeof createOpenUpStore>;

/**
 * Logs of openings, one for each machine's file.
 *
 * @param db an open library
 * @param documents the store
 */
export function createOpenUpStore(db: Database, documents: DocumentStore) {
  const { Machine } = db.models;
  const newest = async (machineId: string): Promise<KeptLog> => {
    const { revision, value } = await documents.read('log', machineId);
    return { revision, log: value };
  };

  return {
    read: newest,

    /** Machines of the same maker and model whose opening was logged, this one left out. */
    async siblings(machineId: string): Promise<LogSibling[]> {
      const own = found(await Machine.findByPk(machineId));
      if (own.model === '') return [];
      const rows = await Machine.findAll({
        where: {
          makerKey: own.makerKey,
          modelKey: own.modelKey,
          id: { [Op.ne]: machineId },
          putAsideAt: null,
        },
        order: [['variant', 'ASC']],
        limit: MAX_SIBLINGS,
      });
      const out: LogSibling[] = [];
      for (const { id, variant, stateName } of rows) {
        const log = (await newest(id).catch(() => null))?.log;
        if (!log) continue;
        if (!log.steps.length && !log.screws.length) continue;
        out.push({
          id,
          variant,
          stateName,
          steps: log.steps.length,
          screws: log.screws.length,
        });
      }
      return out;
    },

    /** Replaces the log if it is still at the revision the writer saw. */
    async write(
      machineId: string,
      seen: number,
      input: unknown,
      about?: WriteAbout,
    ): Promise<KeptLog> {
      const log = documents.accept('log', input);
      const { revision, value } = await documents.write('log', machineId, seen, log, about);
      return { revision, log: value };
    },
  };
}

/** What logs of openings need of the server. */
export function logShelf(db: Database): Shelf<'log'> {
  return {
    kind: 'log',
    aside: false,
    async owner(id, transaction) {
      const within = transaction ? { transaction } : {};
      found(await db.models.Machine.findByPk(id, { attributes: ['id'], ...within }));
    },
    answer: async ({ revision, value }) => ({ revision, log: value }),
  };
}
