import type { CaseRecord } from '../record/recordSchema';
import { resolveCase } from '../record/resolveCase';
import { completeRecord, exampleRecord } from '../test-support/exampleRecord';
import { solveAirFlows, stillAir, type AirFlows } from './airSystem';
import { buildAirSystem } from './buildAirSystem';

const two = exampleRecord('two-fan-shared-pipes');

function flowsOf(
  change: (r: CaseRecord) => void = () => {},
  rpms: readonly number[] = [4000, 4000],
  overrides?: ReadonlyMap<string, number>,
): AirFlows {
  const record = structuredClone(two);
  change(record);
  const data = resolveCase(completeRecord(record), overrides);
  const system = buildAirSystem(data);
  const flows = stillAir(system);
  solveAirFlows(system, data, rpms, 26, [45, 45], flows, false);
  return flows;
}

const total = (f: AirFlows) => f.fanM3s.reduce((sum, q) => sum + q, 0);
const now = flowsOf();

test('what the fans draw passes the fins, less what leaks', () => {
  const through = now.stackM3s.reduce((sum, q) => sum + q, 0);
  expect(through / total(now)).toBeCloseTo(0.95, 6);
  const tight = flowsOf(undefined, undefined, new Map([['fans.leakage', 1e-9]]));
  expect(tight.stackM3s[0]! / tight.fanM3s[0]!).toBeCloseTo(1, 6);
});

test('a machine and its fans are alike on both sides: so are their flows', () => {
  expect(now.fanM3s[0]! / now.fanM3s[1]!).toBeCloseTo(1, 6);
});

test.each<[string, (r: CaseRecord) => void]>([
  ['a half covered intake', (r) => (r.vents![0]!.blockedShare = 0.5)],
  ['lint on the mesh', (r) => Object.assign(r.vents![0]!, { mesh: true, lintShare: 0.4 })],
  ['less open share', (r) => (r.vents![0]!.openShare = 0.2)],
  ['blocked fins', (r) => (r.finStacks![0]!.blockedShare = 0.4)],
  ['lint on the fins', (r) => (r.finStacks![0]!.lintShare = 0.4)],
  ['more fins', (r) => (r.finStacks![0]!.finCount = 110)],
  ['deeper fins', (r) => (r.finStacks![0]!.depthMm = 40)],
  ['lower feet', (r) => (r.shell!.footHeightMm = 0.5)],
  ['soft ground', (r) => (r.room!.surface = 'soft')],
  [
    'a strip over the exhaust',
    (r) =>
      (r.strips = [
        { id: 's', at: r.vents!.find((v) => v.flow === 'exhaust')!.id, coversShare: 0.5 },
      ]),
  ],
])('%s lets less air through', (_, change) => {
  expect(total(flowsOf(change))).toBeLessThan(total(now) * (1 - 1e-4));
});

test('a dust mesh costs air', () => {
  const without = flowsOf((r) => {
    for (const v of r.vents!) v.mesh = false;
  });
  expect(total(without)).toBeGreaterThan(total(now) * 1.001);
});

test('a closed lid takes openings on the deck away', () => {
  const deck = (r: CaseRecord) => {
    for (const v of r.vents!) {
      if (v.flow === 'intake') Object.assign(v, { side: 'deck', openShare: 0.2 });
    }
  };
  const open = total(flowsOf(deck));
  const closed = total(
    flowsOf((r) => {
      deck(r);
      r.room!.lid = 'closed';
    }),
  );
  expect(closed).toBeLessThan(0.93 * open);
});

test('fans that share one intake take air from each other', () => {
  const shared = (r: CaseRecord) => {
    const intakes = r.vents!.filter((v) => v.flow === 'intake');
    r.vents = r.vents!.filter((v) => v.flow !== 'intake');
    r.vents.push({ ...intakes[0]!, id: 'one', fans: ['fan-left', 'fan-right'] });
  };
  const both = flowsOf(shared);
  const alone = flowsOf(shared, [4000, 0]);
  expect(alone.fanM3s[0]!).toBeGreaterThan(both.fanM3s[0]! * 1.01);
});

test('two fans on one stack: with one stopped the other feeds back through it, and less passes the fins', () => {
  const joined = (r: CaseRecord) => {
    r.finStacks![0]!.fans = ['fan-left', 'fan-right'];
    r.finStacks![1]!.fans = ['fan-left', 'fan-right'];
  };
  const both = flowsOf(joined);
  const one = flowsOf(joined, [4000, 0]);
  expect(one.stackM3s[0]! + one.stackM3s[1]!).toBeLessThan(both.stackM3s[0]! + both.stackM3s[1]!);
  expect(one.stackM3s[0]! + one.stackM3s[1]!).toBeLessThan(0.95 * one.fanM3s[0]!);
});

test('a measured point of the curve overrides the computed one', () => {
  const weak = flowsOf((r) => {
    r.fans![0]!.curve = [
      { rpm: 5000, flowLps: 0, pressurePa: 60 },
      { rpm: 5000, flowLps: 1.5, pressurePa: 0 },
    ];
  });
  expect(weak.fanM3s[0]!).toBeLessThan(now.fanM3s[0]! * 0.8);
  expect(weak.fanM3s[1]! / now.fanM3s[1]!).toBeCloseTo(1, 1);
});

test('still fans move nothing; started from elsewhere the same flows are found', () => {
  const data = resolveCase(two);
  const system = buildAirSystem(data);
  const flows = stillAir(system);
  solveAirFlows(system, data, [0, 0], 25, [40, 40], flows, false);
  expect(Array.from(flows.fanM3s)).toEqual([0, 0]);
  solveAirFlows(system, data, [5000, 5000], 25, [40, 40], flows, false);
  for (let i = 0; i < 12; i++) solveAirFlows(system, data, [4000, 4000], 26, [45, 45], flows, true);
  expect(flows.fanM3s[0]! / now.fanM3s[0]!).toBeCloseTo(1, 5);
});

test('a stack holds near the flow about which its resistance was taken: one round from flows a tenth off', () => {
  const data = resolveCase(two);
  const system = buildAirSystem(data);
  const flows = stillAir(system);
  solveAirFlows(system, data, [4000, 4000], 26, [45, 45], flows, false);
  const found = flows.stackM3s.slice();
  for (const off of [0.9, 1.1]) {
    flows.stackM3s.forEach((_, i) => (flows.stackM3s[i] = found[i]! * off));
    solveAirFlows(system, data, [4000, 4000], 26, [45, 45], flows, true);
    found.forEach((q, i) => expect(Math.abs(flows.stackM3s[i]! / q - 1)).toBeLessThan(2e-3));
  }
});

test('thin mountain air: fans move the same volume within a few per cent, hence less mass', () => {
  const high = flowsOf((r) => (r.room!.altitudeM = 3000));
  expect(total(high) / total(now)).toBeGreaterThan(0.9);
  expect(total(high) / total(now)).toBeLessThan(1.05);
  expect(high.intakeDensityKgM3 / now.intakeDensityKgM3).toBeCloseTo(70109 / 101325, 2);
});
