import { openCase } from '@zugluft/core/case/openCase';
import { drawMachine, gainsOfChange } from '@zugluft/core/levers/leverGains';
import { possibleLevers } from '@zugluft/core/levers/possibleLevers';
import { exampleRecord } from '@zugluft/core/test-support/exampleRecord';
import { planDraws } from '@zugluft/core/uncertainty/drawPlan';
import { roomForDraws, runDraws } from '@zugluft/core/uncertainty/draws';
import { drawItems, drawPart, placePart, rowsOf } from './drawPart';
import { betterOf, leverPart, type LeverPart } from './leverPart';

const record = exampleRecord('two-fan-shared-pipes');

test('rows made in pieces, in any order and elsewhere, are those made in one go', () => {
  const job = { request: { record }, options: { draws: 90, caps: ['off', 32, 'full'] as const } };
  const plan = planDraws(openCase(job.request), job.options);
  const whole = roomForDraws(plan, plan.draws);
  runDraws(plan, 0, plan.draws, whole);
  expect(drawItems(plan)).toBe(3);
  expect(rowsOf(plan, 2)).toEqual({ from: 80, to: 90 });
  const pieces = roomForDraws(plan, plan.draws);
  const elsewhere = drawPart(job);
  let unsettled = 0;
  for (const item of [2, 0, 1]) {
    const part = elsewhere(item);
    unsettled += part.unsettled;
    placePart(plan, item, part, pieces);
  }
  expect(unsettled).toBe(0);
  expect(pieces.watts).toEqual(whole.watts);
  expect(pieces.held).toEqual(whole.held);
  expect(pieces.readings).toEqual(whole.readings);
  expect(whole.readings.length).toBeGreaterThan(0);
});

test('an item is one lever in one of the passes, pass by pass', () => {
  const levers = possibleLevers(record)
    .filter((l) => l.change.length > 0)
    .slice(0, 2);
  const options = { caps: [36], seed: 1 };
  const part = leverPart({ request: { record }, options, passes: [4, 8], levers });
  const order = [0, 3, 1, 2].map(part);
  expect(order.map(({ id, draws }) => [id, draws])).toEqual([
    [levers[0]!.id, 4],
    [levers[1]!.id, 8],
    [levers[1]!.id, 4],
    [levers[0]!.id, 8],
  ]);
  const before = drawMachine({ record }, { ...options, draws: 8 });
  const gains = gainsOfChange(before, levers[0]!, { ...options, draws: 8 });
  expect(order[3]!.at).toEqual(gains);
});

test('what was made of fewer draws is not told after what was made of more', () => {
  const most = new Map<string, number>();
  const of = (id: string, draws: number): LeverPart => ({ id, draws, at: [] });
  const told = (...all: LeverPart[]) => betterOf(all, most).map((g) => `${g.id} ${g.draws}`);
  expect(told(of('a', 16), of('b', 16))).toEqual(['a 16', 'b 16']);
  expect(told(of('a', 60), of('a', 16), of('b', 16))).toEqual(['a 60']);
  expect(told(of('b', 60), of('a', 400))).toEqual(['b 60', 'a 400']);
});
