import { KNOWN_THINGS } from '@zugluft/core/photo/knownThings';
import {
  askOf,
  finish,
  letGo,
  nextHeld,
  placePoint,
  startOf,
  stepBack,
  takeTool,
  within,
  type Marking,
  type Tool,
} from './marking';

const SIZE = [400, 300] as const;
const LENGTH: Tool = { as: 'mark', kind: 'length' };
const CIRCLE: Tool = { as: 'mark', kind: 'circle' };
const MODULE: Tool = { as: 'reference', thing: KNOWN_THINGS[0]! };
const placed = (m: Marking, ...at: [number, number][]) =>
  at.reduce<ReturnType<typeof placePoint>>(({ marking }, p) => placePoint(marking, p), {
    marking: m,
    done: null,
  });

test('a length is done with its second point, a rectangle with its fourth; a circle goes on until it is ended', () => {
  const start = startOf(SIZE);
  expect(placed(takeTool(start, LENGTH), [1, 1]).done).toBeNull();
  expect(placed(takeTool(start, LENGTH), [1, 1], [9, 1])).toMatchObject({
    done: [
      [1, 1],
      [9, 1],
    ],
    marking: { points: [], cursor: [9, 1] },
  });
  expect(placed(takeTool(start, MODULE), [0, 0], [9, 0], [9, 9]).done).toBeNull();
  expect(placed(takeTool(start, MODULE), [0, 0], [9, 0], [9, 9], [0, 9]).done).toHaveLength(4);
  const two = placed(takeTool(start, CIRCLE), [0, 0], [9, 0]).marking;
  expect(finish(two)).toBeNull();
  const four = placed(two, [9, 9], [0, 9]).marking;
  expect(finish(four)?.done).toHaveLength(4);
  expect(finish(startOf(SIZE))).toBeNull();
});

test('without a tool a point moves the cursor alone', () => {
  expect(placePoint(startOf(SIZE), [3, 4])).toEqual({
    marking: { ...startOf(SIZE), cursor: [3, 4] },
    done: null,
  });
});

test('back takes points one by one, then the tool; Escape takes all points at once; a tool taken up again is put down', () => {
  const two = placed(takeTool(startOf(SIZE), CIRCLE), [0, 0], [9, 0]).marking;
  expect(stepBack(two).points).toEqual([[0, 0]]);
  expect(letGo(two)).toMatchObject({ points: [], tool: CIRCLE });
  expect(stepBack(letGo(two)).tool).toBeNull();
  expect(takeTool(two, CIRCLE)).toMatchObject({ tool: null, points: [] });
  expect(takeTool(two, LENGTH)).toMatchObject({ tool: LENGTH, points: [] });
  expect(takeTool(takeTool(two, MODULE), MODULE).tool).toBeNull();
  const held = { ...startOf(SIZE), held: { list: 'marks' as const, index: 0, point: 1 } };
  expect(letGo(held).held).toBeNull();
  expect(takeTool(held, LENGTH).held).toBeNull();
});

test('what is held goes round references and marks, both ways', () => {
  const counts = { references: 1, marks: 2 };
  const at = (list: 'marks' | 'references', index: number) => ({
    ...startOf(SIZE),
    held: { list, index, point: 1 },
  });
  expect(nextHeld(startOf(SIZE), counts, 1)).toEqual({ list: 'references', index: 0, point: null });
  expect(nextHeld(startOf(SIZE), counts, -1)).toMatchObject({ list: 'marks', index: 1 });
  expect(nextHeld(at('references', 0), counts, 1)).toMatchObject({ list: 'marks', index: 0 });
  expect(nextHeld(at('marks', 1), counts, 1)).toMatchObject({ list: 'references', index: 0 });
  expect(nextHeld(at('references', 0), counts, -1)).toMatchObject({ list: 'marks', index: 1 });
  expect(nextHeld(startOf(SIZE), { references: 0, marks: 0 }, 1)).toBeNull();
});

test('it says what is asked for and how many there are', () => {
  const one = placed(takeTool(startOf(SIZE), LENGTH), [1, 1]).marking;
  expect(askOf(one)).toBe('length: one end, then the other · 1 of 2');
  expect(askOf(takeTool(one, CIRCLE))).toContain('0 of at least 3');
  expect(askOf(startOf(SIZE))).toBe('');
});

test('a place is kept in the picture', () => {
  expect(within([-3, 500], SIZE)).toEqual([0, 300]);
  expect(within([12.5, 7], SIZE)).toEqual([12.5, 7]);
});
