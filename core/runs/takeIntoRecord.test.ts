import { openCase } from '../case/openCase';
import { parseRecord } from '../record/parseRecord';
import { completeRecord, exampleRecord } from '../test-support/exampleRecord';
import { takeFirmware } from './takeFirmware';
import { takeSweep } from './takeSweep';

const record = completeRecord(exampleRecord('two-fan-shared-pipes'));

test('figures of the firmware go into their setting as measured, others stay', () => {
  const first = record.settings![0]!;
  const next = takeFirmware(record, first.id, [
    { path: 'cpuSustainedW', value: 44.96, plusMinus: 0.45 },
    { path: 'later.afterS', value: 361.2, plusMinus: 2 },
  ]);
  expect(next.settings![0]).toMatchObject({
    ...first,
    cpuSustainedW: { value: 45, plusMinus: 0.5, origin: 'measured' },
    later: { ...first.later, afterS: { value: 361.2, plusMinus: 2, origin: 'measured' } },
  });
  expect(next.settings!.slice(1)).toEqual(record.settings!.slice(1));
  expect(parseRecord(next).complete).toBe(true);
});

test('a record without that setting gets it', () => {
  const { settings: _, ...bare } = record;
  const next = takeFirmware(bare, 'as-run', [{ path: 'cpuSustainedW', value: 45, plusMinus: 0.4 }]);
  expect((next as typeof record).settings).toEqual([
    { id: 'as-run', cpuSustainedW: { value: 45, plusMinus: 0.4, origin: 'measured' } },
  ]);
});

test('a sweep takes the place of the one there; bounds stay out, and no background is taken off twice', () => {
  const points = [
    { rpm: { 'fan-left': 2500, 'fan-right': 2500 }, dbA: 29.94, plusMinus: 0.04, upperBound: true },
    { rpm: { 'fan-left': 3500, 'fan-right': 3500 }, dbA: 37.26, plusMinus: 0.5, upperBound: false },
  ];
  const before = { ...record, noise: { ...record.noise, backgroundDbA: 34, distanceM: 0.5 } };
  const next = takeSweep(before, points);
  expect(next.noise).toEqual({
    ...record.noise,
    distanceM: 0.5,
    sweep: [{ rpm: points[1]!.rpm, dbA: { value: 37.3, plusMinus: 0.5, origin: 'measured' } }],
  });
  // the machine is as loud as was measured
  expect(openCase({ record: next }).data.noise.sweep[0]!.dbA).toBeCloseTo(37.3, 6);
});
