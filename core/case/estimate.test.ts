import { openCase } from './openCase';
import fc from 'fast-check';
import { carryOnRay, createMemory } from '../envelope/carry';
import type { EnvelopeCorner } from '../envelope/envelope';
import { stateForCap } from '../envelope/fanStates';
import { settleAt } from '../envelope/pointReadout';
import { estimate } from './estimate';
import type { Estimate } from './answer';
import { buildModel } from '../network/machineModel';
import { junctionC, nodeC } from '../network/steadyState';
import { water } from '../fluids/water';
import { chamberCapillaryW } from '../pipes/chamberLimit';
import { darcyFall, darcyPressures } from '../test-support/darcyReference';
import { resolveCase } from '../record/resolveCase';
import type { CaseRecord } from '../record/recordSchema';
import { completeRecord, exampleRecord, twoLoopRecord } from '../test-support/exampleRecord';
import { randomRecord } from '../test-support/randomRecord';
import { mirrored, rolesSwapped } from '../test-support/transforms';

const two = exampleRecord('two-fan-shared-pipes');
const RUNS = { numRuns: 15, seed: 5, endOnFailure: true };
const CAPS = ['off', 28, 33, 38, 'full'] as const;

const close = (a: number, b: number, share = 1e-4) =>
  expect(Math.abs(a - b)).toBeLessThanOrEqual(share * Math.max(1, Math.abs(a), Math.abs(b)));

/** Watts along a direction up to the envelope's outline. */
function capillaryAlong(envelope: readonly EnvelopeCorner[], angle: number): number {
  const dx = Math.cos(angle);
  const dy = Math.sin(angle);
  let best = Infinity;
  for (let i = 0; i + 1 < envelope.length; i++) {
    const a = envelope[i]!;
    const b = envelope[i + 1]!;
    const ex = b.cpuWatts - a.cpuWatts;
    const ey = b.gpuWatts - a.gpuWatts;
    const det = dx * -ey + dy * ex;
    if (Math.abs(det) < 1e-12) continue;
    const t = (a.cpuWatts * -ey + a.gpuWatts * ex) / det;
    const s = (dx * a.gpuWatts - dy * a.cpuWatts) / det;
    if (s >= -1e-9 && s <= 1 + 1e-9 && t >= 0) best = Math.min(best, t);
  }
  return best;
}

test('the full-load fact of the trade (common practice, no source): a 16-inch machine with two fans and two large shared pipes holds 45 W + 60 W at 45 to 46 dB(A)', () => {
  const record = structuredClone(two);
  record.settings = [{ id: 'fact', cpuSustainedW: 45, gpuSustainedW: 60 }];
  const [full] = estimate(openCase({ record }), { caps: ['full'] }).caps;
  expect(full!.levelDbA).toBeGreaterThan(43);
  expect(full!.levelDbA).toBeLessThan(47);
  expect(full!.together.watts).toBeGreaterThanOrEqual(95);
  expect(full!.together.watts).toBeLessThanOrEqual(160);
  // each stack moves about 1.7 L/s (physics of that machine, common practice)
  for (const fan of full!.together.fans) {
    expect(fan.flowLps).toBeGreaterThan(1.4);
    expect(fan.flowLps).toBeLessThan(2);
  }
});

