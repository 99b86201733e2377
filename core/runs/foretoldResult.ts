import type { SteadyState } from './analyseLog';
import type { RunDocument } from './runDocument';

type Prediction = NonNullable<RunDocument['prediction']>;

/** A number that was read against what was foretold of it. */
export interface ResultOf {
  measured: number;
  p05: number;
  p50: number;
  p95: number;
  inBand: boolean;
}

/** What a run showed, against what was foretold before it. */
export interface ForetoldResult {
  madeAt: string;
  watts: ResultOf;
  levelDbA: ResultOf | null;
  junctionC: Record<string, ResultOf>;
  /** The log began before the prediction was made: it foretold nothing. */
  logIsOlder: boolean;
}

/**
 * Holds a steady state against the prediction that was frozen before the run.
 *
 * @param prediction what was foretold
 * @param steady the last steady state
 * @param log when the log began, s since 1970, where its times have a date
 * @param zoneS of the bench, what its clock is ahead of universal time; times without a zone are read both ways and a log is
 *   called older only where it is so in either
 * @param dies ids by role, for the junctions
 */
export function foretoldResult(
  prediction: Prediction,
  steady: SteadyState,
  log: { clockS: number | null; dated: boolean },
  dies: Readonly<Record<string, string>> = {},
  zoneS = 0,
): ForetoldResult | null {
  const cpuW = steady.means['cpuPowerW']?.mean ?? 0;
  const gpuW = steady.means['gpuPowerW']?.mean ?? 0;
  const on = prediction.on ?? 'both';
  const measured = on === 'cpu' ? cpuW : on === 'gpu' ? gpuW : cpuW + gpuW;
  if (!(measured > 0)) return null;
  const level = steady.means['levelDbA'];
  const junctionC: ForetoldResult['junctionC'] = {};
  for (const [role, is] of [
    ['cpu', 'cpuC'],
    ['gpu', 'gpuC'],
  ] as const) {
    const id = dies[role] ?? role;
    const read = steady.means[is]?.mean;
    const told = prediction.junctionC?.[id];
    if (read !== undefined && told) junctionC[id] = resultOf(read, told);
  }
  const madeS = Date.parse(prediction.madeAt) / 1000;
  return {
    madeAt: prediction.madeAt,
    watts: resultOf(measured, prediction.watts),
    levelDbA: level && prediction.levelDbA ? resultOf(level.mean, prediction.levelDbA) : null,
    junctionC,
    logIsOlder:
      log.clockS !== null && log.dated && Math.max(log.clockS, log.clockS - zoneS) < madeS,
  };
}

const resultOf = (
  measured: number,
  { p05, p50, p95 }: { p05: number; p50: number; p95: number },
): ResultOf => ({ measured, p05, p50, p95, inBand: measured >= p05 && measured <= p95 });
