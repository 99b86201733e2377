import { noiseSum, type FanNoise } from '../envelope/fanNoise';
import { createTurningSearch } from './turningSearch';

/** Three equal fans of which each starts at three tenths. */
const noise: FanNoise = {
  weights: Float64Array.of(1, 1, 1),
  leastDuty: Float64Array.of(0.3, 0.3, 0.3),
  groups: [[0], [1], [2]],
};
const MOST = noiseSum(noise, 0.6);
const ANY = [-1, 0, 1, 2];

/** Watts of each ray hang on the duties as told; what was looked at is kept. */
function searching(watts: ((duties: readonly number[]) => number)[]) {
  const search = createTurningSearch(watts.length);
  const seen = new Float64Array(watts.length);
  const looks: { duties: number[]; of: boolean[] }[] = [];
  const best = (stops = ANY, known = new Float64Array(watts.length), shares = [1, 1, 1]) => {
    looks.length = 0;
    const found = watts.map(() => [] as number[]);
    const most = watts.map((_, r) => known[r]!);
    const all = watts.map(() => true);
    search(noise, MOST, shares, all, stops, known, (duties, of) => {
      looks.push({ duties: [...duties], of: [...of] });
      watts.forEach((f, r) => {
        if (!of[r]) return;
        seen[r] = f(duties);
        if (seen[r]! <= most[r]!) return;
        most[r] = seen[r]!;
        found[r] = [...duties];
      });
      return seen;
    });
    return found;
  };
  return { best, looks };
}

const turning = (duties: readonly number[]) => duties.map((d) => (d >= 0.3 ? 1 : 0));

test('a fan that is better stopped is stopped, for each ray its own, and the others take its noise', () => {
  const { best } = searching([
    (d) => 10 + d[1]! + d[2]! - 5 * d[0]!,
    (d) => 10 + d[0]! + d[2]! - 5 * d[1]!,
  ]);
  const [first, second] = best();
  expect(turning(first!)).toEqual([0, 1, 1]);
  expect(turning(second!)).toEqual([1, 0, 1]);
  expect(noiseSum(noise, first!)).toBeCloseTo(MOST, 6);
});

test('two of three may be stopped, one after the other; the last takes all noise', () => {
  const [found] = searching([(d) => 10 + d[2]! - 2 * d[0]! - 3 * d[1]!]).best();
  expect(turning(found!)).toEqual([0, 0, 1]);
  expect(found![2]).toBeCloseTo(0.6 * 3 ** 0.2, 6);
});

test('what is better only after another’s change is found in a second round', () => {
  const slow = (d: number) => d > 0.299 && d < 0.31;
  const [found] = searching([(d) => (d[2]! >= 0.3 ? 5 : slow(d[1]!) ? 20 : 10)]).best([-1]);
  expect(turning(found!)).toEqual([1, 1, 0]);
  expect(found![1]).toBeCloseTo(0.3, 6);
});

test('one that stands still to begin with may turn, at its least speed or faster', () => {
  const slow = searching([(d) => (d[0]! >= 0.3 ? 20 - 10 * d[0]! : 5)]);
  expect(slow.best(ANY, new Float64Array(1), [0, 1, 1])[0]![0]).toBeCloseTo(0.3, 6);
  const loud = searching([(d) => 10 + d[0]!]);
  // a fifth above the best of the steps before is the nearest that is tried
  expect(loud.best(ANY, new Float64Array(1), [0, 1, 1])[0]![0]).toBeGreaterThan(0.3);
});

test('nobody is stopped by another’s change where there is another way; nothing is ever louder than allowed', () => {
  const { best, looks } = searching([(d) => 10 + Math.min(...d) + 0.1 * d[0]!]);
  best([-1]);
  for (const { duties } of looks) {
    expect(noiseSum(noise, duties)).toBeLessThanOrEqual(MOST * (1 + 1e-9));
    // at full speed one alone is too loud
    for (const d of duties) expect(d).toBeLessThan(1);
    const stopped = turning(duties).filter((x) => x === 0).length;
    if (stopped < 2) continue;
    // beside the third not even the slowest two have room
    expect(Math.max(...duties) ** 5 + 2 * 0.3 ** 5).toBeGreaterThan(MOST);
  }
});

test('one that is best as fast as it may be alone stops the others', () => {
  const [found] = searching([(d) => (d[0]! > 0.74 && d[1]! < 0.3 && d[2]! < 0.3 ? 20 : 10)]).best(
    [-1],
    new Float64Array(1),
    [0.99, 1, 1],
  );
  expect(turning(found!)).toEqual([1, 0, 0]);
});

test('beside what is known only what is better is sought further, and each search begins anew', () => {
  const { best, looks } = searching([(d) => 10 + d[0]!, (d) => 10 + d[1]!]);
  // neither stop is better than known: two looks for both rays, and no more
  best([0, 1], Float64Array.of(99, 99));
  expect(looks.map(({ of }) => of)).toEqual([
    [true, true],
    [true, true],
  ]);
  // the second ray alone is better with the first fan stopped
  best([0], Float64Array.of(99, 10.3));
  expect(looks.length).toBeGreaterThan(3);
  expect(looks.slice(1).every(({ of }) => !of[0] && of[1])).toBe(true);
  // what was found the time before counts for nothing
  const again = best([0], Float64Array.of(0, 0));
  expect(again.every((duties) => duties.length === 3)).toBe(true);
});
