import { sparingly } from './sparingly';

test('the first is told at once, those that follow soon together, and what is left at the end', () => {
  let now = 5000;
  jest.spyOn(performance, 'now').mockImplementation(() => now);
  const told: number[][] = [];
  const { add, rest } = sparingly<number>((all) => told.push(all));
  add(1);
  expect(told).toEqual([[1]]);
  for (const x of [2, 3]) {
    now += 10;
    add(x);
  }
  expect(told).toEqual([[1]]);
  now += 200;
  add(4);
  expect(told).toEqual([[1], [2, 3, 4]]);
  now += 10;
  add(5);
  rest();
  rest();
  expect(told).toEqual([[1], [2, 3, 4], [5]]);
  jest.restoreAllMocks();
});
