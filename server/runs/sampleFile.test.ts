import type { Log } from '@zugluft/core/logs/readLog';
import { readSamples, writeSamples } from './sampleFile';

const log: Log = {
  timeS: Float64Array.of(0, 0.5, 1),
  clockS: 1_795_600_000,
  dated: true,
  lines: Float64Array.of(2, 3, 5),
  columns: [
    { column: 'CPU [W]', is: 'cpuPowerW', unit: 'W', values: Float64Array.of(45, NaN, 46.25) },
    { column: 'odd.name', is: 'other.odd.name', unit: '', values: Float64Array.of(1, 2, 3) },
  ],
  gaps: [{ fromS: 1, toS: 9 }],
  clockJumps: [],
  problems: [{ row: 4, column: 'CPU [W]', message: 'x' }],
};

test('samples come back as they were, silence as silence', () => {
  const back = readSamples(writeSamples(log));
  expect(back).toEqual(log);
  expect(back.columns[0]!.values[1]).toBeNaN();
});

test('the file is an Arrow file that others read', () => {
  expect(Buffer.from(writeSamples(log).subarray(0, 6)).toString()).toBe('ARROW1');
});

test('what is no such file is refused', () => {
  expect(() => readSamples(new Uint8Array(10))).toThrow();
});
