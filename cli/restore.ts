import { BackupProblem } from '@zugluft/server/backup/backupFormat';
import { stage } from '@zugluft/server/backup/restore';
import { lockFolder, type FolderLock } from '@zugluft/server/database/folderLock';
import { finishSwap } from '@zugluft/server/backup/swapIn';
import { UnusableLibrary } from '@zugluft/server/database/unusable';
import { existsSync } from 'node:fs';
import { resolve } from 'node:path';
import { dataFolderOf, fileAndFlags, type Said } from './upkeep';

const USAGE = 'usage: npm run restore -- FILE';

/**
 * Puts a backup in the place of what is kept, which is set aside; while no server runs.
 *
 * @param args of the command
 * @returns what to print; code 0, 1 where it could not be restored, 2 where it was not understood
 */
export async function run(args: readonly string[], env = process.env): Promise<Said> {
  const asked = fileAndFlags(args, []);
  if (!asked) return { stdout: '', stderr: [USAGE], code: 2 };
  const folder = dataFolderOf(env);
  const refused = (cause: unknown): Said => {
    if (!(cause instanceof BackupProblem || cause instanceof UnusableLibrary)) throw cause;
    return { stdout: '', stderr: [cause.message], code: 1 };
  };
  let lock: FolderLock;
  try {
    lock = await lockFolder(folder);
  } catch (cause) {
    return refused(cause);
  }
  try {
    await finishSwap(folder);
    const staged = await stage(folder, resolve(asked.file));
    const { manifest, aside } = await staged.swap();
    const before = existsSync(aside) ? `. What was there lies in ${aside}` : '';
    return {
      stdout: `${manifest.rows['machines'] ?? 0} machines and ${manifest.entries.length - 1} photos, papers and logs of ${manifest.createdAt} are back and were compared${before}`,
      stderr: manifest.missing.map((hash) => `was missing when the backup was made: file ${hash}`),
      code: 0,
    };
  } catch (cause) {
    return refused(cause);
  } finally {
    await lock.release();
  }
}
