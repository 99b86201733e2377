import { skinSpotConductance } from '../conduction/skinSpot';
import { settleAt } from '../envelope/pointReadout';
import { nodeC } from '../network/steadyState';
import { openCase } from './openCase';
import { estimate } from './estimate';
import { readPoint } from './readPoint';
import type { CaseRecord } from '../record/recordSchema';
import { parseRecord } from '../record/parseRecord';
import { completeRecord, exampleRecord } from '../test-support/exampleRecord';

const two = exampleRecord('two-fan-shared-pipes');
const full = (change: (r: CaseRecord) => void) => {
  const record = structuredClone(two);
  change(record);
  return estimate(openCase({ record: completeRecord(record) }), { caps: ['full'] }).caps[0]!;
};
const now = full(() => {}).together.watts;

test('of two loaded pipes on one stack the one that the air meets first runs cooler', () => {
  const cpuC = (order: string[]) => {
    const r = structuredClone(two);
    const pipe = (id: string, from: string, to: string) => ({
      id,
      diameterMm: 8,
      flattenedMm: 3,
      lengthMm: 180,
      along: [{ part: from }, { part: to }],
    });
    r.heatPipes = [
      pipe('pipe-a', 'fins-left', 'plate-cpu'),
      pipe('pipe-b', 'plate-gpu', 'fins-left'),
      pipe('pipe-c', 'plate-gpu', 'fins-right'),
    ];
    r.finStacks![0]!.pipesFromFan = order;
    return readPoint(openCase({ record: completeRecord(r) }), 'full', 30, 70).junctions[0]!
      .temperatureC;
  };
  expect(cpuC(['pipe-a', 'pipe-b'])).toBeLessThan(cpuC(['pipe-b', 'pipe-a']) - 0.3);
});

test('two dies on one plate: the place of a die counts', () => {
  const plate = (cpuX: number) =>
    full((r) => {
      r.plates = [
        {
          id: 'plate',
          kind: 'copper-plate',
          dies: ['cpu', 'gpu'],
          widthMm: 120,
          lengthMm: 45,
          thicknessMm: 1.5,
          places: [
            { die: 'cpu', xMm: cpuX, yMm: 22 },
            { die: 'gpu', xMm: 85, yMm: 22 },
          ],
        },
      ];
      r.heatPipes![0]!.along = [{ part: 'fins-left' }, { part: 'plate' }, { part: 'fins-right' }];
    });
  const apart = plate(35);
  expect(apart.together.watts).toBeGreaterThan(20);
  expect(apart.cpuAlone!.watts).toBeGreaterThan(plate(8).cpuAlone!.watts);
});

test('pads: storage to the base cover warms the skin, a pad from a plate cools the plate', () => {
  const off = (r: CaseRecord) => {
    r.shell!.skinLimitC = 90;
  };
  const passive = (change: (r: CaseRecord) => void) => {
    const record = structuredClone(two);
    off(record);
    change(record);
    return estimate(openCase({ record: completeRecord(record) }), { caps: ['off'] }).caps[0]!
      .together.watts;
  };
  const plain = passive(() => {});
  expect(
    passive((r) => (r.pads = [{ id: 'p', from: 'plate-gpu', to: 'base-cover', thicknessMm: 1 }])),
  ).toBeGreaterThan(plain * 1.05);
  // heat that left by the air now enters the shell
  const fanned = (pads: CaseRecord['pads']) => full((r) => (r.pads = pads)).together.watts;
  expect(fanned([{ id: 'p', from: 'storage', to: 'plate-gpu', sourceW: 6 }])).toBeLessThan(now);
});

