import { createHash } from 'node:crypto';
import { access, mkdir } from 'node:fs/promises';
import { join } from 'node:path';
import { MAX_LOG_MB, type TakenLog } from '@zugluft/core/library/runAnswers';
import type { LogMap } from '@zugluft/core/logs/logLayout';
import type { RunDocument } from '@zugluft/core/runs/runDocument';
import { createFileFolder, TooLarge } from '../attachments/fileFolder';
import type { Thread } from '../derived/inThread';
import { Problem } from '../security/problem';
import type { RunJob, RunJobAnswer, RunLog } from './runJobs';

/** Does the work of runs, in this thread or another. */
export type DoRunJob = ((job: RunJob) => Promise<RunJobAnswer>) | Thread<RunJob, RunJobAnswer>;

export type RunLogs = ReturnType<typeof createRunLogs>;

/**
 * Logs beside the library: their bytes under their hash, their samples as columnar files, read again where those are lost.
 *
 * @param dataFolder the data directory
 * @param work reads logs
 */
export function createRunLogs(dataFolder: string, work: DoRunJob) {
  const folder = createFileFolder(dataFolder);
  const samples = join(dataFolder, 'samples');

  /** A log's samples depend on what a person said of its columns too. */
  const samplesOf = (sha256: string, map: LogMap) => {
    const told = createHash('sha256').update(JSON.stringify(map)).digest('hex').slice(0, 12);
    return join(samples, `${sha256}-${told}.arrow`);
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
