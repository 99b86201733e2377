import { open, readdir, readFile, rename, rm, rmdir, stat, mkdir } from 'node:fs/promises';
import { join } from 'node:path';
import { z } from 'zod';
import { LIBRARY_FILE } from '../database/examineFolder';

/** What makes up a library: set aside whole before another one takes its place. Small pictures and samples are made anew. */
const PARTS = [
  LIBRARY_FILE,
  `${LIBRARY_FILE}-wal`,
  `${LIBRARY_FILE}-shm`,
  'files',
  'thumbnails',
  'samples',
] as const;
const JOURNAL = 'restoring.json';
/** How a folder is called into which a backup is laid out. */
const STAGED = '.restoring-';
const journalSchema = z.object({
  /** What was laid out; or what was set aside, where it comes back. */
  staged: z.string().regex(/^(\.restoring|before-restore)-[\w-]+$/),
  aside: z.string().regex(/^before-restore-[\w-]+$/),
  /** Parts that were laid out: one of them that lies there no more has taken its place. */
  parts: z.array(z.enum(PARTS)),
});
type Journal = z.infer<typeof journalSchema>;

const isThere = async (path: string) => (await stat(path).catch(() => null)) !== null;

async function syncFolder(path: string): Promise<void> {
  const folder = await open(path, 'r');
  await folder.sync().catch(() => undefined);
  await folder.close();
}

/**
 * A name for what is set aside at a moment, under which nothing lies yet: two restores within one second have a folder each.
 *
 * @param ending of the name
 */
export async function asideName(dataFolder: string, now: Date, ending = ''): Promise<string> {
  const moment = now.toISOString().slice(0, 19).replaceAll(':', '-');
  return freeName(dataFolder, `before-restore-${moment}${ending}`);
}

/** A name, with a number behind it where something is called so already. */
async function freeName(folder: string, name: string): Promise<string> {
  let free = name;
  for (let n = 2; await isThere(join(folder, free)); n++) free = `${name}-${n}`;
  return free;
}

/** An empty folder into which a backup can be laid out. */
export async function stagedFolder(dataFolder: string, id: string): Promise<string> {
  const path = join(dataFolder, `${STAGED}${id}`);
  await mkdir(path, { recursive: true });
  return path;
}

/**
 * Sets what is there aside and puts what was laid out in its place. What is to be done is written down first: cut off at any moment,
 * the next start does the rest, so that there is one library or the other, never parts of both.
 *
 * @param staged name of a folder within the data folder
 * @param aside name of the folder that takes what is there
 */
export async function swapIn(dataFolder: string, staged: string, aside: string): Promise<void> {
  const there = await readdir(join(dataFolder, staged));
  const parts = PARTS.filter((part) => there.includes(part));
  const draft = join(dataFolder, `.${JOURNAL}`);
  const file = await open(draft, 'w');
  await file.writeFile(JSON.stringify({ staged, aside, parts } satisfies Journal));
  await file.sync();
  await file.close();
  await rename(draft, join(dataFolder, JOURNAL));
  await syncFolder(dataFolder);
  await finishSwap(dataFolder);
}

/** Does the rest of a swap that was cut off, and removes what was laid out for one that never began. */
export async function finishSwap(dataFolder: string): Promise<void> {
  const at = join(dataFolder, JOURNAL);
  const text = await readFile(at, 'utf8').catch(() => null);
  const journal = text === null ? null : journalSchema.parse(JSON.parse(text));
  if (journal) {
    const [staged, aside] = [join(dataFolder, journal.staged), join(dataFolder, journal.aside)];
    await mkdir(aside, { recursive: true });
    for (const part of PARTS) {
      const [now, old, next] = [join(dataFolder, part), join(aside, part), join(staged, part)];
      const isNext = await isThere(next);
      const hasTakenPlace = journal.parts.includes(part) && !isNext;
      // what stands there is the old one until it lies aside
      if (!hasTakenPlace && (await isThere(now))) {
        // while the next one waits, what lies aside already is of an earlier restore
        if (isNext) await rename(now, join(aside, await freeName(aside, part)));
        else if (!(await isThere(old))) await rename(now, old);
      }
      if (isNext) await rename(next, now);
    }
    // where nothing was there, nothing lies aside
    await rmdir(aside).catch(() => undefined);
    await syncFolder(dataFolder);
    await rm(at, { force: true });
    await rm(staged, { recursive: true, force: true });
  }
  for (const name of await readdir(dataFolder).catch(() => [])) {
    if (name.startsWith(STAGED)) await rm(join(dataFolder, name), { recursive: true, force: true });
  }
}
