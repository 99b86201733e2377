import { resolveCase } from '../record/resolveCase';
import { exampleRecord } from '../test-support/exampleRecord';
import { evaporatorWidth } from './dieResistances';

const MARGIN = new Map([['heatPipes.evaporatorMarginMm', 3]]);
const data = (change: (r: ReturnType<typeof exampleRecord>) => void = () => undefined) => {
  const record = exampleRecord('one-die');
  Object.assign(record.dies![0]!, { widthMm: 8, lengthMm: 18 });
  change(record);
  return resolveCase(record, MARGIN);
};

test('on a plate a pipe takes up heat along the die and a margin on each side', () => {
  // the square of 8 × 18 mm is 12 mm wide
  expect(evaporatorWidth(data(), 0)).toBeCloseTo(0.012 + 2 * 0.003, 9);
});

test('a pipe on the bare die takes up heat along the die alone', () => {
  const bare = data();
  bare.plates[0] = { ...bare.plates[0]!, kind: 'none' };
  expect(evaporatorWidth(bare, 0)).toBeCloseTo(0.012, 9);
});
