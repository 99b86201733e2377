import { createHash } from 'node:crypto';
import { access, mkdir } from 'node:fs/promises';
import { join } from 'node:path';
import { parseRecord } from '@zugluft/core/record/parseRecord';
import { LABORATORY } from '@zugluft/core/documents/kinds';
import type { CaseRequest } from '@zugluft/core/case/openCase';
import type { Page } from '@zugluft/core/library/answers';
import {
  MAX_LOG_MB,
  MAX_RUNS,
  type KeptRun,
  type Series,
  type TakenLog,
} from '@zugluft/core/library/runAnswers';
import type { LogMap } from '@zugluft/core/logs/logLayout';
import type { RunDocument } from '@zugluft/core/runs/runDocument';
import { createFileFolder, TooLarge } from '../attachments/fileFolder';
import type { RunRow } from '../database/models';
import type { Database } from '../database/openDatabase';
import type { Thread } from '../derived/inThread';
import type { DocumentStore } from '../documents/documentStore';
import { found } from '../machines/machineRows';
import { Problem } from '../security/problem';
import type { RunJob, RunJobAnswer, RunLog } from './runJobs';

const PAGE_SIZE = 50;
/** Pixels of a chart that are drawn at most. */
export const MAX_PIXELS = 4000;

export type RunStore = ReturnType<typeof createRunStore>;
/** Does the work of runs, in this thread or another. */
export type DoRunJob = ((job: RunJob) => Promise<RunJobAnswer>) | Thread<RunJob, RunJobAnswer>;

export function toRun(row: RunRow, run: RunDocument): KeptRun {
  return {
    id: row.id,
    machineId: row.machineId,
    revision: row.revision,
    run,
    putAsideAt: row.putAsideAt?.toISOString() ?? null,
    createdAt: row.createdAt.toISOString(),
  };
}

/**
 * Runs of machines: what was done as documents, logs as bytes under their hash, their samples as columnar files beside them.
 *
 * @param db an open library
 * @param documents the store
 * @param work reads and analyses logs
 */
export function createRunStore(db: Database, documents: DocumentStore, work: DoRunJob) {
  const { Run, Machine } = db.models;
  const folder = createFileFolder(db.folder);
  const samples = join(db.folder, 'samples');

  const keptOf = async (row: RunRow): Promise<KeptRun> => {
    const kept = found(await documents.find('run', row.id), 'run');
    return toRun(row, kept.value);
  };
  const rowOf = async (machineId: string, id: string) =>
    found(await Run.findOne({ where: { id, machineId } }), 'run');

  /** A log's samples depend on what a person said of its columns too. */
  const samplesOf = (sha256: string, map: LogMap) => {
    const told = createHash('sha256').update(JSON.stringify(map)).digest('hex').slice(0, 12);
    return join(samples, `${sha256}-${told}.arrow`);
  };
  const read = async (sha256: string, map: LogMap): Promise<RunJobAnswer> => {
    await mkdir(samples, { recursive: true });
    return work({ do: 'read', file: folder.pathOf(sha256), samples: samplesOf(sha256, map), map });
  };

  /** Logs with their samples at hand: those that are lost are read again. */
  const logsOf = async (run: RunDocument): Promise<RunLog[]> => {
    const out: RunLog[] = [];
    for (const log of run.logs ?? []) {
      if (log.kind !== 'csv' || !log.sha256) continue;
      const map = (log.layout ?? {}) as LogMap;
      const path = samplesOf(log.sha256, map);
      const there = await access(path).then(
        () => true,
        () => false,
      );
      if (!there) taken(await read(log.sha256, map));
      out.push({ samples: path, offsetS: log.offsetS ?? null });
    }
    if (out.length === 0) throw new Problem(404, 'No log', 'this run holds no log yet');
    return out;
  };

  /** The machine's record as it stands, with what the laboratory says; null while it is not complete. */
  const requestOf = async (machineId: string, run: RunDocument): Promise<CaseRequest | null> => {
    const kept = await documents.find('record', machineId);
    const { record, complete } = parseRecord(kept?.value);
    if (!record || !complete) return null;
    const defaults = await documents.find('defaults', LABORATORY);
    const setting = record.settings?.some((s) => s.id === run.setting) ? run.setting : undefined;
    return { record, setting, lab: { defaults: defaults?.value ?? {} } };
  };

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

    /**
     * Makes a run.
     *
     * @param input what was done; its id is the run's own
     * @returns the run, the one that is there where the same was sent twice
     */
    async make(machineId: string, input: unknown): Promise<{ kept: KeptRun; made: boolean }> {
      const run = documents.accept('run', input);
      const id = run.id;
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
          { id, machineId, revision: 1, putAsideAt: null },
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
     * @param pieces bytes in order
     * @throws Problem 413 where it is too large, 422 with row and column where it cannot be read
     */
    async takeLog(
      machineId: string,
      id: string,
      pieces: AsyncIterable<Uint8Array>,
      about: { file: string; map: LogMap },
    ): Promise<TakenLog> {
      await rowOf(machineId, id);
      const kept = await folder.keepPieces(pieces, MAX_LOG_MB * 1e6).catch((cause: unknown) => {
        if (cause instanceof TooLarge) {
          throw new Problem(
            413,
            'Too large',
            `${about.file} is larger than ${MAX_LOG_MB / 1000} GB`,
          );
        }
        throw cause;
      });
      return {
        ...kept,
        file: about.file,
        kind: 'csv',
        ...taken(await read(kept.sha256, about.map), about.file),
      };
    },

    /** What the logs of a run say, held against the machine's record as it stands. */
    async analysis(machineId: string, id: string): Promise<object> {
      const { run } = await keptOf(await rowOf(machineId, id));
      const window = run.steady?.find((w) => w.chosenBy === 'person') ?? null;
      const answer = await work({
        do: 'analyse',
        logs: await logsOf(run),
        backgroundDbA: run.backgroundDbA ?? null,
        window,
        request: await requestOf(machineId, run),
      });
      if ('apart' in answer) throw apartProblem(answer.apart, run);
      if (!('analysis' in answer)) throw new Error('no analysis');
      return answer.analysis;
    },

    /** Least and greatest by pixel, for a chart. */
    async series(
      machineId: string,
      id: string,
      shown: { fromS: number | null; toS: number | null; pixels: number },
    ): Promise<Series> {
      const { run } = await keptOf(await rowOf(machineId, id));
      const request = await requestOf(machineId, run);
      const answer = await work({ do: 'series', logs: await logsOf(run), request, ...shown });
      if ('apart' in answer) throw apartProblem(answer.apart, run);
      if (!('series' in answer)) throw new Error('no series');
      return answer.series;
    },

    async close() {
      if ('end' in work) await work.end();
    },
  };
}

function taken(answer: RunJobAnswer, file?: string) {
  if ('taken' in answer) return answer.taken;
  if ('fault' in answer) {
    const { row, column, message } = answer.fault;
    const where = `${file ?? 'log'}:row ${row}:column ${column}`;
    throw new Problem(422, 'Not readable', `${where}: ${message}`, {
      issues: [{ path: where, message }],
    });
  }
  throw new Error('no log');
}

function apartProblem({ at, message }: { at: number; message: string }, run: RunDocument): Problem {
  return new Problem(422, 'Apart', `${run.logs?.[at]?.file ?? 'log'}: ${message}`);
}
