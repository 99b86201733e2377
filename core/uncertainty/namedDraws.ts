import type { DrawPlan } from './drawPlan';
import { normalQuantile } from './normal';
import { latinHypercube } from './random';

/**
 * A plan whose columns are each drawn by their own name: whatever two machines have in common they have alike in every row, and a
 * figure that is set, removed or added shifts no other.
 *
 * @param plan from `planDraws`
 * @param seed whole number
 * @param nameOf by what a column is drawn, its own name by default; of two machines those of the same name are drawn alike
 * @returns the same plan with other draws
 */
export function namedDraws(
  plan: DrawPlan,
  seed: number,
  nameOf: (column: DrawPlan['columns'][number]) => string = (c) => c.name,
): DrawPlan {
  const { columns, draws, calibrated, open } = plan;
  const u = new Float64Array(plan.u.length);
  const made = columns.map((column) => columnOf(nameOf(column), draws, seed));
  made.forEach((column, c) => u.set(column.u, c * draws));
  const z = made.map((column) => column.z);
  if (!open.calibration) return { ...plan, u, z };
  // each row takes one whole set of what the calibration leaves possible
  const choice = columnOf('calibration', draws, seed).u;
  u.set(choice, columns.length * draws);
  const { paths, rows, count } = open.calibration;
  const place = new Map(paths.map((p, i) => [p, i]));
  return {
    ...plan,
    u,
    z,
    calibrated: calibrated.map((c) => ({
      ...c,
      values: choice.map(
        (p) =>
          rows[Math.min(count - 1, Math.floor(p * count)) * paths.length + place.get(c.name)!]!,
      ),
    })),
  };
}

/** Columns made so far; machines that are held against each other share nearly all of theirs. */
const known = new Map<string, Column>();
const MOST_KNOWN = 400;

/** Probabilities, and the standard normal variables that have them. */
interface Column {
  u: Float64Array;
  z: Float64Array;
}

/** A column by its name, not to be written to. */
function columnOf(name: string, draws: number, seed: number): Column {
  const key = `${seed} ${draws} ${name}`;
  const there = known.get(key);
  if (there) return there;
  const u = latinHypercube(draws, 1, (hash(name) ^ Math.imul(seed + 1, 0x9e3779b1)) >>> 0);
  const made = { u, z: u.map(normalQuantile) };
  if (draws > MOST_DRAWS) return made;
  if (known.size >= MOST_KNOWN) known.clear();
  known.set(key, made);
  return made;
}

/** Longer columns are made anew each time, so that what is kept stays below 4 MB. */
const MOST_DRAWS = 500;

/**
 * A number for a name, spread evenly.
 * Source: FNV-1a, 32 bit, public domain; from memory.
 */
function hash(name: string): number {
  let h = 0x811c9dc5;
  for (let i = 0; i < name.length; i++) h = Math.imul(h ^ name.charCodeAt(i), 0x01000193);
  return h >>> 0;
}
