import { createHash } from 'node:crypto';
import { access, mkdir, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { MAX_LOG_MB, type TakenLog } from '@zugluft/core/library/runAnswers';
import type { LogFault } from '@zugluft/core/logs/readLog';
import type { LogMap } from '@zugluft/core/logs/logLayout';
import type { RunDocument } from '@zugluft/core/runs/runDocument';
import { createFileFolder, TooLarge } from '../attachments/fileFolder';
import type { Thread } from '../derived/inThread';
import { Problem } from '../security/problem';
import type { InboxFolder } from './inbox';
import type { RunJob, RunJobAnswer, RunLog } from './runJobs';

/** Does the work of runs, in this thread or another. */
export type DoRunJob = ((job: RunJob) => Promise<RunJobAnswer>) | Thread<RunJob, RunJobAnswer>;

export type RunLogs = ReturnType<typeof createRunLogs>;

/**
 * Logs beside the library: their bytes under their hash, their samples as columnar files, read again where those are lost.
 *
 * @param dataFolder the data directory
 * @param inbox files that grow
 * @param work reads logs
 */
export function createRunLogs(dataFolder: string, inbox: InboxFolder, work: DoRunJob) {
  const folder = createFileFolder(dataFolder);
  const samples = join(dataFolder, 'samples');

  /** A log's samples depend on what a person said of its columns too. */
  const samplesOf = (sha256: string, map: LogMap) => {
    const told = createHash('sha256').update(JSON.stringify(map)).digest('hex').slice(0, 12);
    return join(samples, `${sha256}-${told}.arrow`);
  };
  /** What was last read of each followed file. */
  const followed = new Map<string, { bytes: number; samples: string; fault: LogFault | null }>();

  /** Samples of a file of the inbox as far as its lines are whole; null while it says nothing yet. */
  const follow = async (name: string): Promise<string | null> => {
    const at = await inbox.file(name);
    const known = followed.get(name);
    if (known?.bytes === at.bytes) return known.samples;
    const bytes = await inbox.wholeLines(at);
    const key = createHash('sha256').update(name).digest('hex').slice(0, 16);
    const path = join(samples, `growing-${key}-${at.bytes}.arrow`);
    await mkdir(samples, { recursive: true });
    const answer = await work({ do: 'read', file: at.path, samples: path, map: {}, bytes });
    if ('fault' in answer) {
      if (known) followed.set(name, { ...known, fault: answer.fault });
      return known?.samples ?? null;
    }
    followed.set(name, { bytes: at.bytes, samples: path, fault: null });
    if (known) await rm(known.samples, { force: true });
    return path;
  };

  const read = async (sha256: string, map: LogMap): Promise<RunJobAnswer> => {
    await mkdir(samples, { recursive: true });
    return work({ do: 'read', file: folder.pathOf(sha256), samples: samplesOf(sha256, map), map });
  };

  return {
    /**
     * Takes a log's bytes and says what was understood of it.
     *
     * @param pieces bytes in order
     * @throws Problem 413 where it is too large, 422 with row and column where it cannot be read
     */
    async take(
      pieces: AsyncIterable<Uint8Array>,
      about: { file: string; map: LogMap },
    ): Promise<TakenLog> {
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

    /** Takes a file of the inbox as it stands. */
    async takeFromInbox(name: string): Promise<TakenLog> {
      const at = await inbox.file(name);
      return this.take(inbox.pieces(at.path, at.bytes), { file: name, map: {} });
    },

    /** What could not be read of the files that a run follows. */
    faultsOf: ({ follows }: RunDocument) =>
      (follows ?? []).flatMap((name) => {
        const fault = followed.get(name)?.fault;
        return fault ? [{ row: fault.row, column: name, message: fault.message }] : [];
      }),

    /** Logs with their samples at hand: those that are lost are read again. */
    async of(run: RunDocument): Promise<RunLog[]> {
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
      for (const name of run.follows ?? []) {
        const path = await follow(name);
        if (path) out.push({ samples: path, offsetS: null });
      }
      if (out.length === 0 && run.follows?.length) {
        throw new Problem(404, 'Nothing yet', `${run.follows.join(', ')}: no row to read yet`);
      }
      if (out.length === 0) throw new Problem(404, 'No log', 'this run holds no log yet');
      return out;
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

/** Logs of a run that have no time in common. */
export function apartProblem(
  { at, message }: { at: number; message: string },
  run: RunDocument,
): Problem {
  return new Problem(422, 'Apart', `${run.logs?.[at]?.file ?? 'log'}: ${message}`);
}
