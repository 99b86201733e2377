import { buildModel } from '../network/machineModel';
import { checkLabDefault, isDefaultKey, labDefaultsOf } from './labDefaults';
import { DEFAULTS } from './defaults';
import { resolveCase } from './resolveCase';
import { createResolver } from './resolver';
import { exampleRecord } from '../test-support/exampleRecord';

const two = exampleRecord('two-fan-shared-pipes');

describe('what stands in for a figure', () => {
  test('recorded before default, an override before both', () => {
    const r = createResolver(new Map([['fans.a.maxRpm', 4000]]));
    expect(r.figure('fans.a.maxRpm', 5000, 'fans.tipSpeedMs', 1)).toBe(4000);
    expect(r.figure('fans.b.maxRpm', { value: 5000 }, 'fans.tipSpeedMs', 1)).toBe(5000);
    expect(r.figure('fans.c.maxRpm', undefined, 'fans.tipSpeedMs', 10)).toBe(150);
    expect(r.assumed).toEqual([{ path: 'fans.c.maxRpm', value: 150, low: 120, high: 190 }]);
  });

  test('a lab’s default stands in for the built-in one and is listed with its own range', () => {
    const r = createResolver(undefined, { 'fans.psi': { value: 0.8, low: 0.75, high: 0.85 } });
    expect(r.factor('fans.psi')).toBe(0.8);
    expect(r.assumed).toEqual([{ path: 'fans.psi', value: 0.8, low: 0.75, high: 0.85 }]);
  });

  test('a factor of a kind of part may be set for the kind or for all', () => {
    const r = createResolver(
      new Map([
        ['fans.psi', 0.7],
        ['fans.psi.58x8', 0.95],
      ]),
    );
    expect(r.factor('fans.psi', '58x8')).toBe(0.95);
    expect(r.factor('fans.psi', '40x5')).toBe(0.7);
  });

  test('in order, the same values give the same case as by path', () => {
    const plain = resolveCase(two);
    const drawn = new Float64Array(plain.order.length).fill(NaN);
    const overrides = new Map<string, number>();
    plain.order.forEach((path, i) => {
      const input = plain.inputs.find((x) => x.path === path)!;
      // alternately changed and left
      if (i % 3 === 0 && !path.endsWith('Mm')) return;
      drawn[i] = input.value * 1.01;
      overrides.set(path, input.value * 1.01);
    });
    // every place at which a changed figure is asked for
    plain.order.forEach((path, i) => {
      if (overrides.has(path)) drawn[i] = overrides.get(path)!;
    });
    const byPath = resolveCase(two, overrides);
    const inOrder = resolveCase(two, { drawn, next: 0 }, { silent: true });
    const numbers = (data: object) =>
      JSON.stringify({ ...data, assumed: null, inputs: null, order: null });
    expect(numbers(inOrder)).toBe(numbers(byPath));
    expect(numbers(byPath)).not.toBe(numbers(plain));
  });

  test('every default that an estimate lists exists, and every path is listed once', () => {
    const { assumed, inputs } = resolveCase(two);
    expect(new Set(assumed.map((a) => a.path)).size).toBe(assumed.length);
    for (const i of inputs) if (i.recorded === null) expect(i.key in DEFAULTS).toBe(true);
    for (const a of assumed) {
      expect(a.low).toBeLessThanOrEqual(a.value);
      expect(a.high).toBeGreaterThanOrEqual(a.value);
    }
  });
});

describe('a lab’s own defaults', () => {
  test.each<[string, { value: number; low: number; high: number }, string[]]>([
    ['fans.psi', { value: 0.9, low: 0.8, high: 1 }, []],
    ['fans.psi', { value: 0.9, low: 0.95, high: 1 }, ['low']],
    ['fans.psi', { value: 0.9, low: 0.8, high: 0.85 }, ['high']],
    ['fans.leakage', { value: 0.1, low: 0, high: 0.2 }, ['low']],
    ['fans.leakage', { value: 0.1, low: 0.05, high: 1 }, ['high']],
    ['dies.thicknessMm', { value: 0.8, low: -0.1, high: 1 }, ['low']],
    ['dies.thicknessMm', { value: 0.8, low: 0.7, high: 801 }, ['high']],
    ['room.altitudeM', { value: 100, low: 0, high: 200 }, []],
    ['noise.sweepOffsetDb', { value: 0, low: -2, high: 2 }, []],
  ])('%s as %j: refused at %j', (key, entry, paths) => {
    expect(isDefaultKey(key)).toBe(true);
    expect(checkLabDefault(key as never, entry).map((i) => i.path)).toEqual(paths);
  });

  test('unknown keys are left out', () => {
    const entry = { value: 1, low: 1, high: 1, note: '' };
    expect(
      labDefaultsOf([
        ['fans.psi', entry],
        ['toString', entry],
      ]),
    ).toEqual({
      'fans.psi': { value: 1, low: 1, high: 1 },
    });
  });
});

test('pads: watts of the rest leave through them, no more than the rest has', () => {
  const record = structuredClone(two);
  record.power = { ...record.power, restW: 10 };
  record.pads = Array.from({ length: 6 }, (_, i) => ({
    id: `pad-${i}`,
    from: 'storage',
    to: 'base-cover',
    sourceW: 8,
  }));
  const data = resolveCase(record);
  expect(data.pads.reduce((sum, p) => sum + p.sourceW, 0)).toBe(48);
  const left = 10 * (1 - data.power.restLidShare);
  const { padTotalW } = buildModel(data);
  expect(padTotalW).toBeGreaterThan(0);
  expect(padTotalW).toBeLessThan(left);
});
