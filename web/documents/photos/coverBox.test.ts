import fc from 'fast-check';
import { cover, type Cover } from '@zugluft/core/library/attachment';
import { boxBetween, growBox, moveBox } from './coverBox';

const point = fc.tuple(
  fc.double({ min: -0.5, max: 1.5, noNaN: true }),
  fc.double({ min: -0.5, max: 1.5, noNaN: true }),
);
const step = fc.double({ min: -2, max: 2, noNaN: true });

test('whatever is drawn, moved or grown is a box the server takes, or none', () => {
  fc.assert(
    fc.property(point, point, step, step, (a, b, dx, dy) => {
      const box = boxBetween(a, b);
      if (!box) return;
      for (const made of [box, moveBox(box, dx, dy), growBox(box, dx, dy)]) {
        expect(cover.safeParse(made).success).toBe(true);
      }
      expect(moveBox(box, dx, dy).slice(2)).toEqual(box.slice(2));
    }),
  );
});

test('a click alone makes no box; corners may come in any order', () => {
  expect(boxBetween([0.4, 0.4], [0.402, 0.6])).toBeNull();
  const near = (box: Cover | null) => box?.map((v) => Number(v.toFixed(6)));
  expect(near(boxBetween([0.6, 0.7], [0.2, 0.1]))).toEqual([0.2, 0.1, 0.4, 0.6]);
  expect(near(boxBetween([0.5, 0.5], [2, 2]))).toEqual([0.5, 0.5, 0.5, 0.5]);
});
