import { openCase, type CaseRequest, type OpenCase } from '../case/openCase';
import type { Cap } from '../envelope/fanStates';
import { namedDraws } from '../uncertainty/namedDraws';
import { figureValue } from '../record/figure';
import { fieldAt } from '../record/fieldTable';
import { planDraws, type DrawPlan } from '../uncertainty/drawPlan';
import { COLUMNS, roomForDraws, runDraws } from '../uncertainty/draws';
import { quantileOfSorted } from '../uncertainty/quantile';
import { builtSizes, type BuiltSizes } from './builtSizes';

/** Watts of both dies at a cap: median and 5–95 %. */
export interface ComparedWatts {
  cap: Cap;
  p05: number;
  p50: number;
  p95: number;
}

export interface ComparedMachine extends BuiltSizes {
  name: string;
  at: ComparedWatts[];
  /** More watts for a decibel more, over the caps that are levels; null below two of them. */
  wattsPerDb: number | null;
  /** At the level in the middle of those asked for, else at the last cap; null where mass or thickness are not recorded. */
  wattsPerKg: number | null;
  wattsPerMm: number | null;
}

/** How likely one machine sustains more than another at a cap. */
export interface Better {
  a: string;
  b: string;
  cap: Cap;
  chance: number;
}

export interface Comparison {
  machines: ComparedMachine[];
  better: Better[];
}

export interface CompareOptions {
  caps: readonly Cap[];
  draws?: number | undefined;
  seed?: number | undefined;
  /** Told of each machine that is drawn; false ends the comparison with those. */
  progress?: ((done: number, of: number) => boolean | void) | undefined;
}

const DRAWS = 400;
const TOGETHER = 2;

/** One machine drawn for a comparison. */
export interface DrawnForComparison {
  /** Watts of both dies, or of the only one, in each draw, by cap. */
  watts: Float64Array[];
  machine: Omit<ComparedMachine, 'name'>;
}

/**
 * Machines side by side. What they share (the room, the physics’ own factors, which are no figures of a record) is drawn alike in
 * all of them, what is a machine’s own is not: so that the chance that one is better does not fall for a doubt that both share.
 *
 * @param machines each with its name; the same name twice is numbered
 * @param options caps, draws, seed
 */
export function compareMachines(
  machines: readonly { name: string; request: CaseRequest }[],
  options: CompareOptions,
): Comparison {
  const { caps, progress } = options;
  const drawn: DrawnForComparison[] = [];
  for (const [i, { request }] of machines.entries()) {
    drawn.push(drawForComparison(request, i, options));
    if (progress?.(i + 1, machines.length) === false) break;
  }
  return comparisonOf(
    machines.slice(0, drawn.length).map((m) => m.name),
    drawn,
    caps,
  );
}

/**
 * Draws one of the machines of a comparison.
 *
 * @param place which of them it is: what is its own is drawn by it
 */
export function drawForComparison(
  request: CaseRequest,
  place: number,
  { caps, draws = DRAWS, seed = 1 }: CompareOptions,
): DrawnForComparison {
  const open = openCase(request);
  const watts = wattsByCap(open, String(place), { caps, draws, seed });
  return { watts, machine: describe(open, caps, watts) };
}

/** What machines that were drawn say side by side; the same name twice is numbered. */
export function comparisonOf(
  names: readonly string[],
  drawn: readonly DrawnForComparison[],
  caps: readonly Cap[],
): Comparison {
  const own = numbered(names);
  const better = drawn.flatMap((a, i) =>
    drawn.slice(i + 1).flatMap((b, j) =>
      caps.map((cap, c) => ({
        a: own[i]!,
        b: own[i + 1 + j]!,
        cap,
        chance: chanceOfMore(a.watts[c]!, b.watts[c]!),
      })),
    ),
  );
  return { machines: drawn.map((d, i) => ({ name: own[i]!, ...d.machine })), better };
}

/** Watts of both dies, or of the only one, in each draw, by cap. */
function wattsByCap(
  open: OpenCase,
  owner: string,
  { caps, draws, seed }: { caps: readonly Cap[]; draws: number; seed: number },
): Float64Array[] {
  const planned = planDraws(open, { caps, draws, seed, togetherOnly: true, drawn: false });
  const plan = namedDraws(planned, seed, (column) =>
    isShared(planned, column) ? column.name : `${owner} ${column.name}`,
  );
  const drawn = roomForDraws(plan, draws);
  runDraws(plan, 0, draws, drawn);
  const readout = plan.rays[TOGETHER] ? TOGETHER : plan.rays.findIndex((r) => r !== null);
  return caps.map((_, c) =>
    Float64Array.from(
      { length: draws },
      (_, row) => drawn.watts[(row * caps.length + c) * COLUMNS + readout]!,
    ),
  );
}

/** Whether a cause is the same for every machine of a laboratory: the room, or what is no figure of a record. */
function isShared({ inputs }: DrawPlan, column: DrawPlan['columns'][number]): boolean {
  return column.inputs.every(({ path }) => {
    if (path.startsWith('room.')) return true;
    const input = inputs.find((i) => i.path === path);
    return input?.recorded === null && fieldAt(path) === undefined;
  });
}

function describe(
  open: OpenCase,
  caps: readonly Cap[],
  watts: readonly Float64Array[],
): DrawnForComparison['machine'] {
  const at = caps.map((cap, c) => {
    const sorted = Float64Array.from(watts[c]!).sort();
    const of = (p: number) => quantileOfSorted(sorted, p);
    return { cap, p05: of(0.05), p50: of(0.5), p95: of(0.95) };
  });
  const { shell } = open.record;
  const levels = at.filter((a) => typeof a.cap === 'number');
  const middle = levels[Math.floor(levels.length / 2)] ?? at[at.length - 1];
  const per = (size: number | undefined) =>
    middle && size !== undefined && size > 0 ? middle.p50 / size : null;
  return {
    at,
    wattsPerDb: slopeOf(at),
    wattsPerKg: per(figureValue(shell?.massKg)),
    wattsPerMm: per(figureValue(shell?.thicknessMm)),
    ...builtSizes(open.data),
  };
}

/** Least-squares slope of the medians over the levels. */
function slopeOf(at: readonly ComparedWatts[]): number | null {
  const points = at.flatMap(({ cap, p50 }) =>
    typeof cap === 'number' ? [{ x: cap, y: p50 }] : [],
  );
  if (points.length < 2) return null;
  const mean = (of: (p: { x: number; y: number }) => number) =>
    points.reduce((s, p) => s + of(p), 0) / points.length;
  const [x, y] = [mean((p) => p.x), mean((p) => p.y)];
  const across = mean((p) => (p.x - x) ** 2);
  return mean((p) => (p.x - x) * (p.y - y)) / across;
}

/** In how many draws one has more, those alike counted by half. */
function chanceOfMore(a: Float64Array, b: Float64Array): number {
  let sum = 0;
  for (let i = 0; i < a.length; i++) sum += a[i]! > b[i]! ? 1 : a[i] === b[i] ? 0.5 : 0;
  return sum / a.length;
}

function numbered(names: readonly string[]): string[] {
  const seen = new Map<string, number>();
  return names.map((name) => {
    const n = (seen.get(name) ?? 0) + 1;
    seen.set(name, n);
    return n === 1 ? name : `${name} (${n})`;
  });
}
