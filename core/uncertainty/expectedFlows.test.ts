import { solveAirFlows, stillAir, type AirFlows } from '../airflow/airSystem';
import { openCase } from '../case/openCase';
import { exampleRecord } from '../test-support/exampleRecord';
import { centralFlows, stepFlows, whichTurn } from './expectedFlows';

const { model, data } = openCase({ record: exampleRecord('two-fan-shared-pipes') });
const FILM_C = data.stacks.map(() => 45);

/** Air at given speeds, sought from nothing. */
function solved(rpms: number[]): AirFlows {
  const flows = stillAir(model.air);
  solveAirFlows(model.air, data, rpms, 27, FILM_C, flows, false);
  return flows;
}

/** Greatest part by which flows through the fins are off, of the greatest of them. */
function off(flows: AirFlows, from: AirFlows): number {
  const most = Math.max(...from.stackM3s);
  return Math.max(...from.stackM3s.map((q, i) => Math.abs(flows.stackM3s[i]! - q))) / most;
}

test('fans that turn are told from those that do not', () => {
  expect(whichTurn([0, 0])).toBe(0);
  expect(whichTurn([1800, 0])).toBe(1);
  expect(whichTurn([0, 1800])).toBe(2);
  expect(whichTurn([1800, 1900])).toBe(3);
});

test.each([
  ['both fans', [1, 1]],
  ['one fan', [1, 0]],
  ['the other fan', [0, 1]],
])('air is expected near where it is, also at half the speed: %s', (_, turns) => {
  const rpms = data.fans.map((f, i) => turns[i]! * 0.5 * f.maxRpm);
  const rpmSum = rpms.reduce((a, b) => a + b, 0);
  const known = new Map<number, AirFlows>();
  const expected = stillAir(model.air);
  stepFlows(null, centralFlows(model, known, whichTurn(rpms)), expected, expected, rpmSum);
  expect(expected.rpmSum).toBe(rpmSum);
  expect(off(expected, solved(rpms))).toBeLessThan(0.2);
  expect([...known.keys()]).toEqual([whichTurn(rpms)]);
});

test('a draw is expected as far from the central air as it was at its last state', () => {
  const at = (duty: number, [left, right]: [number, number]) =>
    solved(data.fans.map((f, i) => duty * f.maxRpm * (i ? right : left)));
  // this draw's left fan is a tenth faster
  const own: [number, number] = [1.1, 1];
  const before = at(0.5, [1, 1]);
  const to = at(0.8, [1, 1]);
  const last = at(0.5, own);
  const next = at(0.8, own);
  const stepped = stillAir(model.air);
  stepFlows(before, to, last, stepped, next.rpmSum);
  const straight = stillAir(model.air);
  stepFlows(null, to, last, straight, next.rpmSum);
  expect(off(stepped, next)).toBeLessThan(0.25 * off(straight, next));
  // in place too
  const inPlace = at(0.5, own);
  stepFlows(before, to, inPlace, inPlace, next.rpmSum);
  expect(inPlace.stackM3s).toEqual(stepped.stackM3s);
  expect(inPlace.pressures).toEqual(stepped.pressures);
});
