import { BackupProblem } from '@zugluft/server/backup/backupFormat';
import { checkFolder } from '@zugluft/server/backup/checkFolder';
import { readBackup } from '@zugluft/server/backup/readBackup';
import { resolve } from 'node:path';
import { dataFolderOf, megabytes, type Said } from './upkeep';

const USAGE = 'usage: npm run check [-- BACKUP]';

/**
 * Reads every byte that is kept, or of a backup, and says what is not as it was written.
 *
 * @param args of the command
 * @returns what to print; code 0 where all is sound, 1 where something is not, 2 where it was not understood
 */
export async function run(args: readonly string[], env = process.env): Promise<Said> {
  const [file, ...more] = args;
  if (more.length || file?.startsWith('-')) return { stdout: '', stderr: [USAGE], code: 2 };
  try {
    if (file !== undefined) {
      const told = await readBackup(resolve(file), null);
      return {
        stdout: `${told.entries.length} files of ${told.createdAt}, all as they were written`,
        stderr: [],
        code: 0,
      };
    }
    const { rows, files, bytes, library, damaged, missing, unnamed } = await checkFolder(
      dataFolderOf(env),
    );
    const faults = [
      ...library.map((said) => `library: ${said}`),
      ...damaged.map((hash) => `damaged: file ${hash}`),
      ...missing.map((hash) => `missing: file ${hash}`),
    ];
    const count = `${rows['machines'] ?? 0} machines, ${files} photos, papers and logs, ${megabytes(bytes)}`;
    const left = unnamed ? `; ${unnamed} files are named by nothing` : '';
    return {
      stdout: `${count}: ${faults.length ? `${faults.length} faults` : 'all as it was written'}${left}`,
      stderr: faults,
      code: faults.length ? 1 : 0,
    };
  } catch (cause) {
    if (!(cause instanceof BackupProblem)) throw cause;
    return { stdout: '', stderr: [cause.message], code: 1 };
  }
}
