import { randomUUID } from 'node:crypto';
import { rm, stat } from 'node:fs/promises';
import { basename, join } from 'node:path';
import { LIBRARY_FILE } from '../database/examineFolder';
import { openSqlite, rowsOf } from '../database/sqliteFile';
import { BackupProblem, type BackupManifest } from './backupFormat';
import { readBackup } from './readBackup';
import { asideName, stagedFolder, swapIn } from './swapIn';

/** What was restored, and where what was there lies now. */
export interface Restored {
  manifest: BackupManifest;
  aside: string;
}

/** A backup that was checked and laid out, and can take the place of what is there. */
export interface Staged {
  manifest: BackupManifest;
  /** Puts it in its place, and compares; nobody may have the library open. */
  swap(now?: Date): Promise<Restored>;
  drop(): Promise<void>;
}

/**
 * Checks a backup and lays it out beside the library, which goes on meanwhile.
 *
 * @throws BackupProblem where the backup cannot be used; nothing is left of it then
 */
export async function stage(dataFolder: string, file: string): Promise<Staged> {
  const folder = await stagedFolder(dataFolder, randomUUID());
  const drop = () => rm(folder, { recursive: true, force: true });
  let manifest: BackupManifest;
  try {
    manifest = await readBackup(file, folder);
  } catch (cause) {
    await drop();
    throw cause;
  }
  return {
    manifest,
    drop,
    async swap(now = new Date()) {
      const aside = await asideName(dataFolder, now);
      await swapIn(dataFolder, basename(folder), aside);
      await compareAfter(dataFolder, manifest, aside);
      return { manifest, aside: join(dataFolder, aside) };
    },
  };
}

/**
 * Puts back what was set aside, where what was restored cannot be opened.
 *
 * @param aside folder that the restore named
 */
export async function swapBack(dataFolder: string, aside: string, now = new Date()): Promise<void> {
  await swapIn(dataFolder, basename(aside), await asideName(dataFolder, now, '-failed'));
}

/** Whether what stands there now is what the backup tells of. */
async function compareAfter(
  dataFolder: string,
  { rows, entries }: BackupManifest,
  aside: string,
): Promise<void> {
  const differs = (what: string) =>
    new BackupProblem(
      `what was restored differs from the backup: ${what}. What was there before lies in ${aside}`,
    );
  const db = await openSqlite(join(dataFolder, LIBRARY_FILE));
  try {
    const now = await rowsOf(db);
    for (const [table, count] of Object.entries(rows)) {
      if (now[table] !== count)
        throw differs(`${table} has ${now[table] ?? 'no'} rows of ${count}`);
    }
  } finally {
    await db.close();
  }
  for (const { name, bytes } of entries) {
    if (name === LIBRARY_FILE) continue;
    const size = await stat(join(dataFolder, name)).then(
      (s) => s.size,
      () => null,
    );
    if (size !== bytes) throw differs(`${name} has ${size ?? 'no'} bytes of ${bytes}`);
  }
}
