import { createHash } from 'node:crypto';
import { access, mkdir, open, rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { MAX_LOG_MB, type TakenLog } from '@zugluft/core/library/runAnswers';
import type { LogFault } from '@zugluft/core/logs/readLog';
import { headerLine } from '@zugluft/core/logs/headerLine';
import type { LogMap } from '@zugluft/core/logs/logLayout';
import type { RunDocument } from '@zugluft/core/runs/runDocument';
import { createFileFolder, TooLarge } from '../attachments/fileFolder';
import type { Thread } from '../derived/inThread';
import { Problem } from '../security/problem';
import type { InboxFolder } from './inbox';
import type { RememberedLayouts } from './rememberedLayouts';
import type { RunLog } from './joinRun';
import type { RunJob, RunJobAnswer } from './runJobs';

/** Does the work of runs, in this thread or another. */
export type DoRunJob = ((job: RunJob) => Promise<RunJobAnswer>) | Thread<RunJob, RunJobAnswer>;

export type RunLogs = ReturnType<typeof createRunLogs>;

/** Bytes in which a header is looked for. */
const HEAD = 200_000;
const RIFF = [0x52, 0x49, 0x46, 0x46];

/**
 * Logs beside the library: their bytes under their hash, their samples as columnar files, read again where those are lost.
 *
 * @param dataFolder the data directory
 * @param inbox files that grow
 * @param work reads logs
 * @param layouts what was said of logs before
 */
export function createRunLogs(
  dataFolder: string,
  inbox: InboxFolder,
  work: DoRunJob,
  layouts: RememberedLayouts,
) {
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
    const map = (await layouts.of(headerLine(await headOf(at.path)))) ?? {};
    const answer = await work({ do: 'read', file: at.path, samples: path, map, bytes });
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
  const soundOf = (sha256: string) => join(samples, `${sha256}.sound.json`);
  const hear = async (sha256: string): Promise<RunJobAnswer> => {
    await mkdir(samples, { recursive: true });
    return work({ do: 'hear', file: folder.pathOf(sha256), samples: soundOf(sha256) });
  };
  /** Reads a log, or hears a recording; what was said of logs with its header before is said of it too. */
  const understand = async (sha256: string, said: LogMap | null) => {
    const head = await headOf(folder.pathOf(sha256));
    if (RIFF.every((b, i) => head[i] === b)) {
      return { kind: 'wav' as const, layout: null, header: null, answer: await hear(sha256) };
    }
    const header = headerLine(head);
    const layout = said ?? (await layouts.of(header));
    const answer = await read(sha256, layout ?? {});
    return { kind: 'csv' as const, layout, header, answer };
  };
  const told = async (
    { sha256, bytes }: { sha256: string; bytes: number },
    file: string,
    said: LogMap | null,
  ): Promise<TakenLog> => {
    const { kind, layout, answer } = await understand(sha256, said);
    return {
      sha256,
      bytes,
      file,
      kind,
      ...taken(answer, file, sha256),
      layout: layout as TakenLog['layout'],
    };
  };

  const sizeOf = async (sha256: string, file = 'this log'): Promise<number> => {
    const at = await stat(folder.pathOf(sha256)).catch(() => null);
    if (!at) throw new Problem(404, 'Not here', `${file}: its bytes are not here`);
    return at.size;
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
      about: { file: string; map: LogMap | null },
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
      return told(kept, about.file, about.map);
    },

    /**
     * Reads a log that is here by what a person says of it, and remembers that for logs with its header.
     *
     * @throws Problem 404 where it is not here, 422 where it cannot be read so
     */
    async retake(sha256: string, file: string, layout: LogMap): Promise<TakenLog> {
      const bytes = await sizeOf(sha256);
      const answer = await told({ sha256, bytes }, file, layout);
      const header = headerLine(await headOf(folder.pathOf(sha256)));
      await layouts.remember(header, layout);
      return answer;
    },

    /** The bytes of a log, and how many they are. */
    async bytesOf(sha256: string): Promise<{ bytes: number; path: string }> {
      return { bytes: await sizeOf(sha256), path: folder.pathOf(sha256) };
    },

    /** Takes a file of the inbox as it stands. */
    async takeFromInbox(name: string): Promise<TakenLog> {
      const at = await inbox.file(name);
      return this.take(inbox.pieces(at.path, at.bytes), { file: name, map: null });
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
        if (!log.sha256) continue;
        const { id, sha256, kind } = log;
        const map = (log.layout ?? {}) as LogMap;
        const path = kind === 'wav' ? soundOf(sha256) : samplesOf(sha256, map);
        const there = await access(path).then(
          () => true,
          () => false,
        );
        if (!there) {
          await sizeOf(sha256, log.file);
          taken(kind === 'wav' ? await hear(sha256) : await read(sha256, map));
        }
        const recording =
          kind === 'wav'
            ? { fullScaleDb: log.fullScaleDb ?? null, toneDb: log.toneDb ?? null }
            : null;
        out.push({ id, samples: path, offsetS: log.offsetS ?? null, recording });
      }
      for (const name of run.follows ?? []) {
        const path = await follow(name);
        if (path) out.push({ id: name, samples: path, offsetS: null, recording: null });
      }
      if (out.length === 0 && run.follows?.length) {
        throw new Problem(404, 'Nothing yet', `${run.follows.join(', ')}: no row to read yet`);
      }
      if (out.length === 0) throw new Problem(404, 'No log', 'this run holds no log yet');
      return out;
    },
  };
}

/** @throws Problem 422 with row and column where it cannot be read; where a person may say how it is meant, with its hash and columns */
function taken(answer: RunJobAnswer, file?: string, sha256?: string) {
  if ('taken' in answer) return answer.taken;
  if ('fault' in answer) {
    const { row, column, message, asks } = answer.fault;
    const where = `${file ?? 'log'}:row ${row}:column ${column}`;
    throw new Problem(422, 'Not readable', `${where}: ${message}`, {
      issues: [{ path: where, message }],
      ...(sha256 && asks ? { sha256, asks } : {}),
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

/** The first bytes of a file. */
async function headOf(path: string): Promise<Uint8Array> {
  const file = await open(path);
  try {
    const head = new Uint8Array(HEAD);
    const { bytesRead } = await file.read(head, 0, HEAD, 0);
    return head.subarray(0, bytesRead);
  } finally {
    await file.close();
  }
}