test('a pad from a plate to the base cover heats its own spot of the skin, hotter than that over the plate', () => {
  const pads = [
    {
      id: 'pad-gpu',
      from: 'plate-gpu',
      to: 'base-cover',
      thicknessMm: 1,
      widthMm: 20,
      lengthMm: 20,
    },
  ];
  const open = openCase({ record: { ...two, pads } });
  const [cap] = estimate(open, { caps: ['full'] }).caps;
  expect(cap!.together.binding).toEqual({ limit: 'skin', part: 'pad-gpu' });
  const read = readPoint(open, 'full', cap!.together.cpuWatts, cap!.together.gpuWatts);
  const at = (id: string) => read.skin.find((s) => s.id === id)!;
  expect(at('pad-gpu').temperatureC).toBeCloseTo(at('pad-gpu').limitC, 2);
  expect(at('plate-gpu').temperatureC).toBeLessThan(at('pad-gpu').limitC - 5);
  // what comes through the pad leaves into the sheet around a disc of its size (Incropera et al., ch. 3)
  const { model } = open;
  const state = settleAt(
    model,
    read.fans.map((f) => f.rpm),
    read.cpuWatts,
    read.gpuWatts,
  );
  const nodeAt = (node: number) => nodeC(model, state, node, read.cpuWatts, read.gpuWatts);
  const spot = nodeAt(model.skinNode[model.skinPart.indexOf('pad-gpu')]!);
  const [pad] = model.data.pads;
  const { sheetConductivityWmK, sheetThicknessM, spotCoefficientWm2K } = model.data.shell;
  const inW = pad!.conductanceWPerK * (nodeAt(model.plateNode[pad!.fromPlate]!) - spot);
  const outW =
    skinSpotConductance(4e-4, sheetConductivityWmK, sheetThicknessM, spotCoefficientWm2K) *
    (spot - nodeAt(model.shellNode));
  expect(inW / outW).toBeCloseTo(1, 3);
  // a bigger pad leads more and spreads it over more of the cover
  const wide = readPoint(
    openCase({ record: { ...two, pads: [{ ...pads[0]!, widthMm: 40, lengthMm: 40 }] } }),
    'full',
    30,
    50,
  );
  const small = readPoint(open, 'full', 30, 50);
  expect(wide.junctions[1]!.temperatureC).toBeLessThan(small.junctions[1]!.temperatureC);
});

test('where a pipe holds it and slower fans carry as much, the cap says which speeds and that louder is no gain', () => {
  const overrides = new Map([['heatPipes.limitFactor.sintered', 0.8]]);
  const e = estimate(openCase({ record: exampleRecord('one-die'), overrides }));
  const full = e.caps[e.caps.length - 1]!;
  const rpm = full.together.fans[0]!.rpm;
  expect(full.note).toBe(`louder is no gain: fan at ${rpm.toFixed(0)} rpm`);
  expect(rpm).toBeLessThan(5600 * 0.99);
  expect(estimate(openCase({ record: two })).caps.map((c) => c.note)).not.toContainEqual(
    expect.stringContaining('no gain'),
  );
});

test('lint on a stack’s entrance costs less than blocked passages of that share, and something', () => {
  const lint = full((r) => (r.finStacks![0]!.lintShare = 0.5)).together.watts;
  const blocked = full((r) => (r.finStacks![0]!.blockedShare = 0.5)).together.watts;
  expect(lint).toBeLessThan(now);
  expect(lint).toBeGreaterThan(blocked);
});

test('bends and tilt take from a pipe that is near its limit', () => {
  const thin = (more: object) =>
    full((r) => {
      r.heatPipes![0] = {
        ...r.heatPipes![0]!,
        count: 1,
        diameterMm: 5,
        flattenedMm: 1.2,
        bends: 0,
        ...more,
      };
    });
  const straight = thin({});
  expect(straight.together.binding.limit).toBe('pipe');
  expect(thin({ bends: 4 }).together.watts).toBeLessThan(straight.together.watts);
  expect(thin({ tiltDeg: 20 }).together.watts).toBeLessThan(straight.together.watts);
  expect(thin({ wick: 'mesh' }).together.watts).not.toBe(straight.together.watts);
});

