import { constants } from 'node:fs';
import { access, mkdir, open, readdir, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { damagedWords, inWords, UnusableLibrary } from './unusable';

/** The library within a data folder. */
export const LIBRARY_FILE = 'zugluft.sqlite';
/** What lies beside a library, and never alone. */
const BESIDE = ['files', 'backups'];
/** How every file of SQLite begins. Source: SQLite, Database File Format, section 1.3. */
const BEGINS = 'SQLite format 3\0';

const isFilled = async (folder: string) =>
  (await readdir(folder).catch(() => [])).some((name) => !name.startsWith('.'));

/**
 * Looks at a data folder before a library in it is opened; makes the folder where there is none.
 *
 * @throws UnusableLibrary where it cannot be written, where photos lie there without their library, or where the library file is none
 */
export async function examineFolder(folder: string): Promise<void> {
  try {
    await mkdir(folder, { recursive: true });
    await access(folder, constants.W_OK);
  } catch (cause) {
    throw inWords(cause, folder);
  }
  const path = join(folder, LIBRARY_FILE);
  const size = await stat(path).then(
    (s) => s.size,
    () => null,
  );
  if (!size) {
    const wal = await stat(`${path}-wal`).then(
      (s) => s.size,
      () => 0,
    );
    for (const name of BESIDE) {
      if (!wal && !(await isFilled(join(folder, name)))) continue;
      throw new UnusableLibrary(
        `The library file ${path} is ${size === null ? 'missing' : 'empty'}, but photos, logs or backups lie beside it. ` +
          'Nothing was changed. Put the file back, restore a backup, or start with an empty folder.',
      );
    }
    return;
  }
  const file = await open(path, 'r').catch((cause: unknown) => {
    throw inWords(cause, folder);
  });
  try {
    const { buffer, bytesRead } = await file.read(Buffer.alloc(16), 0, 16, 0);
    if (bytesRead < 16 || buffer.toString('latin1') !== BEGINS) {
      throw new UnusableLibrary(damagedWords('it does not begin as a library does'));
    }
  } finally {
    await file.close();
  }
}
