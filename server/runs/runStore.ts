import { randomUUID } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { mkdir, rm } from 'node:fs/promises';
import { join } from 'node:path';
import type { Writable } from 'node:stream';
import { withCalibration } from '@zugluft/core/calibration/caseKey';
import type { Page } from '@zugluft/core/library/answers';
import {
  MAX_RUNS,
  type KeptRun,
  type Series,
  type TakenLog,
} from '@zugluft/core/library/runAnswers';
import type { LogMap } from '@zugluft/core/logs/logLayout';
import type { RunDocument } from '@zugluft/core/runs/runDocument';
import type { Cap } from '@zugluft/core/envelope/fanStates';
import type { RunRow } from '../database/models';
import type { Database } from '../database/openDatabase';
import type { DocumentStore } from '../documents/documentStore';
import { found } from '../machines/machineRows';
import { Problem } from '../security/problem';
import type { CalibrationInUse } from './calibrationInUse';
import { machineCase } from './machineCase';
import { addRun, zipTo } from './runFiles';
import { apartProblem, type DoRunJob, type RunLogs } from './runLogs';

const PAGE_SIZE = 50;
/** Pixels of a chart that are drawn at most. */
export const MAX_PIXELS = 4000;

type Prediction = NonNullable<KeptRun['prediction']>;
export type RunStore = ReturnType<typeof createRunStore>;

export function toRun(row: RunRow, run: RunDocument): KeptRun {
  return {
    id: row.id,
    machineId: row.machineId,
    revision: row.revision,
    run,
    prediction: row.prediction === null ? null : (JSON.parse(row.prediction) as Prediction),
    putAsideAt: row.putAsideAt?.toISOString() ?? null,
    createdAt: row.createdAt.toISOString(),
  };
}

/**
 * Runs of machines: what was done as documents, logs beside the library.
 *
 * @param db an open library
 * @param documents the store
 * @param logs of all runs
 * @param work analyses logs
 * @param calibrationInUse what a machine's estimate stands on
 */
