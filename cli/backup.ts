import { BackupProblem } from '@zugluft/server/backup/backupFormat';
import { backupToFile } from '@zugluft/server/backup/writeBackup';
import { resolve } from 'node:path';
import { dataFolderOf, fileAndFlags, megabytes, type Said } from './upkeep';

const USAGE = 'usage: npm run backup -- FILE [--force]';

/**
 * Writes all that is kept into one file, while the server runs or not.
 *
 * @param args of the command
 * @returns what to print; code 0, 1 where it could not be written, 2 where it was not understood
 */
export async function run(args: readonly string[], env = process.env): Promise<Said> {
  const asked = fileAndFlags(args, ['--force']);
  if (!asked) return { stdout: '', stderr: [USAGE], code: 2 };
  const file = resolve(asked.file);
  try {
    const made = await backupToFile(dataFolderOf(env), file, asked.flags.has('--force'));
    const bytes = made.entries.reduce((sum, e) => sum + e.bytes, 0);
    return {
      stdout: `${file}: ${made.rows['machines'] ?? 0} machines, ${made.entries.length - 1} photos, papers and logs, ${megabytes(bytes)}`,
      stderr: [
        ...made.missing.map((hash) => `not in it, since it is not there: file ${hash}`),
        ...made.damaged.map((hash) => `in it as it is, but damaged before: file ${hash}`),
      ],
      code: 0,
    };
  } catch (cause) {
    if (!(cause instanceof BackupProblem)) throw cause;
    return { stdout: '', stderr: [cause.message], code: 1 };
  }
}
