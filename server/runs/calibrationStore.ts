import { randomUUID } from 'node:crypto';
import { capsOf } from '@zugluft/core/case/laboratory';
import type {
  CalibrationFigures,
  KeptCalibration,
} from '@zugluft/core/calibration/calibrationAnswer';
import { caseKeyOf } from '@zugluft/core/calibration/caseKey';
import type { SteadyRun } from '@zugluft/core/calibration/steadyRun';
import type { Page } from '@zugluft/core/library/answers';
import type { KeptRun } from '@zugluft/core/library/runAnswers';
import type { CalibrationRow } from '../database/models';
import type { Database } from '../database/openDatabase';
import type { DocumentStore } from '../documents/documentStore';
import { found } from '../machines/machineRows';
import { Problem } from '../security/problem';
import { readCalibrationInUse, type KeptFigures } from './calibrationInUse';
import { machineCase } from './machineCase';
import type { DoRunJob, RunLogs } from './runLogs';
import { chosenWindow, type RunStore } from './runStore';

const PAGE_SIZE = 20;
/** Versions of a machine that are kept; the oldest that is not in use goes first. */
const MAX_VERSIONS = 200;

export type CalibrationStore = ReturnType<typeof createCalibrationStore>;
type Used = KeptCalibration['runs'];

/**
 * What runs taught of each machine, version after version.
 *
 * @param db an open library
 * @param documents the store
 * @param runs of all machines
 * @param logs of all runs
 * @param work what reads logs, and what fits: a fit takes long and must not hold up a log that is looked at
 */
