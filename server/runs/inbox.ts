import { createReadStream } from 'node:fs';
import { lstat, mkdir, open, readdir } from 'node:fs/promises';
import { basename, join } from 'node:path';
import { Readable } from 'node:stream';
import { MAX_LOG_MB, type Inbox } from '@zugluft/core/library/runAnswers';
import { Problem } from '../security/problem';

/** Files of the folder that are told at most. */
const MAX_FILES = 200;
const LOGS = /\.(csv|tsv|txt|log)$/i;
/** A line longer than this is none of a log. */
const TAIL = 1 << 20;
const NEWLINE = 10;

/** A file of the inbox as it stands. */
export interface InboxFile {
  path: string;
  bytes: number;
  changedAt: Date;
}

export type InboxFolder = ReturnType<typeof createInbox>;

/**
 * A folder that loggers write into, perhaps over a share: it is looked at when somebody asks, since shares tell nothing by
 * themselves. Nothing in it is ever changed.
 *
 * @param folder its path; made where it is missing
 */
export function createInbox(folder: string) {
  const file = async (name: string): Promise<InboxFile> => {
    if (name !== basename(name) || name.startsWith('.') || !LOGS.test(name)) {
      throw new Problem(422, 'No log', `${name} is no log’s name: csv, tsv, txt or log`);
    }
    const path = join(folder, name);
    const at = await lstat(path).catch(() => null);
    // a link could lead anywhere
    if (!at?.isFile()) throw new Problem(404, 'Not found', `${name} is not in the inbox`);
    if (at.size > MAX_LOG_MB * 1e6) {
      throw new Problem(413, 'Too large', `${name} is larger than ${MAX_LOG_MB / 1000} GB`);
    }
    return { path, bytes: at.size, changedAt: at.mtime };
  };

  return {
    folder,
    file,

    /** Logs in it, the newest first. */
    async list(): Promise<Inbox> {
      await mkdir(folder, { recursive: true });
      const names = (await readdir(folder)).filter((n) => LOGS.test(n) && !n.startsWith('.'));
      const files: Inbox['files'] = [];
      for (const name of names) {
        const at = await lstat(join(folder, name)).catch(() => null);
        if (!at?.isFile()) continue;
        files.push({ name, bytes: at.size, changedAt: at.mtime.toISOString() });
      }
      files.sort((a, b) => b.changedAt.localeCompare(a.changedAt));
      return {
        folder,
        files: files.slice(0, MAX_FILES),
        more: Math.max(0, files.length - MAX_FILES),
      };
    },

    /** Where a file's last whole line ends: what comes after it is still being written. */
    async wholeLines({ path, bytes }: InboxFile): Promise<number> {
      const from = Math.max(0, bytes - TAIL);
      const handle = await open(path, 'r');
      try {
        const tail = Buffer.alloc(bytes - from);
        const { bytesRead } = await handle.read(tail, 0, tail.length, from);
        const at = tail.subarray(0, bytesRead).lastIndexOf(NEWLINE);
        if (at < 0) return 0;
        // in UTF-16 a line ends two bytes wide
        const wide = tail[at + 1] === 0;
        return from + at + (wide ? 2 : 1);
      } finally {
        await handle.close();
      }
    },

    /** A file's bytes up to a place. */
    pieces: (path: string, end: number): AsyncIterable<Uint8Array> =>
      end > 0 ? createReadStream(path, { end: end - 1 }) : Readable.from([]),
  };
}
