import { normalQuantile } from '../uncertainty/normal';
import { openCase } from '../case/openCase';
import { sustainedTogether } from '../case/sustainedTogether';
import { estimate } from '../case/estimate';
import { openUpLog } from '../service/openUpLog';
import { completeRecord, exampleRecord } from '../test-support/exampleRecord';
import { maxByLinearProgram } from '../test-support/maxByLinearProgram';
import { COLUMNS } from '../uncertainty/draws';
import type { CaseRecord } from '../record/recordSchema';
import { effortOf } from './effortOf';
import { drawChanged, drawMachine, gainsBetween, type GainOptions } from './leverGains';
import type { Change } from './lever';
import { leversOf } from './leversOf';
import { planDocument } from './planDocument';
import { splitWatts } from './splitWatts';

jest.setTimeout(240_000);
const record = completeRecord(exampleRecord('two-fan-shared-pipes'));
const OPTIONS: GainOptions = { caps: [36], draws: 60, seed: 3 };
const gains = (change: Change[], r: CaseRecord = record, options = OPTIONS) => {
  const before = drawMachine({ record: r }, options);
  return gainsBetween(before, drawChanged(before, change, options), 'cooling', options)[0]!;
};
const COOLER: Change[] = [{ path: 'room.temperatureC', to: 18 }];
const RENEW: Change[] = [
  { path: 'dies.cpu.interface.ageYears', to: 0 },
  { path: 'dies.gpu.interface.ageYears', to: 0 },
];

test('differences over common draws are those of each row estimated anew with just its figures', () => {
  const before = drawMachine({ record }, OPTIONS);
  const after = drawChanged(before, COOLER, OPTIONS);
  const { plan } = before;
  const at = plan.caps.indexOf(36);
  for (const row of [0, 7, 31, 59]) {
    const values = new Map(
      plan.columns.flatMap((c, k) =>
        c.inputs.map(
          (i) => [i.path, i.valueAt(normalQuantile(plan.u[k * plan.draws + row]!))] as const,
        ),
      ),
    );
    const alone = (roomC: number | null) =>
      sustainedTogether(
        openCase({
          record:
            roomC === null ? record : { ...record, room: { ...record.room, temperatureC: roomC } },
          ratio: { ...before.open.ratio },
          // the room is set by the lever: what it was drawn at belongs to the machine before
          overrides: new Map(
            [...values].filter(([p]) => roomC === null || p !== 'room.temperatureC'),
          ),
        }),
        [36],
      )[0]!;
    const drawn = (m: typeof before) =>
      m.drawn.watts[(row * m.plan.caps.length + at) * COLUMNS + 2]!;
    const roomOf = after.plan.columns.findIndex((c) => c.name === 'room.temperatureC');
    const room =
      roomOf < 0
        ? 18
        : after.plan.columns[roomOf]!.inputs[0]!.valueAt(
            normalQuantile(after.plan.u[roomOf * plan.draws + row]!),
          );
    expect(Math.abs(drawn(before) / alone(null) - 1)).toBeLessThan(0.01);
    expect(Math.abs(drawn(after) / alone(room) - 1)).toBeLessThan(0.01);
  }
});

test('a lever and its undoing cancel, row by row', () => {
  const there = gains(COOLER);
  const cool = { ...record, room: { ...record.room, temperatureC: 18 } } as CaseRecord;
  const back = gains([{ path: 'room.temperatureC', to: record.room!.temperatureC }], cool);
  expect(there.wattsGained.p50).toBeGreaterThan(1);
  expect(back.wattsGained.p50).toBeCloseTo(-there.wattsGained.p50, 6);
  expect(back.wattsGained.p05).toBeCloseTo(-there.wattsGained.p95, 6);
  expect(back.wattsGained.central).toBeCloseTo(-there.wattsGained.central, 6);
});

test('a figure that is not there, or one that is added, shifts no other: no change is no gain', () => {
  const none = gains([{ path: 'shell.massKg', to: 3 }]);
  for (const gain of [none.wattsGained, none.dbSaved, none.kelvinSaved]) {
    expect([gain.p05, gain.p50, gain.p95]).toEqual([0, 0, 0]);
  }
  expect(none).toMatchObject({ chanceNoticeable: 0, tooSmallToFeel: true });
});

