import type { KeptLog } from '@zugluft/core/library/answers';
import { openUpLog, type OpenUpLog } from '@zugluft/core/service/openUpLog';
import type { Transaction } from 'sequelize';
import type { Database } from '../database/openDatabase';
import { found } from '../machines/machineRows';
import { parse } from '../security/parse';
import { Problem } from '../security/problem';

export type OpenUpStore = ReturnType<typeof createOpenUpStore>;

/** A log in which nothing was written yet; it has revision 0. */
const EMPTY: OpenUpLog = openUpLog.parse({ format: 'zugluft-openup', formatVersion: 1 });

/**
 * Logs of openings, one for each machine's file. Every write is one transaction and leaves the version before it.
 *
 * @param db an open library
 */
export function createOpenUpStore(db: Database) {
  const { Machine, OpenUpLog: Rows } = db.models;
  const newest = async (machineId: string, transaction?: Transaction): Promise<KeptLog> => {
    const row = await Rows.findOne({
      where: { machineId },
      order: [['revision', 'DESC']],
      ...(transaction ? { transaction } : {}),
    });
    return row
      ? { revision: row.revision, log: JSON.parse(row.log) as OpenUpLog }
      : { revision: 0, log: EMPTY };
  };

  return {
    async read(machineId: string): Promise<KeptLog> {
      found(await Machine.findByPk(machineId));
      return newest(machineId);
    },

    /** Replaces the log if it is still at the revision the writer saw. */
    async write(machineId: string, seen: number, input: unknown): Promise<KeptLog> {
      const log = parse(openUpLog, input);
      return db.write(async (transaction) => {
        found(await Machine.findByPk(machineId, { transaction }));
        const current = await newest(machineId, transaction);
        if (current.revision !== seen) {
          throw new Problem(
            412,
            'Changed meanwhile',
            `this log is at revision ${current.revision}, not ${seen}`,
            { current },
          );
        }
        const revision = seen + 1;
        await Rows.create({ machineId, revision, log: JSON.stringify(log) }, { transaction });
        return { revision, log };
      });
    },
  };
}
