import type { KeptLog, LogSibling } from '@zugluft/core/library/answers';
import { EMPTY_LOG, openUpLog, readOpenUpLog } from '@zugluft/core/service/openUpLog';
import { col, fn, Op, where as sqlWhere, type Transaction } from 'sequelize';
import type { Database } from '../database/openDatabase';
import { found } from '../machines/machineRows';
import { parse } from '../security/parse';
import { Problem } from '../security/problem';

const MAX_SIBLINGS = 60;

export type OpenUpStore = ReturnType<typeof createOpenUpStore>;

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
    if (!row) return { revision: 0, log: EMPTY_LOG };
    const log = readOpenUpLog(JSON.parse(row.log));
    // never shown as empty, which would be written over
    if (!log) throw new Problem(422, 'Not readable', 'the log that is kept is not as it should be');
    return { revision: row.revision, log };
  };

  return {
    async read(machineId: string): Promise<KeptLog> {
      found(await Machine.findByPk(machineId));
      return newest(machineId);
    },

    /** Machines of the same maker and model whose opening was logged, this one left out. */
    async siblings(machineId: string): Promise<LogSibling[]> {
      const own = found(await Machine.findByPk(machineId));
      if (own.model === '') return [];
      const same = (column: string, value: string) =>
        sqlWhere(fn('lower', col(column)), value.toLowerCase());
      const rows = await Machine.findAll({
        where: {
          [Op.and]: [same('maker', own.maker), same('model', own.model)],
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
