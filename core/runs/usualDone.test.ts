import { againstUsual } from './againstUsual';
import { usualDone, type DoneElsewhere } from './usualDone';

const run = (machineId: string, watts: number, done: number): DoneElsewhere => ({
  machineId,
  watts,
  done,
  unit: 'points',
});
const at = (watts: number) => ({ watts, unit: 'points' as const });
const told = (found: ReturnType<typeof usualDone>) => {
  if (found.refused) throw new Error(`refused: ${found.machines}`);
  return found;
};

test('over many watts the curve of the others is followed, and its band is that of one more', () => {
  const off = [0.97, 1.02, 1.03, 0.98, 1.01, 0.99, 0.96, 1.04];
  const others = off.map((o, i) => run(`m${i}`, 40 + 12 * i, 900 * (40 + 12 * i) ** 0.6 * o));
  const usual = told(usualDone(at(90), others));
  expect(usual.machines).toBe(8);
  expect(usual.p50 / (900 * 90 ** 0.6)).toBeGreaterThan(0.98);
  expect(usual.p50 / (900 * 90 ** 0.6)).toBeLessThan(1.02);
  // one more machine strays as these do, about 3 %
  expect(usual.p95 / usual.p05).toBeGreaterThan(1.08);
  expect(usual.p95 / usual.p05).toBeLessThan(1.2);
  expect(againstUsual(1.2 * usual.p50, usual)).toBe('more than usual');
  expect(againstUsual(0.8 * usual.p50, usual)).toBe('less than usual');
  expect(againstUsual(usual.p50, usual)).toBe('as usual');
});

test('with few machines those of the same class are taken together, never one of another class', () => {
  const near = [run('a', 88, 9000), run('b', 92, 9500), run('c', 97, 9300)];
  const usual = told(usualDone(at(90), [...near, run('d', 30, 3000)]));
  expect(usual.machines).toBe(3);
  expect(usual.p50).toBeGreaterThan(9000);
  expect(usual.p50).toBeLessThan(9500);
  expect(usualDone(at(60), near)).toEqual({ refused: true, machines: 0, needs: 3 });
  expect(usualDone(at(90), near.slice(1))).toEqual({ refused: true, machines: 2, needs: 3 });
});

test('beyond the watts of all others no curve is drawn out', () => {
  const others = Array.from({ length: 8 }, (_, i) => run(`m${i}`, 40 + 5 * i, 5000 + 400 * i));
  expect(usualDone(at(110), others)).toEqual({ refused: true, machines: 0, needs: 3 });
  expect(usualDone(at(20), others).refused).toBe(true);
});

test('of each machine the run nearest in watts counts, once, and only of the same unit', () => {
  const others = [
    run('a', 50, 4000),
    run('a', 91, 9000),
    run('b', 90, 9100),
    run('c', 89, 9200),
    { ...run('d', 90, 80), unit: 'frames/s' as const },
    run('e', 90, 0),
  ];
  const usual = told(usualDone(at(90), others));
  expect(usual.machines).toBe(3);
  expect(usual.p50).toBeGreaterThan(8900);
});
