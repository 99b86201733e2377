import { createHash } from 'node:crypto';
import { createReadStream, createWriteStream } from 'node:fs';
import { mkdir } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { Writable } from 'node:stream';
import { buffer, text } from 'node:stream/consumers';
import { pipeline } from 'node:stream/promises';
import { extract } from 'tar-stream';
import { LIBRARY_FILE } from '../database/examineFolder';
import { MIGRATIONS } from '../database/migrate';
import { migrationsOf, openSqlite } from '../database/sqliteFile';
import { isDiskFull } from '../database/unusable';
import {
  backupManifest,
  BackupProblem,
  isEntryName,
  MANIFEST_ENTRY,
  MAX_MANIFEST_BYTES,
  SEAL_ENTRY,
  sealOf,
  type BackupManifest,
} from './backupFormat';

const spoiled = (what: string) => new BackupProblem(`the backup is damaged: ${what}`);

/**
 * Checks a backup whole, and lays out what is in it.
 *
 * @param file a backup
 * @param into an empty folder for what is in it; null to check alone, in which case the library in it is not opened
 * @throws BackupProblem where anything of it is not as it was written, or a newer program wrote it
 */
export async function readBackup(file: string, into: string | null): Promise<BackupManifest> {
  const found = new Map<string, { bytes: number; sha256: string }>();
  let told: BackupManifest | null = null;
  let listSha256 = '';
  let sealed = false;
  const tar = extract();
  const reading = pipeline(createReadStream(file), tar);
  // it is waited for below; until then it must not count as unhandled
  reading.catch(() => undefined);
  try {
    for await (const entry of tar) {
      const { name, type } = entry.header;
      if (sealed) throw spoiled('something comes after its end');
      if (type !== 'file') throw spoiled('it holds something else than files');
      if (name === MANIFEST_ENTRY) {
        if ((entry.header.size ?? 0) > MAX_MANIFEST_BYTES) throw spoiled('its list is too long');
        const bytes = await buffer(entry);
        listSha256 = createHash('sha256').update(bytes).digest('hex');
        told = manifestOf(bytes);
        continue;
      }
      if (name === SEAL_ENTRY) {
        if ((entry.header.size ?? 0) !== sealOf('').length + 64)
          throw spoiled('its seal is broken');
        if ((await text(entry)) !== sealOf(listSha256)) throw spoiled('its list is not as it was');
        sealed = true;
        continue;
      }
      if (told) throw spoiled(`${name.slice(0, 80)} comes after its list`);
      if (!isEntryName(name)) throw spoiled('it holds a file that is none of a backup');
      if (found.has(name)) throw spoiled(`${name} is in it twice`);
      const hash = createHash('sha256');
      let bytes = 0;
      await pipeline(
        entry as AsyncIterable<Buffer>,
        async function* (pieces: AsyncIterable<Buffer>) {
          for await (const piece of pieces) {
            hash.update(piece);
            bytes += piece.length;
            yield piece;
          }
        },
        await sink(into, name),
      );
      found.set(name, { bytes, sha256: hash.digest('hex') });
    }
    await reading;
  } catch (cause) {
    tar.destroy();
    throw inWordsOfBackup(cause, file);
  }
  if (!told || !sealed) throw spoiled('it ends before its list, as one that was cut off');
  compare(told, found);
  refuseNewer(told.migrations);
  if (into !== null) await checkLibrary(join(into, LIBRARY_FILE), told);
  return told;
}

async function sink(into: string | null, name: string): Promise<Writable> {
  if (into === null) return new Writable({ write: (_piece, _encoding, done) => done() });
  const path = join(into, name);
  await mkdir(dirname(path), { recursive: true });
  return createWriteStream(path, { flags: 'wx', flush: true });
}

function manifestOf(bytes: Buffer): BackupManifest {
  try {
    return backupManifest.parse(JSON.parse(bytes.toString('utf8')));
  } catch {
    throw spoiled('its list cannot be read');
  }
}

function compare(
  told: BackupManifest,
  found: ReadonlyMap<string, { bytes: number; sha256: string }>,
): void {
  for (const { name, bytes, sha256 } of told.entries) {
    const own = found.get(name);
    if (!own) throw spoiled(`${name} is missing`);
    if (own.bytes !== bytes || own.sha256 !== sha256) {
      throw spoiled(`${name} is not as it was written`);
    }
  }
  if (found.size !== told.entries.length) throw spoiled('it holds files that its list does not');
  if (!found.has(LIBRARY_FILE)) throw spoiled('the library is missing');
}

function refuseNewer(migrations: readonly string[]): void {
  const known = new Set(MIGRATIONS.map((m) => m.name));
  const newer = migrations.filter((name) => !known.has(name));
  if (!newer.length) return;
  throw new BackupProblem(
    `the backup was made by a newer version of the program (it knows ${newer.join(', ')}): restore it with that one`,
  );
}

async function checkLibrary(path: string, told: BackupManifest): Promise<void> {
  const db = await openSqlite(path).catch(() => {
    throw spoiled('the library in it cannot be opened');
  });
  try {
    const [first] = await db.all<{ integrity_check: string }>('PRAGMA integrity_check(1)');
    if (first?.integrity_check !== 'ok') throw spoiled('the library in it is damaged');
    const migrations = await migrationsOf(db);
    if (migrations.join() !== told.migrations.join()) {
      throw spoiled('the library in it is not the one its list tells of');
    }
  } catch (cause) {
    if (cause instanceof BackupProblem) throw cause;
    throw spoiled(`the library in it cannot be read (${(cause as Error).message})`);
  } finally {
    await db.close();
  }
}

function inWordsOfBackup(cause: unknown, file: string): unknown {
  if (cause instanceof BackupProblem) return cause;
  const { code, message } = cause as { code?: string; message: string };
  if (isDiskFull(cause))
    return new BackupProblem('the disk is full: there is no room for what is in the backup');
  if (code === 'ENOENT') return new BackupProblem(`there is no file ${file}`);
  if (code === 'EISDIR') return new BackupProblem(`${file} is a folder, no backup`);
  if (code === 'EACCES' || code === 'EPERM') {
    return new BackupProblem(`${file} may not be read by this user`);
  }
  return spoiled(/tar|header|end/i.test(message) ? 'it is no tar, or it ends too early' : message);
}