test('the answer is whole: caps in order, axes and corners agree, bands empty without draws', () => {
  const e = estimate(openCase({ record: two }));
  expect(e.caps.map((c) => c.cap)).toEqual(['off', 28, 32, 36, 40, 45, 'full']);
  for (const c of e.caps) {
    const first = c.envelope[0]!;
    const last = c.envelope[c.envelope.length - 1]!;
    expect(first.gpuWatts).toBe(c.gpuAlone!.watts);
    expect(first.cpuWatts).toBe(0);
    expect(last.cpuWatts).toBe(c.cpuAlone!.watts);
    expect(last.gpuWatts).toBe(0);
    expect(last.edge).toBeNull();
    for (const corner of c.envelope.slice(0, -1)) expect(corner.edge).not.toBeNull();
    expect(c.together.cpuWatts + c.together.gpuWatts).toBeCloseTo(c.together.watts, 9);
    expect(c.together.cpuWatts / c.together.gpuWatts).toBeCloseTo(54 / 90, 6);
    expect(c.cpuAlone!.p05).toBeNull();
    if (typeof c.cap === 'number') expect(c.levelDbA).toBeLessThanOrEqual(c.cap + 1e-9);
  }
  expect(e.sensitivity).toEqual([]);
  expect(e.assumed.find((a) => a.path === 'dies.gpu.interface.conductivityWmK')).toEqual({
    path: 'dies.gpu.interface.conductivityWmK',
    value: 5,
    low: 2,
    high: 9,
  });
});

test('a corner’s edge has only the named limit at its limit, at converged properties', () => {
  const model = buildModel(resolveCase(two));
  const { state } = stateForCap(model.data, 36);
  const memory = createMemory(model);
  const { point } = carryOnRay(model, state, { cpu: 0.2, gpu: 0.8 }, null, memory);
  expect(point.binding).toEqual({ limit: 'junction', part: 'gpu' });
  const at = settleAt(model, state.rpms, point.cpuW, point.gpuW);
  expect(junctionC(model, at, 1, point.cpuW, point.gpuW)).toBeCloseTo(87, 3);
  expect(junctionC(model, at, 0, point.cpuW, point.gpuW)).toBeLessThan(97);
});

test('law: carry never falls with the cap, and a lower cap’s envelope lies inside a higher one’s', () => {
  fc.assert(
    fc.property(randomRecord, (record) => {
      const e = estimate(openCase({ record }), { caps: CAPS });
      for (let i = 1; i < e.caps.length; i++) {
        const quiet = e.caps[i - 1]!;
        const loud = e.caps[i]!;
        for (const key of ['cpuAlone', 'gpuAlone', 'together'] as const) {
          expect(loud[key]!.watts).toBeGreaterThanOrEqual(quiet[key]!.watts * (1 - 1e-4));
        }
        for (let angle = 0.05; angle < 1.55; angle += 0.15) {
          const a = capillaryAlong(quiet.envelope, angle);
          const b = capillaryAlong(loud.envelope, angle);
          // each outline is followed to half a per cent
          expect(b).toBeGreaterThanOrEqual(a * (1 - 0.01));
        }
      }
    }),
    RUNS,
  );
});

test('law: on a junction edge raising GPU watts never raises CPU watts', () => {
  fc.assert(
    fc.property(randomRecord, (record) => {
      for (const c of estimate(openCase({ record }), { caps: [36] }).caps) {
        for (let i = 0; i + 1 < c.envelope.length; i++) {
          const a = c.envelope[i]!;
          const b = c.envelope[i + 1]!;
          if (a.edge?.limit !== 'junction') continue;
          // corners are solved each at its own temperatures; where a pipe binds too, each carries the best of the few fan states that
          // the cap's readouts chose, which leaves as much open as an edge does
          expect(b.cpuWatts).toBeGreaterThanOrEqual(a.cpuWatts * (1 - 3e-3) - 1e-6);
          expect(b.gpuWatts).toBeLessThanOrEqual(a.gpuWatts * (1 + 3e-3) + 1e-6);
        }
      }
    }),
    RUNS,
  );
});

test('law: configured never exceeds what the cooling can carry, nor firmware and adapter', () => {
  const record = structuredClone(two);
  record.power!.adapterW = 130;
  record.settings = [
    { id: 's', cpuSustainedW: 54, gpuSustainedW: 80, later: { afterS: 360, cpuSustainedW: 35 } },
  ];
  for (const c of estimate(openCase({ record })).caps) {
    expect(c.configured.cpuAlone!.watts).toBeLessThanOrEqual(35 + 1e-9);
    expect(c.configured.gpuAlone!.watts).toBeLessThanOrEqual(80 + 1e-9);
    expect(c.configured.together.watts).toBeLessThanOrEqual(c.together.watts * (1 + 1e-4));
    expect(c.configured.together.watts).toBeLessThanOrEqual(130 - 22);
  }
  const full = estimate(openCase({ record }), { caps: ['full'] }).caps[0]!;
  const edges = full.configured.envelope.map((x) => x.edge?.limit);
  expect(edges).toContain('firmware');
  expect(edges).toContain('adapter');
  expect(full.envelope.map((x) => x.edge?.limit)).not.toContain('firmware');
});

