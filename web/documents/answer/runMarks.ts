import type { CapEstimate } from '@zugluft/core/case/answer';
import type { Cap } from '@zugluft/core/envelope/fanStates';
import type { SteadyOfRuns } from '@zugluft/core/library/runAnswers';
import type { LoadDone } from '@zugluft/core/runs/workDone';
import type { ReadoutName } from './NoiseLadder';

/** A steady state of a run, as it is marked on envelope and ladder. */
export interface RunMark {
  key: string;
  name: string;
  use: 'fit' | 'hold-out' | 'leave-out';
  cpuW: number;
  gpuW: number;
  cpuPlusMinus: number;
  gpuPlusMinus: number;
  levelDbA: number | null;
  /** Score and frame rate of its load. */
  done: LoadDone | null;
  /** Which readout it is one of. */
  readout: ReadoutName;
}

/** A die below this share of both is not loaded. */
const ALONE = 0.12;
/** A run belongs to a rung whose level is within this of its own, dB. */
const NEAR_DB = 1.5;

/**
 * The last steady state of each run that has powers.
 *
 * @param runs of a machine
 * @param nameOf what a run is called
 */
export function runMarks(
  runs: SteadyOfRuns['items'],
  nameOf: (run: SteadyOfRuns['items'][number]) => string,
): RunMark[] {
  return runs.flatMap((run) => {
    const last = run.states[run.states.length - 1];
    const cpu = last?.means['cpuPowerW'];
    const gpu = last?.means['gpuPowerW'];
    if (!last || (!cpu && !gpu)) return [];
    const cpuW = Math.max(0, cpu?.mean ?? 0);
    const gpuW = Math.max(0, gpu?.mean ?? 0);
    const sum = cpuW + gpuW;
    if (!(sum > 0) || run.on === 'none') return [];
    return [
      {
        key: run.id,
        name: nameOf(run),
        use: run.use,
        cpuW,
        gpuW,
        cpuPlusMinus: cpu?.plusMinus ?? 0,
        gpuPlusMinus: gpu?.plusMinus ?? 0,
        levelDbA: last.means['levelDbA']?.mean ?? null,
        done: run.done,
        readout: gpuW < ALONE * sum ? 'cpuAlone' : cpuW < ALONE * sum ? 'gpuAlone' : 'together',
      },
    ];
  });
}

/** Watts that a mark has on a readout, with their ±. */
export const markWatts = (m: RunMark): { watts: number; plusMinus: number } =>
  m.readout === 'cpuAlone'
    ? { watts: m.cpuW, plusMinus: m.cpuPlusMinus }
    : m.readout === 'gpuAlone'
      ? { watts: m.gpuW, plusMinus: m.gpuPlusMinus }
      : { watts: m.cpuW + m.gpuW, plusMinus: Math.hypot(m.cpuPlusMinus, m.gpuPlusMinus) };

/** Marks of a readout by the rung they belong to: the one whose level is nearest, where one is near; of two as near the quieter. */
export function marksByRung(
  marks: readonly RunMark[],
  caps: readonly CapEstimate[],
  readout: ReadoutName,
): Map<Cap, RunMark[]> {
  const out = new Map<Cap, RunMark[]>();
  for (const mark of marks) {
    if (mark.readout !== readout || mark.levelDbA === null) continue;
    let best: { cap: Cap; off: number } | null = null;
    for (const { cap, levelDbA } of caps) {
      const level = typeof cap === 'number' ? cap : levelDbA;
      if (level === null) continue;
      const off = Math.abs(level - mark.levelDbA);
      if (off <= NEAR_DB && off < (best?.off ?? Infinity) - 1e-9) best = { cap, off };
    }
    if (best) out.set(best.cap, [...(out.get(best.cap) ?? []), mark]);
  }
  return out;
}