test('a cooler room gains watts, decibels and kelvins, and is felt', () => {
  const { wattsGained, dbSaved, kelvinSaved, chanceNoticeable, tooSmallToFeel } = gains(COOLER);
  expect(wattsGained.p05).toBeGreaterThan(0);
  expect(dbSaved.p50).toBeGreaterThan(1);
  // at equal watts and air five kelvins less outside are about five less inside
  expect(Math.abs(kelvinSaved.p50 - 5)).toBeLessThan(0.5);
  expect(chanceNoticeable).toBeGreaterThan(0.9);
  expect(tooSmallToFeel).toBe(false);
});

test('more conductance never loses watts of a machine; levers pulled together do not depend on their order', () => {
  const better: Change[] = [
    { path: 'dies.cpu.interface.conductivityWmK', to: 12 },
    { path: 'dies.gpu.interface.conductivityWmK', to: 12 },
  ];
  const base = {
    ...record,
    dies: record.dies!.map((d) => ({ ...d, interface: { ...d.interface, conductivityWmK: 5 } })),
  } as CaseRecord;
  expect(gains(better, base).wattsGained.p05).toBeGreaterThan(-0.05);
  const one = gains([...COOLER, ...RENEW]);
  const other = gains([...RENEW, ...COOLER]);
  expect(other).toEqual(one);
});

test('the level saved, re-inserted, carries the watts of before to within 0.05 dB, at the quietest cap too', () => {
  for (const [seed, cap] of [
    [1, 28],
    [5, 32],
    [3, 34],
    [4, 38],
  ] as const) {
    const options = { caps: [cap], draws: 1, seed };
    const before = drawMachine({ record }, options);
    const after = drawChanged(before, COOLER, options);
    const { dbSaved } = gainsBetween(before, after, 'cooling', options)[0]!;
    expect(dbSaved.p50).toBeGreaterThan(0.3);
    const wattsOf = (m: typeof before, level: number) =>
      m.drawn.watts[m.plan.caps.indexOf(level) * COLUMNS + 2]!;
    const at = (level: number) =>
      wattsOf(drawChanged(before, COOLER, { ...options, caps: [level] }), level);
    const quieter = cap - dbSaved.p50;
    const perDb = (at(quieter + 0.5) - at(quieter - 0.5)) / 1;
    expect(Math.abs(at(quieter) - wattsOf(before, cap)) / perDb).toBeLessThan(0.05);
  }
});

// common practice, no source: premium paste does nothing on a small heat sink and something under a strong die
test('premium paste is not felt on a small heat sink, and is where the die is strong for its sink', () => {
  const premium = (r: CaseRecord) => leversOf(r).find((l) => l.id === 'premium-interface')!.change;
  const one = completeRecord(exampleRecord('one-die'));
  const small = {
    ...one,
    dies: one.dies!.map((d) => ({
      ...d,
      interface: { kind: 'paste', conductivityWmK: 8, bondLineUm: 30, ageYears: 0 },
    })),
  } as CaseRecord;
  const weak = gains(premium(small), small);
  expect(weak.wattsGained.p95).toBeLessThan(1);
  expect(weak.tooSmallToFeel).toBe(true);
  const old = {
    ...record,
    dies: record.dies!.map((d) => ({
      ...d,
      interface: { ...d.interface, conductivityWmK: 2, bondLineUm: 80, ageYears: 6 },
    })),
  } as CaseRecord;
  const strong = gains(premium(old), old);
  expect(strong.wattsGained.p50).toBeGreaterThan(5 * Math.max(0.2, weak.wattsGained.p50));
  expect(strong.tooSmallToFeel).toBe(false);
});

test('what may also lose watts is too small to feel, however often it is noticed', () => {
  const fins = leversOf(record).find((l) => l.id === 'fins')!.change;
  const told = gains(fins, record, { ...OPTIONS, caps: [40], draws: 200 });
  expect(told.wattsGained.p05).toBeLessThan(0);
  expect(told.chanceNoticeable).toBeGreaterThan(0.5);
  expect(told.tooSmallToFeel).toBe(true);
});