export function createCalibrationStore(
  db: Database,
  documents: DocumentStore,
  runs: RunStore,
  logs: RunLogs,
  work: { read: DoRunJob; fit: DoRunJob },
) {
  const { Calibration, Machine } = db.models;
  const readInUse = readCalibrationInUse(db);
  let tail: Promise<unknown> = Promise.resolve();

  const toKept = (row: CalibrationRow): KeptCalibration => ({
    id: row.id,
    machineId: row.machineId,
    version: row.version,
    recordRevision: row.recordRevision,
    inUse: Boolean(row.inUse),
    createdAt: row.createdAt.toISOString(),
    runs: JSON.parse(row.runs) as Used,
    answer: JSON.parse(row.answer) as KeptCalibration['answer'],
  });

  /** Steady states of a run, or why there are none. */
  const statesOf = async (machineId: string, { run }: KeptRun) => {
    const now = await machineCase(documents, machineId, run.setting);
    if (!now) return { steady: [], lacks: 'the record is not complete' };
    try {
      const answer = await work.read({
        do: 'steady',
        run,
        logs: await logs.of(run),
        backgroundDbA: run.backgroundDbA ?? null,
        window: chosenWindow(run),
        request: now.request,
      });
      if ('apart' in answer) return { steady: [], lacks: answer.apart.message };
      if ('steady' in answer) return answer;
      throw new Error('no steady states');
    } catch (cause) {
      if (cause instanceof Problem) return { steady: [], lacks: cause.message };
      throw cause;
    }
  };

  /** One fit after the other; one that nobody waits for any more is ended. */
  const inTurn = async <T>(gone: AbortSignal, task: () => Promise<T>): Promise<T> => {
    const own = tail.then(async () => {
      if (gone.aborted) throw new Problem(499, 'Cancelled', 'the fit was cancelled');
      const end = () => void ('end' in work.fit && work.fit.end());
      gone.addEventListener('abort', end, { once: true });
      try {
        return await task();
      } catch (cause) {
        if (gone.aborted) throw new Problem(499, 'Cancelled', 'the fit was cancelled');
        throw cause;
      } finally {
        gone.removeEventListener('abort', end);
      }
    });
    tail = own.catch(() => undefined);
    return own;
  };

  return {
    statesOf,

    async list(machineId: string, page: number): Promise<Page<KeptCalibration>> {
      found(await Machine.findByPk(machineId));
      const { rows, count } = await Calibration.findAndCountAll({
        where: { machineId },
        attributes: { exclude: ['rows', 'figures'] },
        order: [['version', 'DESC']],
        limit: PAGE_SIZE,
        offset: (page - 1) * PAGE_SIZE,
      });
      return { items: rows.map(toKept), total: count, page, pageSize: PAGE_SIZE };
    },

    /** The steady states that a fit of the machine sees, those held out, and what became of each run. */
    async seenByFit(
      machineId: string,
    ): Promise<{ used: Used; fit: SteadyRun[]; heldOut: SteadyRun[] }> {
      const used: Used = [];
      const fit: SteadyRun[] = [];
      const heldOut: SteadyRun[] = [];
      for (const kept of await runs.all(machineId)) {
        const use = kept.run.use ?? 'fit';
        const { steady, lacks } =
          use === 'leave-out' ? { steady: [], lacks: null } : await statesOf(machineId, kept);
        (use === 'fit' ? fit : heldOut).push(...steady);
        used.push({
          id: kept.id,
          name: kept.run.name ?? '',
          revision: kept.revision,
          use,
          states: steady.length,
          lacks,
        });
      }
      return { used, fit, heldOut };
    },

    /**
     * Fits the machine to its runs and keeps what was found as the next version.
     *
     * @param gone ends it
     * @throws Problem 422 where the record is not complete or no run can be used
     */
    async make(machineId: string, gone: AbortSignal): Promise<KeptCalibration> {
      found(await Machine.findByPk(machineId));
      const now = await machineCase(documents, machineId);
      if (!now) throw new Problem(422, 'Not complete', 'the record is not complete');
      const { used, fit, heldOut } = await this.seenByFit(machineId);
      if (fit.length === 0) {
        const why = used.find((u) => u.use === 'fit' && u.lacks)?.lacks;
        throw new Problem(
          422,
          'No run',
          why
            ? `no run can be used for the fit: ${why}`
            : 'a fit needs one run with a log that settled',
        );
      }
      const caps = capsOf(now.request.lab);
      const answer = await inTurn(gone, async () =>
        work.fit({ do: 'calibrate', request: now.request, fit, heldOut, caps }),
      );
      if (!('calibration' in answer)) throw new Error('no calibration');
      const { paths, values, rows, count } = answer.calibration;
      const row = await db.write(async (transaction) => {
        const newest = await Calibration.max<number | null, CalibrationRow>('version', {
          where: { machineId },
          transaction,
        });
        const version = (newest ?? 0) + 1;
        if (version > MAX_VERSIONS) {
          const [oldest] = await Calibration.findAll({
            where: { machineId, inUse: false },
            order: [['version', 'ASC']],
            attributes: ['id'],
            limit: 1,
            transaction,
          });
          await oldest?.destroy({ transaction });
        }
        return Calibration.create(
          {
            id: randomUUID(),
            machineId,
            version,
            recordRevision: now.revision,
            inUse: false,
            runs: JSON.stringify(used),
            answer: JSON.stringify(answer.answer),
            figures: JSON.stringify({
              paths,
              values,
              count,
              caseKey: caseKeyOf(now.request),
            } satisfies KeptFigures),
            rows: Buffer.from(rows.buffer, rows.byteOffset, rows.byteLength),
          },
          { transaction },
        );
      });
      return toKept(row);
    },

    /** The version that the machine's estimate stands on; null: none. */
    async inUse(machineId: string): Promise<CalibrationFigures | null> {
      found(await Machine.findByPk(machineId));
      const now = await readInUse(machineId);
      if (!now) return null;
      const { paths, values, rows, count } = now.calibration;
      return {
        version: now.version,
        recordRevision: now.recordRevision,
        createdAt: now.createdAt.toISOString(),
        runs: now.runs,
        paths: [...paths],
        values: [...values],
        rows: [...rows],
        count,
        caseKey: now.caseKey,
      };
    },

    /** Lets the estimate stand on a version, or on none. */
    async use(machineId: string, version: number | null): Promise<void> {
      await db.write(async (transaction) => {
        const machine = found(await Machine.findByPk(machineId, { transaction }));
        await Calibration.update(
          { inUse: false },
          { where: { machineId, inUse: true }, transaction },
        );
        if (version !== null) {
          const row = found(
            await Calibration.findOne({ where: { machineId, version }, transaction }),
            'calibration',
          );
          await row.update({ inUse: true }, { transaction });
        }
        // the library shows what the estimate stands on; a figure of a record was not touched by it
        await machine.update({ calibration: version }, { transaction, silent: true });
        db.touch(transaction, machineId, 'figures');
      });
    },

    async close() {
      if ('end' in work.fit) await work.fit.end();
    },
  };
}
