import fc from 'fast-check';
import { parseRecord } from '../record/parseRecord';
import { exampleRecord } from '../test-support/exampleRecord';
import { randomRecord } from '../test-support/randomRecord';
import { diffRecords } from './diffRecords';
import {
  confirmFigure,
  confirmText,
  copyForLike,
  copyForSibling,
  copyForUnit,
  isAssumedFromSibling,
  isAssumedText,
  standsIn,
} from './markAssumed';
import { carryCooling, joinCase, splitCase } from './splitCase';

const two = exampleRecord('two-fan-shared-pipes');

test.each(['two-fan-shared-pipes', 'four-fan-eight-pipes', 'one-die'] as const)(
  '%s is the same after splitting and joining, unknown fields too',
  (name) => {
    const record = structuredClone(exampleRecord(name)) as Record<string, unknown>;
    record['extra'] = { deep: [1, { x: null }] };
    (record['dies'] as Record<string, unknown>[])[0]!['colour'] = 'grey';
    (record['room'] as Record<string, unknown>)['draughty'] = true;
    expect(joinCase(splitCase(record as never))).toEqual(record);
  },
);

test('splitting and joining changes no random record', () => {
  fc.assert(
    fc.property(randomRecord, (r) => {
      expect(joinCase(splitCase(r))).toEqual(r);
    }),
    { numRuns: 50, endOnFailure: true },
  );
});

test('firmware, settings, dust, strips, paste and room are state; everything else is cooling', () => {
  const { cooling, state } = splitCase({
    ...two,
    identity: { ...two.identity, firmware: '1.04' },
    finStacks: two.finStacks!.map((s) => ({ ...s, lintShare: 0.2 })),
    strips: [{ id: 's', at: 'fins-left', state: 'removed', coversShare: 0.1 }],
  });
  expect(state['identity']).toEqual({ firmware: '1.04' });
  expect(state['strips']).toEqual([{ id: 's', state: 'removed' }]);
  expect((state['finStacks'] as unknown[])[0]).toMatchObject({ id: 'fins-left', lintShare: 0.2 });
  expect(state['settings']).toEqual(two.settings);
  expect(JSON.stringify(cooling)).not.toMatch(/lintShare|interface|firmware|settings|"room"/);
  expect(JSON.stringify(state)).not.toMatch(/depthMm|diameterMm|impeller/);
});

test('a figure of the cooling reaches the sibling, its own state stays', () => {
  const clean = structuredClone(two);
  clean.room = { temperatureC: 26 };
  clean.dies![0]!.interface = { kind: 'liquid-metal' };
  const after = structuredClone(two);
  after.finStacks![0]!.depthMm = 31;
  after.room = { temperatureC: 19 };
  const carried = carryCooling(two, after, clean);
  expect(carried.finStacks![0]!.depthMm).toBe(31);
  expect(carried.room).toEqual({ temperatureC: 26 });
  expect(carried.dies![0]!.interface).toEqual({ kind: 'liquid-metal' });
});

test('state follows a part that was renamed, and leaves with one that was removed', () => {
  const dusty = structuredClone(two);
  dusty.finStacks![1]!.lintShare = 0.4;
  dusty.noise = { sweep: [{ rpm: { 'fan-left': 3000, 'fan-right': 3000 }, dbA: 34 }] };
  const after = JSON.parse(
    JSON.stringify(two).replaceAll('fins-right', 'fins-r').replaceAll('fan-right', 'fan-r'),
  ) as typeof two;
  const carried = carryCooling(two, after, dusty);
  expect(carried.finStacks!.find((s) => s.id === 'fins-r')!.lintShare).toBe(0.4);
  expect(carried.noise!.sweep![0]!.rpm).toEqual({ 'fan-left': 3000, 'fan-r': 3000 });
  const fewer = { ...two, finStacks: two.finStacks!.slice(0, 1) };
  expect(JSON.stringify(carryCooling(two, fewer, dusty))).not.toContain('lintShare');
});

test('a fan that is taken out leaves the sibling’s sweep, which may still be kept', () => {
  const swept = structuredClone(two);
  swept.noise = { sweep: [{ rpm: { 'fan-left': 3000, 'fan-right': 3000 }, dbA: 34 }] };
  const after = structuredClone(two);
  after.fans = after.fans!.slice(0, 1);
  after.finStacks![1]!.fans = [];
  after.vents = after.vents!.map((x) => ({ ...x, fans: x.fans?.filter((f) => f === 'fan-left') }));
  const carried = carryCooling(two, after, swept);
  expect(carried.noise!.sweep![0]!.rpm).toEqual({ 'fan-left': 3000 });
  expect(parseRecord(carried).keepable).toBe(true);
  const none = carryCooling(two, { ...after, fans: [] }, swept);
  expect(parseRecord(none).issues.filter((i) => i.path.startsWith('noise'))).toEqual([]);
});

