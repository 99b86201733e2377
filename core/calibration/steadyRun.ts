/**
 * One steady state of the bench: what was set and what was read. Readings that were not taken are absent. ± are one standard
 * deviation.
 */
export interface SteadyRun {
  id: string;
  ambientC: number;
  /** Speed of each fan by id. */
  rpm: Readonly<Record<string, number>>;
  /** As the machine reports them. */
  cpuW: number;
  gpuW: number;
  junctionC?: Readonly<Record<string, number>>;
  exhaustC?: Readonly<Record<string, number>>;
  skinC?: number;
  levelDbA?: number;
  wallW?: number;
}

export const READING_KINDS = ['junction', 'exhaust', 'skin', 'level', 'wall'] as const;
export type ReadingKind = (typeof READING_KINDS)[number];

/** One number read in a run. */
export interface Reading {
  run: number;
  kind: ReadingKind;
  /** Die or stack, else empty. */
  part: string;
  value: number;
  /** One standard deviation. */
  plusMinus: number;
}

/**
 * One standard deviation of each kind of reading, the wall meter's as a share.
 * Source: common practice, no source.
 */
export const READING_ERROR: Readonly<Record<ReadingKind, number>> = {
  junction: 1,
  exhaust: 1.5,
  skin: 2,
  level: 0.5,
  wall: 0.015,
};

/** Every reading of some runs, in a fixed order. */
export function readingsOf(runs: readonly SteadyRun[]): Reading[] {
  const out: Reading[] = [];
  runs.forEach((r, run) => {
    const add = (kind: ReadingKind, part: string, value: number | undefined) => {
      if (value === undefined) return;
      const plusMinus = READING_ERROR[kind] * (kind === 'wall' ? Math.max(1, value) : 1);
      out.push({ run, kind, part, value, plusMinus });
    };
    for (const [id, c] of Object.entries(r.junctionC ?? {})) add('junction', id, c);
    for (const [id, c] of Object.entries(r.exhaustC ?? {})) add('exhaust', id, c);
    add('skin', '', r.skinC);
    add('level', '', r.levelDbA);
    add('wall', '', r.wallW);
  });
  return out;
}