describe('what there is to pull', () => {
  const ids = (r: CaseRecord, setting?: string) => leversOf(r, setting).map((l) => l.id);
  const of = (r: CaseRecord, id: string) => leversOf(r).find((l) => l.id === id)!;

  test('each machine has those that fit it', () => {
    expect(ids(record)).toEqual(
      expect.arrayContaining([
        'renew-interface',
        'premium-interface',
        'liquid-metal',
        'new-pads',
        'clean',
        'raise-rear',
        'raise-all',
        'lid',
        'ground',
        'cooler-room',
        'fan.fan-left',
        'pipes',
        'fins',
        'chamber',
        'separate-loops',
        'limits',
      ]),
    );
    const one = completeRecord(exampleRecord('one-die'));
    expect(ids(one, 'quiet')).toContain('setting.full');
    expect(ids(one, 'full')).toContain('setting.quiet');
  });

  test('what cannot be pulled says why and keeps its change', () => {
    const pipes = of(record, 'pipes');
    expect(pipes).toMatchObject({ possible: false, whyNot: expect.stringMatching(/soldered/) });
    expect(pipes.change).toEqual([{ path: 'heatPipes.pipe.count', to: 3 }]);
    const metal = {
      ...record,
      plates: record.plates!.map((p) => ({ ...p, kind: 'aluminium-plate' as const })),
    } as CaseRecord;
    expect(of(metal, 'liquid-metal')).toMatchObject({
      possible: false,
      whyNot: expect.stringMatching(/aluminium/),
      reversible: false,
    });
    expect(of(record, 'clean')).toMatchObject({ possible: false, change: [] });
    const dusty = {
      ...record,
      finStacks: record.finStacks!.map((s) => ({ ...s, lintShare: 0.3 })),
    } as CaseRecord;
    expect(of(dusty, 'clean').change).toEqual([
      { path: 'finStacks.fins-left.lintShare', to: 0 },
      { path: 'finStacks.fins-right.lintShare', to: 0 },
    ]);
    expect(
      of({ ...record, power: { ...record.power, adjustable: ['preset'] } } as CaseRecord, 'limits'),
    ).toMatchObject({
      possible: false,
      whyNot: expect.stringMatching(/power limits/),
    });
  });

  test('a strip whose purpose nobody knows stays; one that seals may be lifted or fitted', () => {
    const strips = [
      { id: 'a', state: 'present' as const },
      { id: 'b', state: 'present' as const, purpose: 'duct-seal' as const },
      { id: 'c', state: 'removed' as const, purpose: 'duct-seal' as const },
    ];
    const r = { ...record, strips } as CaseRecord;
    expect(of(r, 'remove-strip.a')).toMatchObject({ possible: false });
    expect(of(r, 'remove-strip.b')).toMatchObject({
      possible: true,
      change: [{ path: 'strips.b.state', to: 'removed' }],
    });
    expect(of(r, 'fit-strip.c').change).toEqual([{ path: 'strips.c.state', to: 'present' }]);
  });

  test('shared pipes become one loop for each die', () => {
    const { change } = of(record, 'separate-loops');
    expect(change.map((c) => c.path)).toEqual(['heatPipes.pipe', 'heatPipes.pipe-gpu']);
    const along = change.map((c) =>
      (c.to as { along: { part: string }[] }).along.map((a) => a.part),
    );
    expect(along[0]).toContain('plate-cpu');
    expect(along[0]).not.toContain('plate-gpu');
    expect(along[1]).not.toContain('plate-cpu');
  });
});

test('what pulling a lever takes comes from the log of an opening', () => {
  const log = openUpLog.parse({
    format: 'zugluft-openup',
    formatVersion: 1,
    steps: [
      { id: 'cover', name: 'Cover off', screws: ['a', 'b', 'c'], seconds: 120 },
      {
        id: 'sink',
        name: 'Sink off',
        screws: ['d'],
        needs: ['cover'],
        seconds: 180,
        reaches: ['renew-interface'],
      },
    ],
  });
  expect(effortOf({ goal: 'renew-interface' }, log)).toEqual({
    steps: 2,
    screws: 4,
    minutes: 10,
    cost: null,
  });
  expect(effortOf({ goal: null }, log)).toMatchObject({ steps: 0, screws: 0, minutes: 0 });
  expect(effortOf({ goal: 'renew-interface' }, null).steps).toBeNull();
  expect(effortOf({ goal: 'nowhere' }, log).steps).toBeNull();
});

