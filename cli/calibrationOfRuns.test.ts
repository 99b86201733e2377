import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { exampleRecord } from '@zugluft/core/test-support/exampleRecord';
import { calibrationOfRuns } from './calibrationOfRuns';
import { simulatedRunsZip } from './test-support/runsZip';

const folder = mkdtempSync(join(tmpdir(), 'zugluft-runs-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
const ROOM_C = 23;

/** The same load, but from a row on with so much of its watts and of its warmth above the room. */
const dropped = (from: number, share: number) => (load: string) =>
  load
    .split('\n')
    .map((line, row) => {
      const [time, ...cells] = line.split(',');
      if (row < from || cells.length < 4) return line;
      const [cpuW, gpuW, cpuC, gpuC, ...rpm] = cells.map(Number);
      const warm = (c: number) => ROOM_C + share * (c - ROOM_C);
      return [time, cpuW! * share, gpuW! * share, warm(cpuC!), warm(gpuC!), ...rpm].join(',');
    })
    .join('\n');

test('a score belongs to the whole run: of several steady states only the last one has it', async () => {
  const file = join(folder, 'runs.zip');
  const load = { kind: 'benchmark', on: 'both', name: 'forest scene', score: 9240 };
  writeFileSync(file, simulatedRunsZip({ load }, dropped(1250, 0.7)));
  const { steady } = await calibrationOfRuns(
    file,
    { record: exampleRecord('two-fan-shared-pipes') },
    () => undefined,
  );
  expect(steady.length).toBeGreaterThan(1);
  expect(steady.map((s) => s.done?.score ?? null)).toEqual([
    ...steady.slice(1).map(() => null),
    9240,
  ]);
  expect(steady.at(-1)!.cpuW).toBeLessThan(0.8 * steady[0]!.cpuW);
});
