import fc from 'fast-check';
import { distanceWithin } from './distanceWithin';

/** The nearest square outside, one by one. */
function byHand(is: readonly number[], w: number, h: number, edgeIsOutside: boolean): number[] {
  const margin = edgeIsOutside ? 1 : 0;
  return is.map((inside, i) => {
    if (!inside) return 0;
    let best = Infinity;
    for (let y = -margin; y < h + margin; y++) {
      for (let x = -margin; x < w + margin; x++) {
        const within = x >= 0 && y >= 0 && x < w && y < h;
        if (within && is[y * w + x]) continue;
        best = Math.min(best, Math.hypot(x - (i % w), y - Math.floor(i / w)));
      }
    }
    return best;
  });
}

test('the same as asking every square, with and without the edge', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 9 }).chain((w) =>
        fc.tuple(
          fc.constant(w),
          fc
            .integer({ min: 1, max: 9 })
            .chain((h) =>
              fc.array(fc.constantFrom(0, 1, 1, 1), { minLength: w * h, maxLength: w * h }),
            ),
        ),
      ),
      fc.boolean(),
      ([w, is], edge) => {
        const h = is.length / w;
        const found = distanceWithin(Uint8Array.from(is), w, h, edge);
        byHand(is, w, h, edge).forEach((far, i) => {
          if (Number.isFinite(far)) expect(found[i]).toBeCloseTo(far, 4);
          else expect(found[i]).toBeGreaterThan(1000);
        });
      },
    ),
  );
});
