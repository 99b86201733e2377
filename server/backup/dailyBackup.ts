import { mkdir, readdir, rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { backupToFile } from './writeBackup';

const DAYS = 7;
const WEEKS = 4;
const DAY_MS = 86_400_000;

/** Daily backups are called so, and nothing else in their folder is touched. */
const NAME = /^zugluft-(\d{4}-\d{2}-\d{2})\.tar$/;

const DRAFT = /^\.zugluft-\d{4}-\d{2}-\d{2}\.tar\.draft$/;

/** What a daily backup of a day is called. */
export const dailyName = (day: Date): string => `zugluft-${day.toISOString().slice(0, 10)}.tar`;

const isDaily = (name: string) => NAME.test(name) && !Number.isNaN(dayOf(name));

const dayOf = (name: string): number => Date.parse(`${NAME.exec(name)![1]}T00:00:00Z`) / DAY_MS;

/**
 * Which of some daily backups are no longer kept: beyond the newest of seven days, and the newest of each of four weeks.
 *
 * @param names of files in the folder of backups
 */
export function outdated(names: readonly string[]): string[] {
  const daily = names.filter(isDaily).sort().reverse();
  const keep = new Set(daily.slice(0, DAYS));
  const weeks = new Map<number, string>();
  for (const name of daily) {
    // from Monday: day 0 of the count was a Thursday
    const week = Math.floor((dayOf(name) + 3) / 7);
    if (!weeks.has(week)) weeks.set(week, name);
  }
  for (const name of [...weeks.values()].slice(0, WEEKS)) keep.add(name);
  return daily.filter((name) => !keep.has(name));
}

/** One backup that lies in the folder of backups. */
export interface KeptBackup {
  name: string;
  bytes: number;
  at: string;
}

/** Daily backups that are there, newest first. */
export async function keptBackups(folder: string): Promise<KeptBackup[]> {
  const names = (await readdir(folder).catch(() => [])).filter(isDaily);
  const all: KeptBackup[] = [];
  for (const name of names.sort().reverse()) {
    const { size, mtime } = await stat(join(folder, name));
    all.push({ name, bytes: size, at: mtime.toISOString() });
  }
  return all;
}

/**
 * Makes the backup of a day where there is none yet, then lets go of those that are outdated.
 *
 * @param folder of backups, made where it is not there
 * @returns name of the backup that was made, null where it was there
 */
export async function backUpDay(
  dataFolder: string,
  folder: string,
  now = new Date(),
): Promise<string | null> {
  await mkdir(folder, { recursive: true });
  const name = dailyName(now);
  const names = await readdir(folder);
  // what an earlier one left that was cut off; no other is on its way, since one process holds the folder
  for (const draft of names.filter((n) => DRAFT.test(n))) await rm(join(folder, draft));
  if (names.includes(name)) return null;
  await backupToFile(dataFolder, join(folder, name), false, now);
  // only once the new one is whole
  for (const old of outdated([...names, name])) await rm(join(folder, old), { force: true });
  return name;
}
