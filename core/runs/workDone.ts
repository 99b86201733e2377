/** What a load told of itself, beside the watts it had. */
export interface LoadDone {
  /** What it is called; empty where nobody said. */
  load: string;
  score: number | null;
  framesPerS: number | null;
}

/** Something done with the watts of a steady state. */
export interface WorkDone {
  run: string;
  load: string;
  watts: number;
  done: number;
  unit: 'points' | 'frames/s';
  perWatt: number;
}

/**
 * Score and frame rate of a run: the rate as somebody wrote it down, else the mean of the log's own channel while it was steady.
 *
 * @param load of the run's sheet
 * @param means of the steady state, by channel
 * @returns null where neither is known
 */
export function loadDone(
  load:
    | {
        name?: string | undefined;
        score?: number | null | undefined;
        framesPerS?: number | null | undefined;
      }
    | undefined,
  means: Readonly<Record<string, { mean: number } | undefined>>,
): LoadDone | null {
  const score = load?.score ?? null;
  const framesPerS = load?.framesPerS ?? means['framesPerS']?.mean ?? null;
  if (score === null && framesPerS === null) return null;
  return { load: load?.name?.trim() ?? '', score, framesPerS };
}

/**
 * What was done with the watts, and how much of it for each.
 *
 * @param states steady states with the watts of both dies; those of loads that told nothing are left out, and of none but idle ones
 */
export function workDone(
  states: readonly {
    run: string;
    cpuW: number;
    gpuW: number;
    done?: LoadDone | null | undefined;
  }[],
): WorkDone[] {
  return states.flatMap(({ run, cpuW, gpuW, done }) => {
    const watts = cpuW + gpuW;
    if (!done || !(watts > 0)) return [];
    const row = (value: number | null, unit: WorkDone['unit']): WorkDone[] =>
      value === null
        ? []
        : [{ run, load: done.load, watts, done: value, unit, perWatt: value / watts }];
    return [...row(done.score, 'points'), ...row(done.framesPerS, 'frames/s')];
  });
}

/** The same in words: name, watts, what was done, and for each watt. */
export const workDoneCells = ({ run, load, watts, done, unit, perWatt }: WorkDone): string[] => [
  [load, run].filter(Boolean).join(', '),
  Number(watts.toFixed(1)).toString(),
  `${inDigits(done, unit === 'points' ? 0 : 1)} ${unit}`,
  inDigits(perWatt, perWatt < 10 ? 2 : perWatt < 100 ? 1 : 0),
];

/** Groups of three digits apart, no more behind the point than asked for. */
export const inDigits = (x: number, behind: number): string =>
  x.toLocaleString('en', { maximumFractionDigits: behind });
