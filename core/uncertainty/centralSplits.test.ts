import { openCase } from '../case/openCase';
import { fanNoise, noiseSum } from '../envelope/fanNoise';
import { controlGroups, fanState } from '../envelope/fanStates';
import { createState } from '../network/steadyState';
import { exampleRecord } from '../test-support/exampleRecord';
import { nearStops, sharesOf } from './centralSplits';

const record = exampleRecord('two-fan-shared-pipes');
for (const fan of record.fans!) fan.control = 'own';

test('a group that stands still has no share, whatever duty it was given', () => {
  const late = structuredClone(record);
  late.fans![1]!.minRpm = 4500;
  const { data } = openCase({ record: late }).model;
  const state = fanState(data, 0.6);
  expect(state.rpms).toEqual([3000, 0]);
  expect(sharesOf(data, state, 0.6)).toEqual([1, 0]);
  expect(sharesOf(data, state, 0.5)).toEqual([1.2, 0]);
  expect(sharesOf(data, fanState(data, 0), 0)).toEqual([0, 0]);
});

test.each([
  ['both blow well', 0.45, 0.65, []],
  ['one blows through nearly closed vents', 0.02, 0.02, [1]],
])('a group is near to be stopped where little is carried by it: %s', (_, base, rear, stops) => {
  const own = structuredClone(record);
  own.vents![1]!.openShare = base;
  own.vents![3]!.openShare = rear;
  const { model } = openCase({ record: own });
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
