import { possibleValues } from '../calibration/possibleValues';
import { predictorOf } from '../calibration/predictReadings';
import type { Reading, SteadyRun } from '../calibration/steadyRun';
import { openCase, type CaseRequest } from '../case/openCase';
import { quantileOfSorted } from '../uncertainty/quantile';
import { applyChanges } from './applyChanges';
import type { Change } from './lever';
import type { Gain } from './leverGains';

/** What levers brought, read in a run before and one after, against what was promised of just these two. */
export interface PromiseKept {
  /** Of the die that was nearest to its limit. */
  die: string;
  /** Cooler by so much at the watts, fans and room of the run after. */
  promisedK: Gain;
  readK: Gain;
  /**
   * Kept: the two bands meet, and something was gained for sure. Unclear: they meet, but so would nothing at all. Broken: they do
   * not meet.
   */
  verdict: 'kept' | 'unclear' | 'broken';
  watts: { before: number; after: number };
  levelDbA: { before: number; after: number } | null;
}

const SETS = 120;
/** A sensor reads whole kelvins, and twice: before and after. One standard deviation (common practice, no source). */
const SENSOR_K = Math.SQRT2;
const P95 = 1.645;

/**
 * Holds two runs against the promise of some levers. Runs are never just alike: what the machine before would have read in the run
 * after is told by the model, its rise over the room moved by the share that it was off in the run before, and what was read then is
 * held against that.
 *
 * @param request the machine as it was before
 * @param change of the levers
 * @param before, after steady runs
 * @returns null where no junction was read in both
 */
export function promiseKept(
  request: CaseRequest,
  change: readonly Change[],
  before: SteadyRun,
  after: SteadyRun,
): PromiseKept | null {
  const open = openCase(request);
  const limitOf = new Map(open.data.dies.map((d) => [d.id, d.maxJunctionC]));
  const dies = Object.keys(before.junctionC ?? {}).filter(
    (d) => limitOf.has(d) && after.junctionC?.[d] !== undefined,
  );
  const [die] = dies.sort(
    (a, b) => limitOf.get(a)! - before.junctionC![a]! - (limitOf.get(b)! - before.junctionC![b]!),
  );
  if (die === undefined) return null;
  const reading = (run: number): Reading => ({
    run,
    kind: 'junction',
    part: die,
    value: 0,
    plusMinus: 1,
  });
  const plain = { ...request, calibration: null };
  const changed = applyChanges(request.record, change, request.setting);
  const then = predictorOf(openCase(plain), [before, after], [reading(0), reading(1)]);
  const now = predictorOf(openCase({ ...plain, ...changed }), [after], [reading(0)]);
  const isChanged = (path: string) =>
    change.some((c) => path === c.path || path.startsWith(`${c.path}.`));
  const sets = possibleValues(open, SETS);
  const promised = new Float64Array(sets.length);
  const read = new Float64Array(sets.length);
  sets.forEach((values, k) => {
    const [atBefore, atAfter] = then(values) as unknown as [number, number];
    const kept = new Map([...values].filter(([path]) => !isChanged(path)));
    promised[k] = atAfter - now(kept)[0]!;
    // a machine that is warmer than its model is so at any load: by a share of its rise over the room
    const share =
      (before.junctionC![die]! - before.ambientC) / Math.max(1, atBefore - before.ambientC);
    read[k] = after.ambientC + share * (atAfter - after.ambientC) - after.junctionC![die]!;
  });
  const promisedK = bandOf(promised);
  const model = bandOf(read);
  const sensor = P95 * SENSOR_K;
  const readK = {
    p50: model.p50,
    p05: model.p50 - Math.hypot(model.p50 - model.p05, sensor),
    p95: model.p50 + Math.hypot(model.p95 - model.p50, sensor),
  };
  return {
    die,
    promisedK,
    readK,
    verdict:
      readK.p05 > promisedK.p95 || readK.p95 < promisedK.p05
        ? 'broken'
        : readK.p05 > 0
          ? 'kept'
          : 'unclear',
    watts: { before: before.cpuW + before.gpuW, after: after.cpuW + after.gpuW },
    levelDbA:
      before.levelDbA === undefined || after.levelDbA === undefined
        ? null
        : { before: before.levelDbA, after: after.levelDbA },
  };
}

function bandOf(values: Float64Array): Gain {
  const sorted = values.sort();
  const at = (p: number) => quantileOfSorted(sorted, p);
  return { p05: at(0.05), p50: at(0.5), p95: at(0.95) };
}
