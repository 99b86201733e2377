import { createHash, randomUUID } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { open, readdir, rename, rm, stat } from 'node:fs/promises';
import { basename, dirname, join } from 'node:path';
import type { Writable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { pack as newPack, type Pack } from 'tar-stream';
import { LIBRARY_FILE } from '../database/examineFolder';
import { allDone } from '../database/writeQueue';
import { filesNamedIn, migrationsOf, openSqlite, rowsOf } from '../database/sqliteFile';
import { isDiskFull } from '../database/unusable';
import {
  BackupProblem,
  hashInName,
  MANIFEST_ENTRY,
  SEAL_ENTRY,
  sealOf,
  type BackupManifest,
} from './backupFormat';

/** How the copy of a library is called while a backup is written. */
export const SNAPSHOT = '.backing-up-';

/**
 * Writes a backup as one tar (POSIX ustar): the library as it is at one moment, then every file beside it, then the list of both
 * with their hashes. The server may be writing meanwhile: files are never changed, and those that the copy names are there before it.
 *
 * @param dataFolder data directory
 * @param out where it goes; ended when it is whole
 * @param now when it is made
 * @throws BackupProblem where there is no library
 */
export async function writeBackup(
  dataFolder: string,
  out: Writable,
  now = new Date(),
): Promise<BackupManifest> {
  const snapshot = join(dataFolder, `${SNAPSHOT}${randomUUID()}`);
  try {
    const facts = await copyLibrary(dataFolder, snapshot);
    const pack = newPack();
    // a reader that goes away ends the packing too
    const packed = packAll(pack, dataFolder, snapshot, facts, now).catch((cause: unknown) => {
      pack.destroy(cause as Error);
      throw cause;
    });
    await allDone([packed.then(() => undefined), pipeline(pack, out)]);
    return await packed;
  } finally {
    await rm(snapshot, { force: true });
    await rm(`${snapshot}-journal`, { force: true });
  }
}

interface LibraryFacts {
  migrations: string[];
  rows: Record<string, number>;
  named: Set<string>;
}

async function copyLibrary(dataFolder: string, snapshot: string): Promise<LibraryFacts> {
  const path = join(dataFolder, LIBRARY_FILE);
  const db = await openSqlite(path).catch(() => {
    throw new BackupProblem(`there is no library in ${dataFolder}`);
  });
  try {
    await db.copyTo(snapshot);
  } finally {
    await db.close();
  }
  const copy = await openSqlite(snapshot);
  try {
    return {
      migrations: await migrationsOf(copy),
      rows: await rowsOf(copy),
      named: await filesNamedIn(copy),
    };
  } finally {
    await copy.close();
  }
}

async function packAll(
  pack: Pack,
  dataFolder: string,
  snapshot: string,
  { migrations, rows, named }: LibraryFacts,
  now: Date,
): Promise<BackupManifest> {
  const manifest: BackupManifest = {
    format: 'zugluft-backup',
    formatVersion: 1,
    createdAt: now.toISOString(),
    migrations,
    rows,
    entries: [await addFile(pack, LIBRARY_FILE, snapshot)],
    missing: [],
    damaged: [],
  };
  const there = new Set<string>();
  for await (const { name, path } of keptFiles(dataFolder)) {
    const entry = await addFile(pack, name, path);
    there.add(hashInName(name)!);
    manifest.entries.push(entry);
    if (entry.sha256 !== hashInName(name)) manifest.damaged.push(hashInName(name)!);
  }
  manifest.missing = [...named].filter((sha256) => !there.has(sha256)).sort();
  const text = JSON.stringify(manifest);
  await addText(pack, MANIFEST_ENTRY, text, now);
  await addText(pack, SEAL_ENTRY, sealOf(createHash('sha256').update(text).digest('hex')), now);
  pack.finalize();
  return manifest;
}

const addText = (pack: Pack, name: string, text: string, mtime: Date) =>
  new Promise<void>((resolve, reject) => {
    pack.entry({ name, mtime }, text, (cause) => (cause ? reject(cause) : resolve()));
  });

/** Files beside a library, each under the hash of what it holds. */
export async function* keptFiles(
  dataFolder: string,
): AsyncGenerator<{ name: string; path: string }> {
  const root = join(dataFolder, 'files');
  for (const folder of (await readdir(root).catch(() => [])).sort()) {
    if (!/^[0-9a-f]{2}$/.test(folder)) continue;
    for (const file of (await readdir(join(root, folder))).sort()) {
      if (!/^[0-9a-f]{64}$/.test(file)) continue;
      yield { name: `files/${folder}/${file}`, path: join(root, folder, file) };
    }
  }
}

async function addFile(
  pack: Pack,
  name: string,
  path: string,
): Promise<BackupManifest['entries'][number]> {
  const { size, mtime } = await stat(path);
  const hash = createHash('sha256');
  const entry = pack.entry({ name, size, mtime });
  await pipeline(
    createReadStream(path),
    async function* (pieces: AsyncIterable<Buffer>) {
      for await (const piece of pieces) {
        hash.update(piece);
        yield piece;
      }
    },
    entry,
  );
  return { name, bytes: size, sha256: hash.digest('hex') };
}

/**
 * Writes a backup to a file: under another name first, so that one that is there under its name is whole.
 *
 * @param force writes over a file that is there
 * @throws BackupProblem where the file is there, or cannot be written
 */
export async function backupToFile(
  dataFolder: string,
  file: string,
  force: boolean,
  now = new Date(),
): Promise<BackupManifest> {
  if (!force && (await stat(file).catch(() => null))) {
    throw new BackupProblem(`${file} is there already: choose another name, or say --force`);
  }
  const draft = join(dirname(file), `.${basename(file)}.draft`);
  try {
    const handle = await open(draft, 'w');
    try {
      const manifest = await writeBackup(
        dataFolder,
        handle.createWriteStream({ flush: true }),
        now,
      );
      await rename(draft, file);
      return manifest;
    } finally {
      await handle.close().catch(() => undefined);
    }
  } catch (cause) {
    await rm(draft, { force: true }).catch(() => undefined);
    if (cause instanceof BackupProblem) throw cause;
    if (isDiskFull(cause)) throw new BackupProblem(`the disk under ${dirname(file)} is full`);
    const { code } = cause as { code?: string };
    const words: Record<string, string> = {
      ENOENT: `there is no folder ${dirname(file)}`,
      ENOTDIR: `${dirname(file)} is no folder`,
      EACCES: `${dirname(file)} may not be written by this user`,
      EPERM: `${dirname(file)} may not be written by this user`,
      EROFS: `${dirname(file)} cannot be written`,
      EISDIR: `${file} is a folder`,
    };
    if (code && words[code]) throw new BackupProblem(words[code]);
    throw cause;
  }
}
