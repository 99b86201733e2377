import { arrowStep } from './arrowStep';

test.each([
  ['ArrowLeft', false, [-2, 0]],
  ['ArrowRight', false, [2, 0]],
  ['ArrowUp', true, [0, -10]],
  ['ArrowDown', true, [0, 10]],
  ['a', false, null],
])('%s (Shift %s) moves by %j', (key, shiftKey, by) =>
  expect(arrowStep({ key, shiftKey }, 2, 10)).toEqual(by),
);
