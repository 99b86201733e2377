import { openCase } from '../case/openCase';
import { fanNoise, noiseSum } from '../envelope/fanNoise';
import { controlGroups, fanState } from '../envelope/fanStates';
import { createState } from '../network/steadyState';
import { exampleRecord } from '../test-support/exampleRecord';
import { closedVentRecord, fansApart, lateFanRecord } from '../test-support/fansApartRecords';
import { nearStops, sharesOf } from './centralSplits';

test('a group that stands still has no share, whatever duty it was given', () => {
  const { data } = openCase({ record: lateFanRecord() }).model;
  const state = fanState(data, 0.6);
  expect(state.rpms).toEqual([3000, 0]);
  expect(sharesOf(data, state, 0.6)).toEqual([1, 0]);
  expect(sharesOf(data, state, 0.5)).toEqual([1.2, 0]);
  expect(sharesOf(data, fanState(data, 0), 0)).toEqual([0, 0]);
});

test.each([
  ['both blow well', fansApart(exampleRecord('two-fan-shared-pipes')), []],
  ['one blows through nearly closed vents', closedVentRecord(), [1]],
])('a group is near to be stopped where little is carried by it: %s', (_, record, stops) => {
  const { model } = openCase({ record });
  const noise = fanNoise(model.data, controlGroups(model.data));
  const near = (shares: number[]) =>
    nearStops(
      model,
      noise,
      { shares, of: [true] },
      [{ cpu: 0, gpu: 1 }],
      noiseSum(noise, 0.6),
      createState(model),
    );
  expect(near([1, 1])).toEqual(stops);
  // one that stands still cannot be stopped, nor the last that turns
  expect(near([1, 0])).toEqual([]);
});