test('law: a record and its mirror give the same answer', () => {
  fc.assert(
    fc.property(randomRecord, (record) => {
      const a = estimate(openCase({ record }), { caps: [33] }).caps[0]!;
      const b = estimate(openCase({ record: mirrored(record) }), { caps: [33] }).caps[0]!;
      for (const key of ['cpuAlone', 'gpuAlone', 'together'] as const)
        close(a[key]!.watts, b[key]!.watts);
    }),
    RUNS,
  );
  const a = estimate(openCase({ record: two }), { caps: [36] }).caps[0]!;
  const b = estimate(openCase({ record: mirrored(two) }), { caps: [36] }).caps[0]!;
  close(a.together.watts, b.together.watts);
});

test('law: exchanging every figure keyed by role swaps the answer', () => {
  const record = structuredClone(two);
  const a = estimate(openCase({ record }), { caps: [36] }).caps[0]!;
  const b = estimate(openCase({ record: rolesSwapped(record) }), { caps: [36] }).caps[0]!;
  close(a.cpuAlone!.watts, b.gpuAlone!.watts);
  close(a.gpuAlone!.watts, b.cpuAlone!.watts);
  close(a.together.cpuWatts, b.together.gpuWatts);
});

test('law: separate loops without shared shell, intake or recirculation are independent', () => {
  const record = twoLoopRecord();
  // nothing may pass through the shell, and no warm air may come back
  const overrides = new Map<string, number>([
    ['fans.recirculation', 0],
    ['shell.boardWK', 1e-12],
    ['shell.insideAirWm2K', 0],
    ['shell.plateGapMm', 1e9],
    ['dies.shareOutside', 0],
  ]);
  const model = buildModel(resolveCase(completeRecord(record), overrides));
  const { state } = stateForCap(model.data, 36);
  const memory = createMemory(model);
  const alone = carryOnRay(model, state, { cpu: 1, gpu: 0 }, null, memory).point;
  expect(alone.binding).toEqual({ limit: 'junction', part: 'cpu' });
  expect(Math.abs(alone.plane.gpu / alone.plane.cpu)).toBeLessThan(1e-7);
});

test('a better figure helps, a worse one hurts', () => {
  const carry = (change: (r: CaseRecord) => void) => {
    const record = structuredClone(two);
    change(record);
    return estimate(openCase({ record }), { caps: [40] }).caps[0]!.together.watts;
  };
  const now = carry(() => {});
  expect(carry((r) => (r.dies![1]!.interface!.ageYears = 6))).toBeLessThan(now);
  expect(carry((r) => (r.room!.temperatureC = 30))).toBeLessThan(now);
  expect(carry((r) => (r.room!.altitudeM = 2500))).toBeLessThan(now);
  expect(carry((r) => (r.finStacks![0]!.blockedShare = 0.5))).toBeLessThan(now);
  expect(carry((r) => (r.vents![0]!.blockedShare = 0.9))).toBeLessThan(now);
  expect(
    carry((r) => (r.strips = [{ id: 's', at: 'fins-left', coversShare: 0.5, state: 'present' }])),
  ).toBeLessThan(now);
  expect(
    carry((r) => (r.strips = [{ id: 's', at: 'fins-left', coversShare: 0.5, state: 'removed' }])),
  ).toBe(now);
  expect(carry((r) => (r.heatPipes![0]!.count = 3))).toBeGreaterThan(now);
  expect(carry((r) => (r.room!.surface = 'soft'))).toBeLessThan(now);
});

