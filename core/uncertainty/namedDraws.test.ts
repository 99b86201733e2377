import { openCase } from '../case/openCase';
import { exampleRecord } from '../test-support/exampleRecord';
import { planDraws } from './drawPlan';
import { namedDraws } from './namedDraws';

const plan = planDraws(openCase({ record: exampleRecord('one-die') }), {
  draws: 50,
  caps: [36],
  togetherOnly: true,
  drawn: false,
});
const column = (u: Float64Array, c: number) => [...u.subarray(c * 50, (c + 1) * 50)];

test('columns hang on their name and the seed alone', () => {
  expect(plan.u.every((p) => p === 0)).toBe(true);
  const one = namedDraws(plan, 1);
  expect(namedDraws(plan, 1).u).toEqual(one.u);
  expect(column(namedDraws(plan, 2).u, 0)).not.toEqual(column(one.u, 0));
  expect(column(one.u, 1)).not.toEqual(column(one.u, 0));
  // every column has one draw in each fiftieth
  expect(
    column(one.u, 0)
      .map((p) => Math.floor(p * 50))
      .sort((a, b) => a - b),
  ).toEqual(Array.from({ length: 50 }, (_, i) => i));
  const swapped = {
    ...plan,
    columns: [plan.columns[1]!, plan.columns[0]!, ...plan.columns.slice(2)],
  };
  expect(column(namedDraws(swapped, 1).u, 0)).toEqual(column(one.u, 1));
});

test('what was drawn for a plan is its own: written over, it changes no other', () => {
  const one = namedDraws(plan, 1);
  const before = column(one.u, 0);
  namedDraws(plan, 1).u.fill(0.5);
  expect(column(one.u, 0)).toEqual(before);
  expect(column(namedDraws(plan, 1).u, 0)).toEqual(before);
});

test('another number of draws is drawn for itself', () => {
  const fewer = namedDraws(
    { ...plan, draws: 20, u: new Float64Array(20 * plan.columns.length) },
    1,
  );
  expect([...fewer.u.subarray(0, 20)].map((p) => Math.floor(p * 20)).sort((a, b) => a - b)).toEqual(
    Array.from({ length: 20 }, (_, i) => i),
  );
});
