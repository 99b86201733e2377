import { predictorOf } from '../calibration/predictReadings';
import {
  readingsOf,
  type Reading,
  type ReadingKind,
  type SteadyRun,
} from '../calibration/steadyRun';
import { openCase } from '../case/openCase';
import type { CaseRecord } from '../record/recordSchema';
import { normalQuantile } from '../uncertainty/normal';

/**
 * Runs as an invented machine would read on the bench: what the core foretells at its own figures, with the stated errors.
 *
 * @param record what was recorded; `values` are the machine's own figures in its place, by path
 * @param plan runs whose readings say by any number which are taken
 * @param next random numbers, 0…1; null: no errors
 * @param really what is really so in a run where its sheet says otherwise
 */
export function measured(
  record: CaseRecord,
  values: ReadonlyMap<string, number>,
  plan: readonly SteadyRun[],
  next: (() => number) | null,
  really: (run: SteadyRun, k: number) => SteadyRun = (run) => run,
): SteadyRun[] {
  const readings = readingsOf(plan);
  const true_ = predictorOf(openCase({ record }), plan.map(really), readings)(values);
  const read = readings.map((r, i) => {
    // an error may be a share of what is read
    const share = SHARES.has(r.kind) ? (r.plusMinus / Math.abs(r.value)) * true_[i]! : r.plusMinus;
    return true_[i]! + (next ? share * normalQuantile(next()) : 0);
  });
  return plan.map((run, k) => withReadings(run, readings, read, k));
}

const SHARES: ReadonlySet<ReadingKind> = new Set(['wall', 'flow', 'freeDelivery']);

function withReadings(
  run: SteadyRun,
  readings: readonly Reading[],
  read: readonly number[],
  k: number,
): SteadyRun {
  const of = (kind: ReadingKind) =>
    readings.flatMap((r, i) =>
      r.run === k && r.kind === kind ? [[r.part, read[i]!] as const] : [],
    );
  const parts = (name: keyof SteadyRun, kind: ReadingKind) =>
    run[name] === undefined ? {} : { [name]: Object.fromEntries(of(kind)) };
  const one = (name: keyof SteadyRun, kind: ReadingKind) =>
    run[name] === undefined ? {} : { [name]: of(kind)[0]![1] };
  return {
    ...run,
    ...parts('junctionC', 'junction'),
    ...parts('exhaustC', 'exhaust'),
    ...parts('finC', 'fin'),
    ...parts('pipeC', 'pipe'),
    ...parts('exhaustFlowLps', 'flow'),
    ...parts('freeDeliveryLps', 'freeDelivery'),
    ...one('skinC', 'skin'),
    ...one('levelDbA', 'level'),
    ...one('wallW', 'wall'),
  };
}
