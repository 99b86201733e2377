import type { CaseRecord } from '../record/recordSchema';
import { completeRecord, exampleRecord } from '../test-support/exampleRecord';
import { caseKeyOf, withCalibration } from './caseKey';

const record = completeRecord(exampleRecord('two-fan-shared-pipes'));
const changed = (change: (r: CaseRecord) => void): CaseRecord => {
  const copy = structuredClone(record);
  change(copy);
  return copy;
};
const key = caseKeyOf({ record });

test('figures, ±, parts and defaults make another case; room, settings and words do not', () => {
  const others = [
    changed((r) => void (r.fans![0]!.maxRpm = 4999)),
    changed(
      (r) => void (r.finStacks![0]!.depthMm = { value: 24, plusMinus: 0.5, origin: 'measured' }),
    ),
    changed(
      (r) => void (r.finStacks![0]!.depthMm = { value: 24, plusMinus: 0.4, origin: 'measured' }),
    ),
    changed((r) => void r.heatPipes!.pop()),
  ].map((r) => caseKeyOf({ record: r }));
  expect(new Set([key, ...others]).size).toBe(5);
  expect(
    caseKeyOf({ record, lab: { defaults: { 'fans.psi': { value: 0.8 } } } as never }),
  ).not.toBe(key);
  const same = [
    changed((r) => void (r.room = { ...r.room, temperatureC: 31 })),
    changed((r) => void (r.settings = [])),
    changed((r) => void (r.identity = { ...r.identity, maker: 'Another' } as never)),
  ];
  for (const r of same) expect(caseKeyOf({ record: r })).toBe(key);
});

test('a default that was learned makes no other case, one that was typed does', () => {
  const psi = { value: 0.8, low: 0.7, high: 0.9 };
  const learned = { defaults: { 'fans.psi': { ...psi, learned: true as const } } };
  expect(caseKeyOf({ record, lab: learned })).toBe(key);
  expect(caseKeyOf({ record, lab: { defaults: { 'fans.psi': psi } } })).not.toBe(key);
});

test('a calibration stands only over the case that it was fitted to', () => {
  const calibration = { paths: [], values: [], rows: new Float64Array(), count: 0 };
  expect(withCalibration({ record }, null)).toEqual({ request: { record }, lapsed: false });
  expect(withCalibration({ record }, { calibration, caseKey: key }).request.calibration).toBe(
    calibration,
  );
  const lapsed = withCalibration({ record }, { calibration, caseKey: 'other' });
  expect(lapsed).toEqual({ request: { record }, lapsed: true });
});