test('a dry pipe beside others says that they would take over', () => {
  // two pipes that carry a tenth of what their kind does
  const overrides = new Map([['heatPipes.limitFactor.sintered', 0.1]]);
  const e = estimate(openCase({ record: two, overrides }), { caps: ['full'] });
  expect(e.caps[0]!.together.binding).toMatchObject({ limit: 'pipe', part: 'pipe' });
  expect(e.notes).toEqual([
    { path: 'heatPipes.pipe', message: expect.stringContaining('first dry-out') },
  ]);
});

test('a pipe whose vapor flows faster than laminar says so', () => {
  const record = structuredClone(two);
  record.heatPipes![0] = { ...record.heatPipes![0]!, count: 1, diameterMm: 3, flattenedMm: 3 };
  record.dies![0]!.maxJunctionC = 130;
  record.dies![1]!.maxJunctionC = 130;
  record.shell!.skinLimitC = 90;
  record.shell!.exhaustLimitC = 120;
  // no real pipe of that size carries so much: its limits are lifted here
  const overrides = new Map([['heatPipes.limitFactor.sintered', 1000]]);
  const { notes } = estimate(openCase({ record: completeRecord(record), overrides }), {
    caps: ['full'],
  });
  expect(notes.map((n) => n.message)).toContainEqual(expect.stringContaining('laminar'));
  expect(estimate(openCase({ record: two }), { caps: ['full'] }).notes).toEqual([]);
});

test('two fans into one stack and one fan into two stacks both work; a stopped fan lets air back', () => {
  const both = full((r) => {
    r.finStacks![0]!.fans = ['fan-left', 'fan-right'];
    r.finStacks![1]!.fans = ['fan-left', 'fan-right'];
  });
  expect(both.together.watts).toBeGreaterThan(0.8 * now);
  const one = full((r) => {
    r.fans = [r.fans![0]!];
    for (const s of r.finStacks!) s.fans = ['fan-left'];
    r.vents = r.vents!.filter((x) => !x.fans?.includes('fan-right'));
  });
  expect(one.together.watts).toBeLessThan(now);
});

test.each<[string, (r: CaseRecord) => void, string, RegExp]>([
  [
    'a place of a foreign die',
    (r) => (r.plates![0]!.places = [{ die: 'gpu', xMm: 1, yMm: 1 }]),
    'plates.0.places.0.die',
    /does not lie under/,
  ],
  [
    'an unknown pipe in the air’s order',
    (r) => (r.finStacks![0]!.pipesFromFan = ['ghost']),
    'finStacks.0.pipesFromFan.0',
    /no heat pipe called/,
  ],
  [
    'a pad to nowhere',
    (r) => (r.pads = [{ id: 'p', from: 'storage', to: 'moon' }]),
    'pads.0.to',
    /neither a plate/,
  ],
  [
    'a pad in a circle',
    (r) => (r.pads = [{ id: 'p', from: 'plate-cpu', to: 'plate-cpu' }]),
    'pads.0.to',
    /leads back/,
  ],
])('%s is refused with its path', (_, change, path, message) => {
  const record = structuredClone(two);
  change(record);
  const { issues, keepable } = parseRecord(record);
  expect(keepable).toBe(false);
  expect(issues[0]!.path).toBe(path);
  expect(issues[0]!.message).toMatch(message);
});

test('a pad that is missing leads no heat, whatever is recorded of it', () => {
  const record = structuredClone(exampleRecord('two-fan-shared-pipes'));
  const watts = (pads: CaseRecord['pads']) =>
    estimate(openCase({ record: { ...record, pads } }), { caps: ['full'], envelopes: false })
      .caps[0]!.together.watts;
  const pad = {
    id: 'pad',
    from: 'plate-gpu',
    to: 'base-cover',
    thicknessMm: 1,
    widthMm: 40,
    lengthMm: 40,
  };
  const none = watts([]);
  expect(watts([{ ...pad, state: 'moist' }])).not.toBeCloseTo(none, 2);
  expect(watts([{ ...pad, state: 'missing' }])).toBe(none);
  expect(watts([{ ...pad, state: 'Missing on arrival' }])).toBe(none);
});