export function createRunStore(
  db: Database,
  documents: DocumentStore,
  logs: RunLogs,
  work: DoRunJob,
  calibrationInUse: (machineId: string) => Promise<CalibrationInUse | null>,
) {
  const { Run, Machine } = db.models;

  const keptOf = async (row: RunRow): Promise<KeptRun> => {
    const kept = found(await documents.find('run', row.id), 'run');
    return toRun(row, kept.value);
  };
  const rowOf = async (machineId: string, id: string) =>
    found(await Run.findOne({ where: { id, machineId } }), 'run');
  const requestOf = async (machineId: string, run: RunDocument) =>
    (await machineCase(documents, machineId, run.setting))?.request ?? null;

  return {
    async list(machineId: string, page: number, aside: boolean): Promise<Page<KeptRun>> {
      found(await Machine.findByPk(machineId));
      const { rows, count } = await Run.findAndCountAll({
        where: { machineId, ...(aside ? {} : { putAsideAt: null }) },
        order: [
          ['createdAt', 'ASC'],
          ['id', 'ASC'],
        ],
        limit: PAGE_SIZE,
        offset: (page - 1) * PAGE_SIZE,
      });
      const items: KeptRun[] = [];
      for (const row of rows) items.push(await keptOf(row));
      return { items, total: count, page, pageSize: PAGE_SIZE };
    },

    /** One run of a machine. */
    async read(machineId: string, id: string): Promise<KeptRun> {
      return keptOf(await rowOf(machineId, id));
    },

    /** Some runs of the whole library that are not put aside, the newest first, and how many there are. */
    async newest(page: number, pageSize: number): Promise<{ items: KeptRun[]; total: number }> {
      const { rows, count } = await Run.findAndCountAll({
        where: { putAsideAt: null },
        order: [
          ['createdAt', 'DESC'],
          ['id', 'ASC'],
        ],
        limit: pageSize,
        offset: (page - 1) * pageSize,
      });
      const items: KeptRun[] = [];
      for (const row of rows) items.push(await keptOf(row));
      return { items, total: count };
    },

    /** Every run of a machine that is not put aside. */
    async all(machineId: string): Promise<KeptRun[]> {
      const rows = await Run.findAll({
        where: { machineId, putAsideAt: null },
        order: [
          ['createdAt', 'ASC'],
          ['id', 'ASC'],
        ],
        limit: MAX_RUNS,
      });
      const items: KeptRun[] = [];
      for (const row of rows) items.push(await keptOf(row));
      return items;
    },

    /**
     * Makes a run.
     *
     * @param input what was done; its id is the run's own
     * @returns the run, the one that is there where the same was sent twice
     */
    async make(machineId: string, input: unknown): Promise<{ kept: KeptRun; made: boolean }> {
      const run = documents.accept('run', input);
      const id = run.id;
      refuseTyped(run);
      if (!/^[0-9a-f-]{36}$/.test(id)) throw new Problem(422, 'No id', 'a run’s id is a UUID');
      const known = await Run.findByPk(id);
      if (known) {
        if (known.machineId !== machineId)
          throw new Problem(409, 'Taken', 'this id is another machine’s run');
        return { kept: await keptOf(known), made: false };
      }
      const row = await db.write(async (transaction) => {
        found(await Machine.findByPk(machineId, { transaction }));
        const there = await Run.count({ where: { machineId, putAsideAt: null }, transaction });
        if (there >= MAX_RUNS)
          throw new Problem(409, 'Full', `a machine holds at most ${MAX_RUNS} runs`);
        const made = await Run.create(
          { id, machineId, revision: 1, prediction: null, putAsideAt: null },
          { transaction },
        );
        await documents.create('run', id, run, transaction);
        return made;
      });
      return { kept: toRun(row, run), made: true };
    },

    /**
     * Takes a log's bytes and says what was understood of it; the run's document is left to its writer.
     *
     * @throws Problem as `RunLogs.take`
     */
    async takeLog(
      machineId: string,
      id: string,
      pieces: AsyncIterable<Uint8Array>,
      about: { file: string; map: LogMap | null },
    ): Promise<TakenLog> {
      await rowOf(machineId, id);
      return logs.take(pieces, about);
    },

    /** Reads a log that is here by what a person says of its layout, and remembers that. */
    async retakeLog(
      machineId: string,
      id: string,
      { sha256, file, layout }: { sha256: string; file: string; layout: LogMap },
    ): Promise<TakenLog> {
      await rowOf(machineId, id);
      return logs.retake(sha256, file, layout);
    },

    /** Takes a file of the inbox; the run's document is left to its writer. */
    async takeFromInbox(machineId: string, id: string, name: string): Promise<TakenLog> {
      await rowOf(machineId, id);
      return logs.takeFromInbox(name);
    },

    /** What the logs of a run say, held against the machine's record as it stands. */
    async analysis(machineId: string, id: string): Promise<object> {
      const { run, prediction } = await keptOf(await rowOf(machineId, id));
      const answer = await work({
        do: 'analyse',
        growing: (run.follows?.length ?? 0) > 0,
        isStress: (run.load?.kind ?? 'stress') === 'stress',
        prediction,
        logs: await logs.of(run),
        backgroundDbA: run.backgroundDbA ?? null,
        window: chosenWindow(run),
        request: await requestOf(machineId, run),
      });
      if ('apart' in answer) throw apartProblem(answer.apart, run);
      if (!('analysis' in answer)) throw new Error('no analysis');
      const { analysis, foretold } = answer;
      const log = {
        ...analysis.log,
        problems: [...analysis.log.problems, ...logs.faultsOf(run)],
      };
      return { ...analysis, log, foretold };
    },

    /**
     * Foretells a run before its first log, and freezes that.
     *
     * @param cap what the fans will be held at
     * @throws Problem 409 where a log is there, 422 where the record does not say enough
     */
    async foretell(machineId: string, id: string, cap: Cap): Promise<KeptRun> {
      const row = await rowOf(machineId, id);
      const { run } = await keptOf(row);
      refuseKnown(run);
      const on = run.load?.on ?? 'both';
      const now = await machineCase(documents, machineId, run.setting);
      if (!now) throw new Problem(422, 'Not complete', 'the record is not complete');
      const inUse = await calibrationInUse(machineId);
      const { request, lapsed } = withCalibration(now.request, inUse);
      const answer = await work({ do: 'foretell', request, on, cap });
      if (!('prediction' in answer)) throw new Error('nothing foretold');
      if (!answer.prediction) {
        throw new Problem(422, 'No such die', 'the machine has no die that this run loads');
      }
      const prediction: Prediction = {
        ...answer.prediction,
        madeAt: new Date().toISOString(),
        recordRevision: now.revision,
        calibration: lapsed ? null : (inUse?.version ?? null),
      };
      await db.write(async (transaction) => {
        // a log may have come while it was computed
        const kept = found(await documents.find('run', id, transaction), 'run');
        refuseKnown(kept.value);
        await row.update({ prediction: JSON.stringify(prediction) }, { transaction });
      });
      return keptOf(await rowOf(machineId, id));
    },

    /** Least and greatest by pixel, for a chart. */
    async series(
      machineId: string,
      id: string,
      shown: { fromS: number | null; toS: number | null; pixels: number },
    ): Promise<Series> {
      const { run } = await keptOf(await rowOf(machineId, id));
      const request = await requestOf(machineId, run);
      const answer = await work({ do: 'series', logs: await logs.of(run), request, ...shown });
      if ('apart' in answer) throw apartProblem(answer.apart, run);
      if (!('series' in answer)) throw new Error('no series');
      return answer.series;
    },

    /** Writes a run as a zip: the run, its raw logs, its samples as one tidy table. */
    async writeZip(machineId: string, id: string, out: Writable): Promise<void> {
      const kept = await keptOf(await rowOf(machineId, id));
      const zip = zipTo(out);
      await addRun(zip, kept, logs, '');
      const own = await logs.of(kept.run).catch((cause: unknown) => {
        if (cause instanceof Problem) return null;
        throw cause;
      });
      if (own) {
        const file = join(db.folder, 'incoming', `samples-${randomUUID()}.csv`);
        await mkdir(join(db.folder, 'incoming'), { recursive: true });
        try {
          const request = await requestOf(machineId, kept.run);
          const answer = await work({ do: 'samples', logs: own, request, file });
          if ('rows' in answer) await zip.addPieces('samples.csv', createReadStream(file));
        } finally {
          await rm(file, { force: true });
        }
      }
      await zip.end();
    },

    async close() {
      if ('end' in work) await work.end();
    },
  };
}

/** @throws Problem 422 where somebody wrote what only the program may foretell */
export function refuseTyped(run: RunDocument): void {
  if (!run.prediction) return;
  throw new Problem(422, 'Not typed', 'what is foretold of a run the program writes, before it');
}

/** What a log has shown cannot be foretold. */
function refuseKnown(run: RunDocument): void {
  if (run.logs?.length || run.follows?.length) {
    throw new Problem(
      409,
      'Too late',
      'a log is there already: what it shows cannot be foretold any more',
    );
  }
}

/** The window that a person chose. */
export const chosenWindow = (run: RunDocument) =>
  run.steady?.find((w) => w.chosenBy === 'person') ?? null;
