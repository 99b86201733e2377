import { resolveCase } from '../record/resolveCase';
import { completeRecord, exampleRecord } from '../test-support/exampleRecord';
import { solveAirFlows, stillAir } from './airSystem';
import { buildAirSystem } from './buildAirSystem';
import { plenumGroups } from './plenums';

/** The two-fan example with one exhaust vent behind both stacks. */
function sharedExhaust() {
  const record = structuredClone(exampleRecord('two-fan-shared-pipes'));
  const exhausts = record.vents!.filter((v) => v.flow === 'exhaust');
  const [first] = exhausts;
  record.vents = record.vents!.filter((v) => v.flow !== 'exhaust' || v === first);
  Object.assign(first!, { finStacks: record.finStacks!.map((s) => s.id) });
  return resolveCase(completeRecord(record));
}

test('stacks behind which one vent lies share the plenum before it; with a vent each they do not', () => {
  const apart = plenumGroups(resolveCase(exampleRecord('two-fan-shared-pipes')));
  expect(apart.outGroups).toEqual({ groupOf: [0, 1], groups: 2 });
  const together = plenumGroups(sharedExhaust());
  expect(together.outGroups).toEqual({ groupOf: [0, 0], groups: 1 });
  expect(together.inGroups).toEqual(apart.inGroups);
});

test('both stacks breathe out through a vent that they share, each less than through one of its own', () => {
  const flowsOf = (data: ReturnType<typeof sharedExhaust>) => {
    const system = buildAirSystem(data);
    const flows = stillAir(system);
    const rpms = data.fans.map((f) => f.maxRpm);
    const filmC = data.stacks.map(() => 40);
    solveAirFlows(system, data, rpms, 25, filmC, flows, false);
    return [...flows.stackM3s];
  };
  const own = flowsOf(resolveCase(exampleRecord('two-fan-shared-pipes')));
  flowsOf(sharedExhaust()).forEach((q, i) => {
    expect(q).toBeGreaterThan(0.3 * own[i]!);
    expect(q).toBeLessThan(own[i]!);
  });
});