test('a copy for a sibling keeps every value, marks each as assumed and is refused nowhere', () => {
  const copy = copyForSibling(two, 'Heron 16, 8-core');
  const { issues, complete } = parseRecord(copy);
  expect(issues).toEqual([]);
  expect(complete).toBe(true);
  const depth = copy.finStacks![0]!.depthMm as Record<string, unknown>;
  expect(depth).toMatchObject({ origin: 'assumed', note: 'assumed from Heron 16, 8-core' });
  const text = JSON.stringify(copy);
  // no figure is left plain, and nothing of the one unit came along
  expect(text.match(/(Mm|Rpm|Count)":\d/)).toBeNull();
  expect(text).not.toMatch(/ageYears|temperatureC|sweep/);
  expect(isAssumedFromSibling(depth)).toBe(true);
  const confirmed = confirmFigure({ ...depth, plusMinus: 4 });
  expect(confirmed).toEqual({ value: depth['value'], origin: 'measured' });
  expect(isAssumedFromSibling(confirmed)).toBe(false);
  expect(isAssumedFromSibling(24)).toBe(false);
});

test('model code, where it was read and year of a sibling are assumed until somebody reads them off', () => {
  const from = {
    ...two,
    identity: { ...two.identity, modelCode: 'BH-16', modelCodeFrom: 'underside', year: 2025 },
  };
  const { identity } = copyForSibling(from, 'Heron 16');
  expect(identity).toMatchObject({
    modelCode: 'BH-16',
    assumed: ['modelCode', 'modelCodeFrom'],
    year: { value: 2025, origin: 'assumed', note: 'assumed from Heron 16' },
  });
  expect(isAssumedText(identity, 'modelCode')).toBe(true);
  expect(isAssumedText(identity, 'maker')).toBe(false);
  const once = confirmText(identity, 'modelCode');
  expect(once!.assumed).toEqual(['modelCodeFrom']);
  expect(confirmText(once, 'modelCodeFrom')).not.toHaveProperty('assumed');
  expect(confirmText(identity, 'maker')).toBe(identity);
  const none = copyForSibling({ ...two, identity: { maker: 'Oslund' } }, 'x').identity;
  expect(none).toEqual({ maker: 'Oslund' });
});

test('a copy for another unit keeps the cooling as it was measured, with paste of unknown age', () => {
  const copy = copyForUnit(two);
  expect(splitCase(copy).cooling).toEqual(splitCase(two).cooling);
  expect(JSON.stringify(copy)).not.toContain('ageYears');
});

test('differences name parts by id, figures whole, and parts that came or went once', () => {
  const after = structuredClone(two);
  after.finStacks![1]!.depthMm = { value: 25, plusMinus: 0.2, origin: 'measured' };
  after.fans!.push({ id: 'fan-third', impellerDiameterMm: 40 });
  after.vents = after.vents!.slice(1);
  (after.settings![0] as Record<string, unknown>)['preset'] = 'quiet';
  const before = two.finStacks![1]!.depthMm;
  expect(diffRecords(two, after)).toEqual(
    expect.arrayContaining([
      { path: 'finStacks.fins-right.depthMm', before, after: after.finStacks![1]!.depthMm },
      { path: 'fans.fan-third', after: { id: 'fan-third', impellerDiameterMm: 40 } },
      { path: `vents.${two.vents![0]!.id}`, before: two.vents![0] },
    ]),
  );
  expect(diffRecords(two, after)).toHaveLength(4);
  expect(diffRecords(two, structuredClone(two))).toEqual([]);
  expect(diffRecords({ a: 3 }, { a: { value: 3 } })).toEqual([]);
  expect(diffRecords({ a: [1, 2] }, { a: [2, 1] })).toEqual([
    { path: 'a', before: [1, 2], after: [2, 1] },
  ]);
  expect(diffRecords({}, { b: { c: 1 } })).toEqual([{ path: 'b', after: { c: 1 } }]);
});

test('whatever differs is found: applying no difference means equal', () => {
  fc.assert(
    fc.property(randomRecord, randomRecord, (a, b) => {
      const equal = JSON.stringify(a) === JSON.stringify(b);
      expect(diffRecords(a, b).length === 0).toBe(equal);
      // turned round, before and after change places
      expect(
        diffRecords(b, a)
          .map((d) => d.path)
          .sort(),
      ).toEqual(
        diffRecords(a, b)
          .map((d) => d.path)
          .sort(),
      );
    }),
    { numRuns: 40, endOnFailure: true },
  );
});

test('a machine like another one: its figures are assumed as widely as what nobody knows, its name is left', () => {
  const from = structuredClone(two);
  from.finStacks![0]!.depthMm = { value: 24, plusMinus: 0.1, origin: 'measured' };
  const copy = copyForLike(from, 'Heron 16');
  expect(copy.identity).toBeUndefined();
  expect(copy.finStacks![0]!.depthMm).toEqual({
    value: 24,
    origin: 'assumed',
    note: 'assumed from Heron 16',
  });
  expect(JSON.stringify(copy)).not.toContain('plusMinus');
  expect(parseRecord(copy).complete).toBe(true);
  expect(standsIn(copy.finStacks![0]!.depthMm)).toBe(true);
  expect(standsIn({ value: 2, origin: 'estimated', note: 'quick count' })).toBe(true);
  expect(standsIn({ value: 2, origin: 'estimated' })).toBe(false);
});
