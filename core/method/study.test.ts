import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { exampleRecord } from '../test-support/exampleRecord';
import { studyDocument, studyMachine, studyResult } from './study';

jest.setTimeout(600_000);

// the whole study, 40 machines with three runs each, is `npm run study`; one seed was taken, none was sought
test('hidden machines: logs are read, fitted, and the truth is foretold more narrowly than before', () => {
  const machines = [1, 2, 3].map((seed) =>
    studyMachine(exampleRecord('two-fan-shared-pipes'), seed, [0, 1]),
  );
  const before = studyResult(machines, 0);
  const after = studyResult(machines, 1);
  expect(after.halfBand).toBeLessThan(0.7 * before.halfBand);
  expect(after.inside).toBeGreaterThanOrEqual(2);
  // what is hidden differs from machine to machine
  const [a, b] = machines.map((m) => m.trueW);
  expect(Math.abs(a! / b! - 1)).toBeGreaterThan(0.01);
});

test('docs/study.md: its table is of its own machines, and as many lie inside as chance allows', () => {
  const text = readFileSync(join(__dirname, '../../docs/study.md'), 'utf8');
  const [, ...counts] = /\| all \| (\d+) of 40, [^|]*\| (\d+) of 40, [^|]*\| (\d+) of 40/.exec(
    text,
  )!;
  for (const count of counts.map(Number)) {
    expect(count).toBeGreaterThanOrEqual(33);
    expect(count).toBeLessThanOrEqual(39);
  }
  const rows = text.split('\n').filter((l) => /^\| (two|one) .* \| \d+\.\d \|/.test(l));
  expect(rows).toHaveLength(40);
  [3, 4, 5].forEach((column, k) => {
    const inside = rows.filter((r) => !r.split('|')[column]!.includes('outside')).length;
    expect(inside).toBe(Number(counts[k]));
  });
});

test('the document says how many lie inside', () => {
  const band = (low: number, high: number) => [0, 1, 3].map((runs) => ({ runs, low, high }));
  const machines = [
    { trueW: 50, bands: band(40, 60) },
    { trueW: 70, bands: band(40, 60) },
  ];
  expect(studyDocument([{ name: 'x', machines }])).toContain(
    '| x | 1 of 2, ±20.0 % | 1 of 2, ±20.0 % |',
  );
});
