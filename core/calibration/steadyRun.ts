/**
 * One steady state of the bench: what was set and what was read. Readings that were not taken are absent. ± are one standard
 * deviation.
 */
export interface SteadyRun {
  id: string;
  ambientC: number;
  /** Speed of each fan by id; 0 where it stands still. */
  rpm: Readonly<Record<string, number>>;
  /** As the machine reports them; near nothing when it idles. */
  cpuW: number;
  gpuW: number;
  junctionC?: Readonly<Record<string, number>>;
  exhaustC?: Readonly<Record<string, number>>;
  /** Surface of a fin block, where its pipes lie. */
  finC?: Readonly<Record<string, number>>;
  /** Surface of a pipe between the parts it touches. */
  pipeC?: Readonly<Record<string, number>>;
  skinC?: number;
  levelDbA?: number;
  /** The background was less than 6 dB lower: the machine is not louder than was read. */
  levelIsUpperBound?: boolean;
  wallW?: number;
  /** Air out of a stack as installed, caught in a bag of known volume or by an anemometer over its vent. */
  exhaustFlowLps?: Readonly<Record<string, number>>;
  /** Air out of a fan that blows freely, taken out, at the speed of the run. */
  freeDeliveryLps?: Readonly<Record<string, number>>;
  /** How long the watts were held while no temperature ran away: no pipe has dried out. */
  heldS?: number;
  /** One standard deviation of a kind of reading where it is known better than usual; a share for wall and flows. */
  plusMinus?: Readonly<Partial<Record<ReadingKind, number>>>;
}

export const READING_KINDS = [
  'junction',
  'exhaust',
  'fin',
  'pipe',
  'skin',
  'level',
  'wall',
  'flow',
  'freeDelivery',
  'held',
] as const;
export type ReadingKind = (typeof READING_KINDS)[number];

/** One number read in a run. */
export interface Reading {
  run: number;
  kind: ReadingKind;
  /** Die, stack, pipe or fan; empty where the whole machine is meant. */
  part: string;
  value: number;
  /** One standard deviation. */
  plusMinus: number;
  /** The truth is not above the value; below it nothing is told. */
  atMost?: true;
}

/**
 * One standard deviation of each kind of reading; as shares for the wall meter and flows. Of a pipe that held it is how
 * sharply dry-out begins, as a share of the limit.
 * Source: common practice, no source.
 */
export const READING_ERROR: Readonly<Record<ReadingKind, number>> = {
  junction: 1,
  exhaust: 1.5,
  fin: 1.5,
  pipe: 1.5,
  skin: 2,
  level: 0.5,
  wall: 0.015,
  flow: 0.1,
  freeDelivery: 0.1,
  held: 0.05,
};

/** Kinds whose ± is a share of what was read. */
const OF_VALUE: ReadonlySet<ReadingKind> = new Set(['wall', 'flow', 'freeDelivery']);

/** A pipe that dries out shows within about two minutes (common practice, no source); what was held shorter tells nothing. */
export const DRY_OUT_SHOWS_S = 120;

/** Every reading of some runs, in a fixed order. */
export function readingsOf(runs: readonly SteadyRun[]): Reading[] {
  const out: Reading[] = [];
  runs.forEach((r, run) => {
    const add = (kind: ReadingKind, part: string, value: number | undefined, atMost = false) => {
      if (value === undefined) return;
      const error = r.plusMinus?.[kind] ?? READING_ERROR[kind];
      const plusMinus = OF_VALUE.has(kind) ? error * Math.max(1e-3, Math.abs(value)) : error;
      out.push({ run, kind, part, value, plusMinus, ...(atMost ? { atMost } : {}) });
    };
    const each = (kind: ReadingKind, values: Readonly<Record<string, number>> | undefined) => {
      for (const [id, value] of Object.entries(values ?? {})) add(kind, id, value);
    };
    each('junction', r.junctionC);
    each('exhaust', r.exhaustC);
    each('fin', r.finC);
    each('pipe', r.pipeC);
    add('skin', '', r.skinC);
    add('level', '', r.levelDbA, r.levelIsUpperBound);
    add('wall', '', r.wallW);
    each('flow', r.exhaustFlowLps);
    each('freeDelivery', r.freeDeliveryLps);
    // the share of its limit that the pipe nearest to it carried was not above 1
    if ((r.heldS ?? 0) >= DRY_OUT_SHOWS_S) add('held', '', 1, true);
  });
  return out;
}

/** How far a reading is from what was foretold, in its own deviations; a bound that is kept is no distance. */
export function deviationOf({ value, plusMinus, atMost }: Reading, predicted: number): number {
  const r = (value - predicted) / plusMinus;
  return atMost && r > 0 ? 0 : r;
}

/** What a room of a bench may have, °C. */
const ROOM = { low: -20, high: 60 };

/**
 * What of a run cannot be, in words; null where nothing is.
 *
 * @param run its readings are looked at too
 */
export function faultOfRun(run: SteadyRun): string | null {
  const { id, ambientC, cpuW, gpuW, rpm } = run;
  const positive: [string, number][] = [
    ['CPU watts', cpuW],
    ['GPU watts', gpuW],
    ...Object.entries(rpm).map(([fan, x]): [string, number] => [`speed of ${fan}`, x]),
  ];
  for (const [name, x] of positive) {
    if (!(Number.isFinite(x) && x >= 0)) return `run ${id}: ${name} is no number from 0 on`;
  }
  if (!(ambientC >= ROOM.low && ambientC <= ROOM.high)) {
    return `run ${id}: the room is not within ${ROOM.low} and ${ROOM.high} °C`;
  }
  const broken = readingsOf([run]).find((r) => !Number.isFinite(r.value) || !(r.plusMinus > 0));
  return broken ? `run ${id}: a reading is not a number: ${broken.kind} ${broken.part}` : null;
}
