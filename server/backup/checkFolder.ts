import { createHash } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { LIBRARY_FILE } from '../database/examineFolder';
import { filesNamedIn, openSqlite, rowsOf } from '../database/sqliteFile';
import { BackupProblem, hashInName } from './backupFormat';
import { keptFiles } from './writeBackup';

/** What a look at every byte of a data folder found. */
export interface FolderCheck {
  rows: Record<string, number>;
  files: number;
  bytes: number;
  /** What SQLite says of the library; empty where it is sound. */
  library: string[];
  /** Hashes of files that hold something else now. */
  damaged: string[];
  /** Hashes of files that the library names and that are not there. */
  missing: string[];
  /** Files that the library does not name: left by work that was cut off; they harm nothing. */
  unnamed: number;
}

const MAX_SAID = 100;

/**
 * Reads all that is kept and says what of it is not as it was written. Nothing is changed; the server may run.
 *
 * @throws BackupProblem where there is no library
 */
export async function checkFolder(dataFolder: string): Promise<FolderCheck> {
  const db = await openSqlite(join(dataFolder, LIBRARY_FILE)).catch(() => {
    throw new BackupProblem(`there is no library in ${dataFolder}`);
  });
  const out: FolderCheck = {
    rows: {},
    files: 0,
    bytes: 0,
    library: [],
    damaged: [],
    missing: [],
    unnamed: 0,
  };
  let named = new Set<string>();
  try {
    const said = await db.all<{ integrity_check: string }>(`PRAGMA integrity_check(${MAX_SAID})`);
    out.library = said.map((s) => s.integrity_check).filter((s) => s !== 'ok');
    const orphans = await db.all<{ table: string }>('PRAGMA foreign_key_check');
    if (orphans.length) out.library.push(`${orphans.length} rows belong to nothing`);
    out.rows = await rowsOf(db);
    named = await filesNamedIn(db);
  } catch (cause) {
    out.library.push((cause as Error).message);
  } finally {
    await db.close();
  }
  const there = new Set<string>();
  for await (const { name, path } of keptFiles(dataFolder)) {
    const told = hashInName(name)!;
    const hash = createHash('sha256');
    await pipeline(createReadStream(path), async (pieces: AsyncIterable<Buffer>) => {
      for await (const piece of pieces) {
        hash.update(piece);
        out.bytes += piece.length;
      }
    });
    out.files++;
    there.add(told);
    if (hash.digest('hex') !== told) out.damaged.push(told);
    if (!named.has(told)) out.unnamed++;
  }
  out.missing = [...named].filter((sha256) => !there.has(sha256)).sort();
  return out;
}
