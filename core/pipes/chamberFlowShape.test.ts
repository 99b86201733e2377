import { conjugateGradients } from '../test-support/plateReference';
import { chamberFlowShape } from './chamberFlowShape';

/** The same by finite volumes: two-dimensional Darcy flow, evenly condensed over all, evaporated over the die. */
function darcyShape(
  die: { x: number; y: number; w: number; l: number },
  w: number,
  l: number,
): number {
  const nx = w;
  const ny = l;
  const inside = (i: number, j: number) =>
    Math.abs(i + 0.5 - die.x) < die.w / 2 && Math.abs(j + 0.5 - die.y) < die.l / 2;
  const cells = nx * ny;
  let heated = 0;
  for (let j = 0; j < ny; j++) for (let i = 0; i < nx; i++) if (inside(i, j)) heated++;
  const b = new Float64Array(cells);
  for (let j = 0; j < ny; j++) {
    for (let i = 0; i < nx; i++) b[j * nx + i] = 1 / cells - (inside(i, j) ? 1 / heated : 0);
  }
  const p = conjugateGradients((x, y) => {
    y.fill(0);
    const pair = (at: number, next: number) => {
      const flow = x[at]! - x[next]!;
      y[at]! += flow;
      y[next]! -= flow;
    };
    for (let j = 0; j < ny; j++) {
      for (let i = 0; i < nx; i++) {
        if (i + 1 < nx) pair(j * nx + i, j * nx + i + 1);
        if (j + 1 < ny) pair(j * nx + i, (j + 1) * nx + i);
      }
    }
  }, b);
  const middle = p[Math.floor(die.y) * nx + Math.floor(die.x)]!;
  return 2 * Math.PI * (Math.max(...p) - middle);
}

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
  expect(Math.abs(shape / darcyShape(die, w, l) - 1)).toBeLessThan(0.03);
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
