import { readdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { openDatabase } from '../database/openDatabase';
import { temporaryFolder } from '../test-support/temporaryFolder';
import { backUpDay, dailyName, keptBackups, outdated } from './dailyBackup';
import { readBackup } from './readBackup';

const DAY_MS = 86_400_000;
const day = (n: number) => new Date(Date.parse('2026-11-02T09:00:00Z') + n * DAY_MS);

test('of a year of days the newest seven stay, and the newest of each of four weeks', () => {
  let kept: string[] = [];
  for (let n = 0; n < 365; n++) {
    kept = [...kept, dailyName(day(n))];
    const out = outdated(kept);
    kept = kept.filter((name) => !out.includes(name));
  }
  // the last day was a Monday: with its week, the Sundays of the three before it, and the days before it
  const sundays = [363, 356, 349].map((n) => dailyName(day(n)));
  const last = Array.from({ length: 7 }, (_, k) => dailyName(day(364 - k)));
  expect(new Date(day(364)).getUTCDay()).toBe(1);
  expect(new Set(kept)).toEqual(new Set([...last, ...sundays]));
});

test('a day is backed up once, whole; others are let go of, and nothing else that lies there', async () => {
  const folder = temporaryFolder();
  await (await openDatabase(folder)).close();
  const backups = join(folder, 'backups');
  expect(await backUpDay(folder, backups, day(0))).toBe('zugluft-2026-11-02.tar');
  expect(await backUpDay(folder, backups, day(0))).toBeNull();
  writeFileSync(join(backups, '.zugluft-2026-11-01.tar.draft'), 'cut off');
  for (const name of ['my own.tar', 'zugluft-1999-01-01.tar.old', 'zugluft-2026-13-77.tar']) {
    writeFileSync(join(backups, name), 'mine');
  }
  for (let n = 1; n < 20; n++) await backUpDay(folder, backups, day(n));
  const there = readdirSync(backups);
  expect(there.filter((n) => n.endsWith('.draft'))).toEqual([]);
  expect(there).toEqual(
    expect.arrayContaining(['my own.tar', 'zugluft-1999-01-01.tar.old', 'zugluft-2026-13-77.tar']),
  );
  // seven days to the 21st, and the Sundays of the 8th and 15th, of which the 15th is one of the seven
  expect(there.filter((n) => n.startsWith('zugluft-2026-11')).sort()).toEqual(
    ['08', '15', '16', '17', '18', '19', '20', '21'].map((d) => `zugluft-2026-11-${d}.tar`),
  );
  expect((await keptBackups(backups))[0]).toMatchObject({ name: 'zugluft-2026-11-21.tar' });
  await readBackup(join(backups, 'zugluft-2026-11-21.tar'), null);
});
