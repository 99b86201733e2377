import { fanSweep, type SweepSource } from './fanSweep';

const FANS = ['left', 'right'];
/** Speeds held one after the other for some time, and the level of a machine that follows the fan laws over a background. */
function source(
  steps: readonly { rpm: number; lastsS: number }[],
  { backgroundDbA = null as number | null, run = 'a', ratio = 1, changeDb = 0 } = {},
): SweepSource {
  const timeS: number[] = [];
  const rpm: number[] = [];
  for (const s of steps) {
    for (let i = 0; i < s.lastsS; i++) {
      timeS.push(timeS.length);
      rpm.push(s.rpm + (i % 2 ? 10 : -10));
    }
  }
  const own = (r: number) => 40 + 50 * Math.log10(r / 4000);
  const column = (is: string, values: number[]) =>
    ({ column: is, is, unit: '', values: Float64Array.from(values) }) as never;
  const level = steps.flatMap((s) =>
    Array<number>(s.lastsS).fill(
      10 *
        Math.log10(
          10 ** (own(s.rpm) / 10) + (backgroundDbA === null ? 0 : 10 ** (backgroundDbA / 10)),
        ),
    ),
  );
  return {
    run,
    log: {
      timeS: Float64Array.from(timeS),
      columns: [
        column('fanRpm.left', rpm),
        column(
          'fanRpm.right',
          rpm.map((r) => r * ratio),
        ),
        column('levelDbA', level),
      ],
    },
    backgroundDbA,
    changeDb,
    plusMinusDb: 0.5,
  };
}
const held = (...rpm: number[]) => rpm.map((r) => ({ rpm: r, lastsS: 60 }));

test('speeds that were held become points by the fan laws, the background taken off', () => {
  const { points, law, lacks } = fanSweep(
    [source(held(4000, 2500, 3200), { backgroundDbA: 24 })],
    FANS,
  );
  expect(lacks).toBeNull();
  expect(points.map((p) => p.rpm['left'])).toEqual([2500, 3200, 4000]);
  for (const p of points) {
    // more than 15 dB above the background nothing is taken off
    expect(Math.abs(p.dbA - 40 - 50 * Math.log10(p.rpm['left']! / 4000))).toBeLessThan(0.15);
    expect(p.upperBound).toBe(false);
    expect(p.heardS).toBeGreaterThanOrEqual(50);
    // no better known than its meter
    expect(p.plusMinus).toBeGreaterThanOrEqual(0.5);
  }
  expect(Math.abs(law!.dbPerDecade - 50)).toBeLessThan(1);
  expect(law!.scatterDb).toBeLessThan(0.2);
});

test('what hardly stands above the background is an upper bound, and no law is drawn through it', () => {
  const { points, law } = fanSweep([source(held(1500, 3200, 4000), { backgroundDbA: 24 })], FANS);
  expect(points.map((p) => p.upperBound)).toEqual([true, false, false]);
  expect(law).toBeNull();
});

test('the same speed in two runs is one point of both, by the time each was heard, where the laboratory listens', () => {
  const far = source(held(4000), { run: 'b', changeDb: 6 });
  const { points } = fanSweep([source(held(4000)), far], FANS);
  expect(points).toHaveLength(1);
  expect(points[0]!.runs).toEqual(['a', 'b']);
  expect(points[0]!.dbA).toBeCloseTo(10 * Math.log10((1e4 + 10 ** 4.6) / 2), 1);
  // fans at speeds of their own are a state of their own
  const apart = source(held(4000), { run: 'c', ratio: 0.8 });
  expect(fanSweep([source(held(4000)), apart], FANS).points).toHaveLength(2);
});

test('speeds that move, that pass by, or stand still are none', () => {
  const ramp = source(Array.from({ length: 60 }, (_, i) => ({ rpm: 2000 + 60 * i, lastsS: 2 })));
  expect(fanSweep([ramp], FANS)).toMatchObject({
    points: [],
    lacks: expect.stringMatching(/held/),
  });
  // up and down within each stretch, the same on the whole
  const hunting = source(
    Array.from({ length: 30 }, (_, i) => ({ rpm: i % 2 ? 2600 : 2000, lastsS: 4 })),
  );
  expect(fanSweep([hunting], FANS).points).toEqual([]);
  const brief = source([{ rpm: 3000, lastsS: 22 }, ...held(0)]);
  expect(fanSweep([brief], FANS).points).toEqual([]);
});

test('what is missing is said', () => {
  expect(fanSweep([], FANS).lacks).toMatch(/no run/);
  const { log, ...rest } = source(held(3000));
  const silent = { ...rest, log: { ...log, columns: log.columns.slice(0, 2) } };
  expect(fanSweep([silent], FANS).lacks).toMatch(/level/);
  expect(fanSweep([source(held(3000))], [...FANS, 'third']).lacks).toMatch(/every fan/);
});