test('a thin pipe dries out, and the answer says so', () => {
  const record = structuredClone(two);
  record.heatPipes![0] = { ...record.heatPipes![0]!, count: 1, diameterMm: 5, flattenedMm: 1.2 };
  const full = estimate(openCase({ record }), { caps: ['full'] }).caps[0]!;
  expect(full.together.binding).toEqual({ limit: 'pipe', part: 'pipe', kind: 'capillary' });
});

test('a vapor chamber under both dies, with stacks on it, works without a pipe', () => {
  const record = structuredClone(two);
  record.heatPipes = [];
  record.plates = [
    {
      id: 'chamber',
      kind: 'vapor-chamber',
      dies: ['cpu', 'gpu'],
      widthMm: 300,
      lengthMm: 90,
      thicknessMm: 2,
    },
  ];
  for (const s of record.finStacks!) s.plates = ['chamber'];
  const full = estimate(openCase({ record: completeRecord(record) }), { caps: ['full'] }).caps[0]!;
  expect(full.together.watts).toBeGreaterThan(60);
});

test('two dies on one chamber dry it out where Darcy flow to both of them does', () => {
  const record = structuredClone(two);
  record.heatPipes = [];
  const [widthMm, lengthMm] = [240, 60];
  const places = [
    { die: 'cpu', xMm: 60.5, yMm: 30.5 },
    { die: 'gpu', xMm: 110.5, yMm: 30.5 },
  ];
  record.plates = [
    {
      id: 'chamber',
      kind: 'vapor-chamber',
      dies: ['cpu', 'gpu'],
      widthMm,
      lengthMm,
      thicknessMm: 1,
      places,
    },
  ];
  for (const s of record.finStacks!) s.plates = ['chamber'];
  const overrides = new Map([['plates.chamberLimitFactor', 0.25]]);
  const model = buildModel(resolveCase(completeRecord(record), overrides));
  const loudest = stateForCap(model.data, 'full').state;
  const memory = createMemory(model);
  // a wick carries more with warmer vapor, so that the fans may run slower than they could
  const { point, state } = carryOnRay(model, loudest, { cpu: 0.4, gpu: 0.6 }, null, memory);
  expect(point.binding).toEqual({ limit: 'chamber', part: 'chamber', kind: 'capillary' });
  const plate = model.data.plates[0]!;
  const skirtMm = 2e3 * (plate.wallM + plate.wickM);
  const dies = model.data.dies.map((d) => {
    const { xMm, yMm } = places.find((p) => p.die === d.id)!;
    return {
      x: xMm,
      y: yMm,
      w: d.widthM * 1e3 + skirtMm,
      l: d.lengthM * 1e3 + skirtMm,
      watts: (d.role === 'cpu' ? point.cpuW : point.gpuW) * d.roleShare * d.insideShare,
    };
  });
  const pressures = darcyPressures(dies, widthMm, lengthMm);
  const at = settleAt(model, state.rpms, point.cpuW, point.gpuW);
  const vaporC = nodeC(model, at, model.plateNode[0]!, point.cpuW, point.gpuW);
  // the fall holds the watts already: what the wick can bring for it is one
  const carried = (d: (typeof dies)[number], fall: number) =>
    plate.chamberLimitFactor *
    chamberCapillaryW(fall, plate.wickM, plate.vaporGapM, plate.wick!, water(vaporC)) *
    (d.watts > 0 ? 1 : NaN);
  const together = dies.map((d) => carried(d, darcyFall(pressures, d, widthMm)));
  expect(Math.abs(Math.min(...together) - 1)).toBeLessThan(0.05);
  // by its own flow alone neither would be dry yet
  for (const d of dies)
    expect(
      carried(d, darcyFall(darcyPressures([d], widthMm, lengthMm), d, widthMm)),
    ).toBeGreaterThan(1.2);
});

