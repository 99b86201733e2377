import { darcyFall, darcyPressures } from '../test-support/darcyReference';
import { chamberFlowShape } from './chamberFlowShape';

test.each([
  ['a square one, die in the middle', 81, 81, { x: 40.5, y: 40.5, w: 15, l: 15 }],
  ['a long one, die at its end', 200, 60, { x: 30.5, y: 30.5, w: 13, l: 17 }],
  ['a long one, die in a corner', 200, 60, { x: 14.5, y: 14.5, w: 17, l: 17 }],
])('%s: within 3 %% of two-dimensional Darcy flow', (_, w, l, die) => {
  const mm = 1e-3;
  const source = {
    centreXM: die.x * mm,
    centreYM: die.y * mm,
    widthM: die.w * mm,
    lengthM: die.l * mm,
  };
  const shape = chamberFlowShape(source, w * mm, l * mm);
  const one = { ...die, watts: 1 };
  const reference = darcyFall(darcyPressures([one], w, l), one, w);
  expect(Math.abs(shape / reference - 1)).toBeLessThan(0.03);
});

test('between near discs it is ln(b/a) and a little more, and a long way makes it larger', () => {
  const centred = (w: number, l: number) =>
    chamberFlowShape({ centreXM: w / 2, centreYM: l / 2, widthM: 0.015, lengthM: 0.015 }, w, l);
  const square = centred(0.08, 0.08);
  const discs = Math.log(0.08 / 0.015);
  expect(square).toBeGreaterThan(discs);
  expect(square).toBeLessThan(1.35 * discs);
  expect(centred(0.16, 0.04)).toBeGreaterThan(1.3 * square);
});
