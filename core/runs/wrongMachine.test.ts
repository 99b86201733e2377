import { openCase } from '../case/openCase';
import { completeRecord, exampleRecord } from '../test-support/exampleRecord';
import { wrongMachine } from './wrongMachine';

const two = openCase({ record: completeRecord(exampleRecord('two-fan-shared-pipes')) });
const one = openCase({ record: completeRecord(exampleRecord('one-die')) });
const log = (channels: Record<string, number>, rows = 200) => ({
  lines: Float64Array.from({ length: rows }, (_, i) => i + 2),
  columns: Object.entries(channels).map(([is, x]) => ({
    column: is,
    is,
    unit: '',
    values: new Float64Array(rows).fill(x),
  })),
});
const said = (channels: Record<string, number>, open = two) =>
  wrongMachine(log(channels) as never, open).map((p) => p.message);

test('a log of this machine raises no question', () => {
  expect(
    said({ cpuPowerW: 50, gpuPowerW: 60, cpuC: 97, gpuC: 86, 'fanRpm.fan-left': 5000 }),
  ).toEqual([]);
  expect(said({ cpuPowerW: 15, gpuPowerW: 0.5 }, one)).toEqual([]);
});

test('a die that is not there, one beyond its limit, and fans that are too fast are asked about', () => {
  expect(said({ cpuPowerW: 15, gpuPowerW: 40 }, one)).toEqual([
    expect.stringMatching(/a GPU is loaded and the record has none/),
  ]);
  expect(said({ cpuC: two.data.dies[0]!.maxJunctionC + 7 })).toEqual([
    expect.stringMatching(/hotter than it may be/),
  ]);
  expect(said({ 'fanRpm.fan-left': 1.2 * two.data.fans[0]!.maxRpm })).toEqual([
    expect.stringMatching(/fan-left turns faster than it can/),
  ]);
});

test('a single odd reading is its logger’s, and the row is that of the file', () => {
  const odd = log({ cpuC: 80 });
  odd.columns[0]!.values[50] = 200;
  expect(wrongMachine(odd as never, two)).toEqual([]);
  odd.columns[0]!.values.fill(200, 50, 60);
  expect(wrongMachine(odd as never, two)[0]).toMatchObject({ row: 52, column: 'cpuC' });
});
