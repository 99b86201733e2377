import { resolveCase } from '../record/resolveCase';
import { exampleRecord } from '../test-support/exampleRecord';
import { openCase } from '../case/openCase';
import type { CaseRecord } from '../record/recordSchema';
import { plateReference } from '../test-support/plateReference';
import { sharedPlate } from '../test-support/sharedPlate';
import { evaporatorWidth, pipesTouching } from './dieResistances';

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

/** Two dies by how the plate is cooled: against three-dimensional conduction by finite volumes of 1 mm. */
test.each<[string, (r: CaseRecord) => void, { x: number; y: number }[]]>([
  [
    'places not recorded',
    () => undefined,
    [
      { x: 22.5, y: 20 },
      { x: 67.5, y: 20 },
    ],
  ],
  [
    'places recorded, off the middle',
    (r) =>
      (r.plates![0]!.places = [
        { die: 'cpu', xMm: 15, yMm: 18 },
        { die: 'gpu', xMm: 64, yMm: 22 },
      ] as never),
    [
      { x: 15, y: 18 },
      { x: 64, y: 22 },
    ],
  ],
])('two dies on one plate, %s: within 10 %% of three-dimensional conduction', (_, change, at) => {
  const open = openCase({ record: sharedPlate(change) });
  const { data, model } = open;
  const plate = data.plates[0]!;
  const out = model.links.reduce(
    (sum, l) =>
      l.a === model.plateNode[0] || l.b === model.plateNode[0] ? sum + l.conductanceWPerK : sum,
    0,
  );
  const touched = pipesTouching(data, 0);
  const across = Math.min(touched.widthM, evaporatorWidth(data, 0));
  const hWm2K = out / (touched.lengthM * across);
  const sources = data.dies.map((d, i) => ({
    centreXM: at[i]!.x * 1e-3,
    centreYM: at[i]!.y * 1e-3,
    widthM: d.widthM,
    lengthM: d.lengthM,
  }));
  const cooled = {
    fromXM: 0,
    toXM: 0.09,
    fromYM: 0.02 - across / 2,
    toYM: 0.02 + across / 2,
  };
  const own = { ...plate, sources, cooled, hWm2K };
  data.dies.forEach((_die, i) => {
    const reference = plateReference(own, i, 1e-3)[i]!;
    const ours = model.dieSteps[i]!.plateKPerW + 1 / out;
    expect(Math.abs(ours / reference - 1)).toBeLessThan(0.1);
  });
});

test('a die that shrinks to nothing changes the other one’s resistance by nothing', () => {
  const plateKPerW = (side: number) =>
    openCase({
      record: sharedPlate((r) => Object.assign(r.dies![0]!, { widthMm: side, lengthMm: side })),
    }).model.dieSteps[1]!.plateKPerW;
  expect(Math.abs(plateKPerW(1) / plateKPerW(12) - 1)).toBeLessThan(0.02);
});

test('a die beside what the pipes touch has its way to them', () => {
  const at = (xMm: number) =>
    openCase({
      record: sharedPlate((r) => {
        r.plates![0]!.places = [
          { die: 'cpu', xMm, yMm: 20 },
          { die: 'gpu', xMm: 45, yMm: 20 },
        ];
        for (const p of r.heatPipes!) Object.assign(p.along![1]!, { fromMm: 110, toMm: 180 });
      }),
    }).model.dieSteps[0]!.plateKPerW;
  expect(at(8)).toBeGreaterThan(1.02 * at(16));
});

test('a sensor that reports too little: all that a watt does is as much more', () => {
  const record = exampleRecord('two-fan-shared-pipes');
  const plain = openCase({ record }).model;
  const low = openCase({ record, overrides: new Map([['dies.sensorGain.cpu', 1.25]]) }).model;
  const sum = (x: Float64Array) => x.reduce((a, b) => a + b, 0);
  expect(low.drawPerCpuW / plain.drawPerCpuW).toBeCloseTo(1.25, 12);
  expect(sum(low.heatPerCpuW) / sum(plain.heatPerCpuW)).toBeCloseTo(1.25, 12);
  expect(low.dieBeyondCpuKPerW[0]! / plain.dieBeyondCpuKPerW[0]!).toBeCloseTo(1.25, 12);
  expect(low.drawPerGpuW).toBe(plain.drawPerGpuW);
});
