import {
  AXES,
  axisIn,
  levelCurve,
  quietOf,
  quietOrder,
  scatterOf,
  type Row,
} from './comparedFigures';

const row = (name: string, more: Partial<Row> = {}): Row => ({
  name,
  id: name,
  isCalibrated: false,
  at: [
    { cap: 'off', p05: 4, p50: 5, p95: 6 },
    { cap: 40, p05: 60, p50: 70, p95: 80 },
    { cap: 32, p05: 40, p50: 50, p95: 55 },
  ],
  wattsPerDb: 2.5,
  wattsPerKg: 30,
  wattsPerMm: null,
  finAreaCm2: 900,
  sweptCm2: 40,
  pipeSectionMm2: 60,
  massKg: 2,
  serviceScore: null,
  thicknessMm: null,
  ...more,
});

test('a curve goes over the levels alone, from the quietest', () => {
  expect(levelCurve(row('a'))).toEqual([
    [32, 50],
    [40, 70],
  ]);
});

test('two figures of each machine, with the band where there is one', () => {
  expect(scatterOf([row('a'), row('b', { finAreaCm2: 100 })], 'finAreaCm2', 'watts', 32)).toEqual([
    { name: 'a', x: 900, y: 50, xBand: null, yBand: [40, 55] },
    { name: 'b', x: 100, y: 50, xBand: null, yBand: [40, 55] },
  ]);
  expect(scatterOf([row('a')], 'watts', 'massKg', 40)[0]).toMatchObject({
    x: 70,
    y: 2,
    xBand: [60, 80],
    yBand: null,
  });
});

test('a machine without one of the figures, or without watts at the cap, has no point', () => {
  expect(
    scatterOf([row('a'), row('b', { thicknessMm: 20 })], 'thicknessMm', 'watts', 40),
  ).toMatchObject([{ name: 'b', x: 20 }]);
  expect(scatterOf([row('a')], 'massKg', 'watts', 36)).toEqual([]);
  // nothing at all is a figure too
  expect(scatterOf([row('a', { wattsPerDb: 0 })], 'wattsPerDb', 'massKg', 40)).toHaveLength(1);
});

test('an axis comes from the address, or is the usual one', () => {
  for (const [id] of AXES) expect(axisIn(id, 'watts')).toBe(id);
  expect(axisIn('constructor', 'finAreaCm2')).toBe('finAreaCm2');
  expect(axisIn(null, 'watts')).toBe('watts');
});

test('how quietly some watts are had, straight between the levels, with its band', () => {
  const own = row('a');
  expect(quietOf(own, 60)).toEqual({ levelDbA: 36, holds: 'at' });
  // the upper ends, 55 W at 32 and 80 W at 40, make the quiet end; the lower ones, 40 and 60 W, the loud one
  expect(quietOf(own, 60, 'p05')!.levelDbA).toBeCloseTo(33.6, 9);
  expect(quietOf(own, 60, 'p95')!.levelDbA).toBeCloseTo(40, 9);
  expect(quietOf(own, 50)).toEqual({ levelDbA: 32, holds: 'at-most' });
  expect(quietOf(own, 71)).toBeNull();
  expect([50, 51, 70, 71].map((w) => quietOrder(own, w))).toEqual([31, 32.4, 40, Infinity]);
});
