import { openCase } from '../case/openCase';
import { simulatedLogs } from '../instruments/simulatedLogs';
import { normalQuantile } from '../uncertainty/normal';
import { randomStream } from '../uncertainty/random';
import { completeRecord, exampleRecord } from '../test-support/exampleRecord';
import { logOfCsv } from '../test-support/logOfCsv';
import { analyseLog } from '../runs/analyseLog';
import { joinLogs, placeLogs, type LogPlace } from '../runs/alignLogs';
import { partIdsOf, withPartIds } from '../runs/partIds';
import { steadyRunOf } from '../runs/steadyRunOf';
import { calibrate } from './calibrate';
import { multipliersOf, valuesAt } from './multipliers';
import type { SteadyRun } from './steadyRun';

const record = completeRecord(exampleRecord('two-fan-shared-pipes'));
const open = openCase({ record });
/** A machine whose figures are hidden. */
const next = randomStream(5);
const parameters = multipliersOf(open);
const truth = openCase({
  record,
  overrides: valuesAt(
    parameters,
    parameters.map(() => normalQuantile(next())),
  ),
});

function runOf(id: string, options: object): SteadyRun {
  const made = simulatedLogs(truth, { seed: 2, loadS: 900, ...options });
  const logs = [logOfCsv(made.load), logOfCsv(made.level)];
  const joined = joinLogs(logs, placeLogs(logs) as LogPlace[]);
  const log = { ...joined, columns: withPartIds(joined.columns, partIdsOf(open)) };
  const { steady } = analyseLog(log, { backgroundDbA: 19 });
  const run = steadyRunOf({ id }, steady[steady.length - 1]!, open);
  if ('message' in run) throw new Error(run.message);
  return run;
}

const full = runOf('full', { cap: 'full' });
const quiet = runOf('quiet', { cap: 38 });
const caps = [32, 40, 'full'] as const;

test('one run narrows the band at every cap, and the run held out lies in what was foretold of it', () => {
  const { answer, calibration } = calibrate({ record }, [full], [quiet], caps);
  expect(answer.caps.map((c) => c.cap)).toEqual([...caps]);
  for (const { before, after } of answer.caps) {
    expect(after.p95 - after.p05).toBeLessThan(0.8 * (before.p95 - before.p05));
    expect(after.p50).toBeGreaterThan(after.p05);
    expect(after.p50).toBeLessThan(after.p95);
  }
  const read = answer.heldOut.filter((r) => r.run === 'quiet');
  expect(read.map((r) => r.kind)).toEqual(['junction', 'junction', 'level', 'held']);
  expect(read.every((r) => r.inside)).toBe(true);
  expect(answer.residuals.every((r) => r.run === 'full')).toBe(true);
  expect(answer.unexplained).toBe(false);
  expect(answer.effectiveDraws).toBeGreaterThanOrEqual(200);
  expect(calibration.rows).toHaveLength(calibration.count * calibration.paths.length);
});

test('a level that is only known to be at most so much is inside unless more was foretold', () => {
  const bound = (levelDbA: number) => {
    const run = { ...quiet, levelDbA, levelIsUpperBound: true };
    const { answer } = calibrate({ record }, [full], [run], [40], { draws: 60 });
    return answer.heldOut.find((r) => r.kind === 'level')!;
  };
  expect(bound(60)).toMatchObject({ atMost: true, inside: true });
  expect(bound(20)).toMatchObject({ atMost: true, inside: false });
});

test('a run that contradicts the others is named by its id', () => {
  const wrong = { ...quiet, id: 'wrong', cpuW: 2 * quiet.cpuW, gpuW: 2 * quiet.gpuW };
  const third = runOf('third', { cap: 'full', gpuLoadW: 0 });
  const { answer } = calibrate({ record }, [full, wrong, third], [], [40], { draws: 60 });
  expect(answer.contradictions[0]).toMatchObject({ run: 'wrong' });
});

test('without a reading there is nothing to fit', () => {
  expect(() => calibrate({ record }, [], [quiet], [40])).toThrow(RangeError);
});
