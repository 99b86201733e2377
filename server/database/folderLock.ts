import { mkdir, readFile, rm, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import sqlite3 from 'sqlite3';
import { inWords, UnusableLibrary } from './unusable';

/** A data folder that is held by this process until it is let go, or until the process ends however it ends. */
export interface FolderLock {
  /** Tells others who look in vain where this one answers. */
  tell(address: string): Promise<void>;
  release(): Promise<void>;
}

const LOCK_FILE = 'zugluft.lock';
const RUNNING_FILE = 'running.json';

/** Who holds a folder, as far as it is told. */
export async function whoHolds(folder: string): Promise<{ pid: number; address?: string } | null> {
  try {
    return JSON.parse(await readFile(join(folder, RUNNING_FILE), 'utf8')) as { pid: number };
  } catch {
    return null;
  }
}

/**
 * Takes a data folder for this process alone. The lock is one of SQLite's on a file of its own: the system lets go of it by itself
 * when a process is killed, on every system and without waiting, as a file with a number in it or a time would not.
 *
 * @throws UnusableLibrary where another process holds it; nothing is touched then
 */
export async function lockFolder(folder: string): Promise<FolderLock> {
  let db: sqlite3.Database;
  try {
    await mkdir(folder, { recursive: true });
    db = await new Promise((resolve, reject) => {
      const opened: sqlite3.Database = new sqlite3.Database(join(folder, LOCK_FILE), (cause) =>
        cause ? reject(cause) : resolve(opened),
      );
    });
  } catch (cause) {
    throw inWords(cause, folder);
  }
  const run = (sql: string) =>
    new Promise<void>((resolve, reject) => db.exec(sql, (c) => (c ? reject(c) : resolve())));
  const close = () => new Promise<void>((resolve) => db.close(() => resolve()));
  db.configure('busyTimeout', 0);
  try {
    await run('BEGIN EXCLUSIVE');
  } catch (cause) {
    await close();
    if ((cause as { code?: string }).code !== 'SQLITE_BUSY') throw inWords(cause, folder);
    const other = await whoHolds(folder);
    const who = other
      ? ` (process ${other.pid}${other.address ? `, at ${other.address}` : ''})`
      : '';
    throw new UnusableLibrary(
      `Another Zugluft${who} already works in ${folder}. Nothing was touched. Use that one, end it first, or choose another folder with ZUGLUFT_DATA.`,
    );
  }
  await writeFile(join(folder, RUNNING_FILE), JSON.stringify({ pid: process.pid }));
  return {
    tell: (address) =>
      writeFile(join(folder, RUNNING_FILE), JSON.stringify({ pid: process.pid, address })),
    async release() {
      await rm(join(folder, RUNNING_FILE), { force: true });
      await close();
    },
  };
}
