import { changed, noTurns, turn, type TurnOrder } from './turnOrder';

type Doc = 'marks' | 'record';

/** Documents in the order in which their steps are taken back. */
function backAll(order: TurnOrder<Doc>): Doc[] {
  const out: Doc[] = [];
  for (let next = turn(order, true); next; next = turn(next.order, true)) out.push(next.of);
  return out;
}

test('what was done last is taken back first, whichever document it was of', () => {
  let order = changed(noTurns<Doc>(), 'marks', null, 0);
  order = changed(order, 'record', null, 10);
  order = changed(order, 'marks', null, 20);
  expect(backAll(order)).toEqual(['marks', 'record', 'marks']);
  expect(turn(noTurns<Doc>(), true)).toBeNull();
});

test('a point that is moved by several keys is one step, after a pause or of another point a new one', () => {
  let order = changed(noTurns<Doc>(), 'marks', 'marks.0.1', 0);
  order = changed(order, 'marks', 'marks.0.1', 1000);
  order = changed(order, 'marks', 'marks.0.1', 2000);
  expect(backAll(order)).toHaveLength(1);
  expect(backAll(changed(order, 'marks', 'marks.0.1', 3300))).toHaveLength(2);
  expect(backAll(changed(order, 'marks', 'marks.0.2', 2100))).toHaveLength(2);
  expect(backAll(changed(order, 'record', 'marks.0.1', 2100))).toHaveLength(2);
  expect(backAll(changed(changed(order, 'marks', null, 2100), 'marks', null, 2110))).toHaveLength(
    3,
  );
});

test('what was taken back can be done again in its order, until something else is done', () => {
  let order = changed(changed(noTurns<Doc>(), 'marks', null, 0), 'record', null, 10);
  order = turn(order, true)!.order;
  order = turn(order, true)!.order;
  const again = turn(order, false)!;
  expect(again.of).toBe('marks');
  expect(turn(again.order, false)!.of).toBe('record');
  expect(turn(changed(again.order, 'marks', null, 99), false)).toBeNull();
});