describe('splitting the watts', () => {
  const { envelope } = estimate(openCase({ record }), { caps: [40] }).caps[0]!;

  test('weights: as good as a linear program over the outline’s own half-planes, and as a fine scan', () => {
    for (const weights of [
      { cpu: 1, gpu: 1 },
      { cpu: 3, gpu: 1 },
      { cpu: 1, gpu: 4 },
      { cpu: 0, gpu: 1 },
    ]) {
      const best = splitWatts(envelope, weights)!;
      let most = 0;
      for (let i = 0; i + 1 < envelope.length; i++) {
        for (let step = 0; step <= 100; step++) {
          const t = step / 100;
          const mix = (k: 'cpuWatts' | 'gpuWatts') =>
            (1 - t) * envelope[i]![k] + t * envelope[i + 1]![k];
          most = Math.max(most, weights.cpu * mix('cpuWatts') + weights.gpu * mix('gpuWatts'));
        }
      }
      expect(best.value).toBeCloseTo(most, 6);
      const planes = envelope.slice(0, -1).map((a, i) => {
        const b = envelope[i + 1]!;
        // outward of an edge that runs from the GPU axis to the CPU axis
        const [cpu, gpu] = [a.gpuWatts - b.gpuWatts, b.cpuWatts - a.cpuWatts];
        return { cpu, gpu, headroom: cpu * a.cpuWatts + gpu * a.gpuWatts };
      });
      const sum = weights.cpu + weights.gpu;
      const reference = sum * maxByLinearProgram(planes, weights.cpu / sum);
      expect(Math.abs(reference / best.value - 1)).toBeLessThan(0.01);
    }
  });

  test('at least so much CPU: the outline’s height there; more than it holds is no answer', () => {
    const half = splitWatts(envelope, { atLeastCpuW: 30 })!;
    expect(half.cpuWatts).toBeCloseTo(30, 9);
    expect(half.value).toBe(half.gpuWatts);
    expect(splitWatts(envelope, { atLeastCpuW: 0 })!.gpuWatts).toBeCloseTo(
      Math.max(...envelope.map((c) => c.gpuWatts)),
      6,
    );
    const most = Math.max(...envelope.map((c) => c.cpuWatts));
    expect(splitWatts(envelope, { atLeastCpuW: most + 1 })).toBeNull();
  });
});

test('the plan tells levers, those pulled together with the sum of the single ones, and stops when asked to', () => {
  const levers = leversOf(record).filter((l) =>
    ['renew-interface', 'cooler-room', 'lid'].includes(l.id),
  );
  const plan = planDocument(
    { record },
    { ...OPTIONS, levers, together: [['renew-interface', 'cooler-room']] },
  ) as {
    levers: { id: string; at: { wattsGained: { p50: number } }[]; hazard: string | null }[];
    combined: { ids: string[]; at: { wattsGained: { p50: number }; sumOfSingles: number }[] }[];
    quietestFor: null;
    split: null;
  };
  expect(plan.levers.map((l) => [l.id, l.at.length])).toEqual([
    ['renew-interface', 1],
    // nothing to open
    ['lid', 0],
    ['cooler-room', 1],
  ]);
  expect(plan.levers[0]!.hazard).toMatch(/alcohol/i);
  expect(plan.levers[2]!.hazard).toBeNull();
  const [both] = plan.combined;
  expect(both!.at[0]!.sumOfSingles).toBeCloseTo(
    plan.levers[0]!.at[0]!.wattsGained.p50 + plan.levers[2]!.at[0]!.wattsGained.p50,
    3,
  );
  expect(both!.at[0]!.wattsGained.p50).toBeGreaterThan(
    plan.levers[2]!.at[0]!.wattsGained.p50 - 0.1,
  );
  expect(plan).toMatchObject({ quietestFor: null, split: null });
  const stopped = planDocument({ record }, { ...OPTIONS, levers, progress: () => false }) as {
    levers: object[];
  };
  expect(stopped.levers).toHaveLength(1);
});

test('the quietest level for some watts, put in again as a cap, gives the watts back', () => {
  const asked = { record };
  const plan = planDocument(asked, {
    ...OPTIONS,
    draws: 120,
    levers: [],
    need: { cpuW: 25, gpuW: 35 },
  }) as { quietestFor: { levelDbA: { p50: number }; reachable: boolean } };
  expect(plan.quietestFor.reachable).toBe(true);
  const { p50 } = plan.quietestFor.levelDbA;
  const at = drawMachine(
    { record, ratio: { cpu: 25, gpu: 35 } },
    { caps: [p50], draws: 120, seed: 3 },
  );
  const place = at.plan.caps.indexOf(p50);
  const watts = Array.from(
    { length: 120 },
    (_, row) => at.drawn.watts[(row * at.plan.caps.length + place) * COLUMNS + 2]!,
  ).sort((a, b) => a - b);
  // half of the draws hold 60 W there
  expect(Math.abs(watts[60]! - 60)).toBeLessThan(3);
  const never = planDocument(asked, { ...OPTIONS, levers: [], need: { cpuW: 200, gpuW: 200 } }) as {
    quietestFor: { levelDbA: null; reachable: boolean; most: { p50: number } };
  };
  expect(never.quietestFor).toMatchObject({ levelDbA: null, reachable: false });
  expect(never.quietestFor.most.p50).toBeLessThan(200);
});