test('pipes on the bare die carry less than over a plate', () => {
  const record = structuredClone(two);
  for (const p of record.plates!) p.kind = 'none';
  const bare = estimate(openCase({ record: completeRecord(record) }), { caps: ['full'] }).caps[0]!;
  expect(bare.together.watts).toBeLessThan(
    estimate(openCase({ record: two }), { caps: ['full'] }).caps[0]!.together.watts,
  );
});

test('a measured sweep sets the speed at a cap; background is taken off', () => {
  const sweep = [
    { rpm: { 'fan-left': 2500, 'fan-right': 2500 }, dbA: 30 },
    { rpm: { 'fan-left': 5000, 'fan-right': 5000 }, dbA: 46 },
  ];
  const rpm = (noise: CaseRecord['noise']) =>
    estimate(openCase({ record: { ...structuredClone(two), noise } }), { caps: [30] }).caps[0]!
      .together.fans[0]!.rpm;
  expect(rpm({ sweep })).toBeCloseTo(2500, 0);
  expect(rpm({ sweep, backgroundDbA: 24 })).toBeGreaterThan(2550);
});

test('caps outside what the fans can do are handled and said', () => {
  const [low, high] = estimate(openCase({ record: two }), { caps: [10, 90] }).caps;
  expect(low!.note).toMatch(/fans off/);
  expect(low!.levelDbA).toBeNull();
  expect(high!.note).toMatch(/full speed/);
  const full = estimate(openCase({ record: two }), { caps: ['full'] }).caps[0]!;
  expect(high!.together.watts).toBeCloseTo(full.together.watts, 6);
});

test('a fan below its least speed is off', () => {
  const record = structuredClone(two);
  record.fans![0]!.minRpm = 4000;
  const [quiet] = estimate(openCase({ record }), { caps: [28] }).caps;
  expect(quiet!.together.fans[0]!.rpm).toBe(0);
  expect(quiet!.together.fans[1]!.rpm).toBeGreaterThan(0);
});

test('one die: no GPU answer, a single corner', () => {
  const [c] = estimate(openCase({ record: exampleRecord('one-die') }), { caps: ['full'] }).caps;
  expect(c!.gpuAlone).toBeNull();
  expect(c!.together.watts).toBe(c!.cpuAlone!.watts);
  expect(c!.envelope).toEqual([{ cpuWatts: c!.cpuAlone!.watts, gpuWatts: 0, edge: null }]);
});

test('a missing optional figure never crashes', () => {
  const required =
    /^(format|formatVersion|dies|plates|heatPipes|finStacks|fans|vents|plates\.\d+\.(kind|dies)|\w+\.\d+\.id|dies\.\d+\.(role|widthMm|lengthMm)|heatPipes\.\d+\.(diameterMm|along)|finStacks\.\d+\.(widthMm|heightMm|depthMm|finCount|fans)|fans\.\d+\.impellerDiameterMm|vents\.\d+\.(flow|widthMm|lengthMm))$/;
  const base = JSON.parse(JSON.stringify(exampleRecord('one-die')));
  const walk = (node: unknown, path: string[]): string[][] =>
    typeof node === 'object' && node !== null && !Array.isArray(node)
      ? Object.entries(node).flatMap(([k, v]) => [[...path, k], ...walk(v, [...path, k])])
      : Array.isArray(node)
        ? node.flatMap((v, i) => walk(v, [...path, String(i)]))
        : [];
  let tried = 0;
  for (const path of walk(base, [])) {
    if (
      required.test(path.join('.')) ||
      /along\.\d+|interface\.kind|settings\.\d|\.value$/.test(path.join('.'))
    )
      continue;
    const copy = structuredClone(base);
    const last = path[path.length - 1]!;
    // eslint-disable-next-line @typescript-eslint/no-explicit-any
    delete path.slice(0, -1).reduce((o: any, k) => o[k], copy)[last];
    const [c] = (estimate(openCase({ record: completeRecord(copy) }), { caps: [32] }) as Estimate)
      .caps;
    expect(c!.together.watts).toBeGreaterThan(0);
    tried++;
  }
  expect(tried).toBeGreaterThan(25);
});
