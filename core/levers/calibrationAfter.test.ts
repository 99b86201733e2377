import { calibrationAfter } from './calibrationAfter';

const calibration = {
  paths: ['a.x', 'a.xy', 'b.y', 'b.y.z'],
  values: [1, 2, 3, 4],
  rows: Float64Array.from([1, 2, 3, 4, 5, 6, 7, 8]),
  count: 2,
};

test('what was changed is no longer what was learned of it; all else stays, row by row', () => {
  expect(calibrationAfter(calibration, ['b.y', 'a.x'])).toEqual({
    paths: ['a.xy'],
    values: [2],
    rows: Float64Array.from([2, 6]),
    count: 2,
  });
  expect(calibrationAfter(calibration, ['c'])).toBe(calibration);
  expect(calibrationAfter(calibration, ['b']).paths).toEqual(['a.x', 'a.xy']);
});
