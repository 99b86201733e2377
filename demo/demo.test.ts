import { openCase } from '@zugluft/core/case/openCase';
import { estimate } from '@zugluft/core/case/estimate';
import { parseRecord } from '@zugluft/core/record/parseRecord';
import type { CaseRecord } from '@zugluft/core/record/recordSchema';
import { testLibrary } from '@zugluft/server/test-support/testServer';
import { leastSteps, wayFaults } from '@zugluft/core/service/leastSteps';
import { screwBalance } from '@zugluft/core/service/screwBalance';
import { screwWarnings } from '@zugluft/core/service/screwWarnings';
import { demoLog } from './logs';
import { DEMO_MACHINES } from './machines';
import { seedDemo } from './seed';

const named = (code: string, variant = ''): CaseRecord =>
  DEMO_MACHINES.find(
    (m) => m.identity?.modelCode === code && m.identity.variant?.includes(variant),
  )!;
const together = (record: CaseRecord, cap: number) =>
  estimate(openCase({ record }), { caps: [cap] }).caps[0]!.together.watts;

test('at least eight variants, each complete', () => {
  expect(DEMO_MACHINES.length).toBeGreaterThanOrEqual(8);
  for (const record of DEMO_MACHINES) {
    expect({ of: record.identity?.variant, issues: parseRecord(record).issues }).toEqual({
      of: record.identity?.variant,
      issues: [],
    });
  }
});

test('each tells its story', () => {
  const studio = named('BH16-S2', '90 W');
  expect(together(named('BH16-S4'), 40)).toBeGreaterThan(together(studio, 40));
  expect(together(named('TL15-Q'), 32)).toBeGreaterThan(1.2 * together(studio, 32));
  expect(together(named('VQ14-A'), 36)).toBeLessThan(35);

  const blocked = named('OD15-B');
  const opened = structuredClone(blocked);
  opened.vents!.forEach((v) => (v.blockedShare = 0));
  expect(together(opened, 36)).toBeGreaterThan(1.02 * together(blocked, 36));

  const old = named('TL14-E');
  const renewed = structuredClone(old);
  renewed.dies!.forEach((d) => (d.interface!.ageYears = 0));
  expect(together(renewed, 40)).toBeGreaterThan(1.02 * together(old, 40));

  const drops = estimate(openCase({ record: named('BH16-S2', 'first firmware') }), { caps: [45] })
    .caps[0]!;
  expect(drops.configured.cpuAlone!.watts).toBeCloseTo(30, 6);
});

test('every opening is closed again with all its screws, and fans and paste have a way', () => {
  for (const record of DEMO_MACHINES) {
    const log = demoLog(record);
    expect(screwBalance(log).even).toBe(true);
    expect(screwWarnings(log)).toEqual([]);
    expect(wayFaults(log.steps)).toEqual([]);
    expect(leastSteps(log.steps, 'clean-fans')!.steps).toEqual([
      'safe',
      'cover',
      'battery',
      'lint',
    ]);
    expect(leastSteps(log.steps, 'renew-interface')!.proven).toBe(true);
  }
});

test('seeding fills an empty library once', async () => {
  const library = await testLibrary();
  const { db } = library;
  expect(await seedDemo(library)).toBe(DEMO_MACHINES.length);
  expect(await seedDemo(library)).toBe(0);
  expect(await db.models.Machine.count()).toBe(DEMO_MACHINES.length);
  // an underside with its number covered, and what lies under it
  expect(await db.models.Attachment.count()).toBeGreaterThanOrEqual(2 * DEMO_MACHINES.length);
  expect(await db.models.Attachment.count({ where: { covers: '[]', name: 'underside.jpg' } })).toBe(
    0,
  );
  await library.close();
});
