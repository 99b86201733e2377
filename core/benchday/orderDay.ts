import { randomStream } from '../uncertainty/random';
import { fits, stretchesOf, type Placed } from './conflicts';
import { actMinutes, type Act, type BenchDay } from './dayDocument';

/** A day put in order. */
export interface OrderedDay {
  startMin: Record<string, number>;
  endMin: number;
  /** Nothing shorter exists; false: it is the best of many tries. */
  exact: boolean;
}

export interface OrderOptions {
  /** Nothing begins before, min. */
  fromMin?: number | undefined;
  /** Acts that stand where they are: done, under way, or held by somebody. */
  fixed?: readonly Placed[] | undefined;
  /** Steps of the exact search, after which the best found so far is taken. */
  steps?: number | undefined;
  seed?: number | undefined;
}

/** More acts than this are not searched through. */
const EXACT_ACTS = 7;
const STEPS = 60_000;
const TRIES = 400;

type Bounds = Pick<BenchDay, 'hands' | 'instruments'>;

/**
 * Puts acts in an order that ends the day as early as can be. Where nothing can be moved earlier, alone or together with others,
 * each act begins with the day or where a stretch of another that was placed before it ends; so small days are searched through all
 * such places, by branch and bound, and the answer is exact. Large ones are tried in many orders, each act at the first place where
 * it fits, the best order changed a little again and again.
 *
 * @param acts what is to be done
 * @param bounds hands and instruments there are
 * @param options what stands already
 * @throws RangeError where acts wait for each other in a circle
 */
export function orderDay(
  acts: readonly Act[],
  bounds: Bounds,
  options: OrderOptions = {},
): OrderedDay {
  const { fromMin = 0, fixed = [], steps = STEPS, seed = 1 } = options;
  refuseCircles(acts);
  if (acts.length === 0) return answer([], fixed, true);
  let best = tried(acts, bounds, fromMin, fixed, seed);
  if (acts.length > EXACT_ACTS) return answer(best, fixed, false);
  const bound = boundOf(acts, bounds, fromMin);
  let left = steps;
  const seen = new Set<string>();
  const search = (placed: readonly Placed[], open: readonly Act[], endMin: number): void => {
    if (left <= 0 || endMin >= endOf(best) || endOf(best) <= bound) return;
    if (open.length === 0) {
      best = [...placed];
      return;
    }
    const key = placed
      .map((p) => `${p.act.id} ${p.startMin}`)
      .sort()
      .join(',');
    if (seen.has(key)) return;
    seen.add(key);
    left--;
    for (const act of open) {
      const beside = [...fixed, ...placed];
      const rest = open.filter((a) => a !== act);
      for (const startMin of placesFor(act, beside, fromMin)) {
        if (startMin + actMinutes(act) >= endOf(best)) break;
        if (!fits(act, startMin, beside, bounds)) continue;
        search([...placed, { act, startMin }], rest, Math.max(endMin, startMin + actMinutes(act)));
      }
    }
  };
  search([], acts, fromMin);
  return answer(best, fixed, left > 0);
}

/** Beginnings at which an act is held by nothing but what is placed, the earliest first. */
function placesFor(act: Act, placed: readonly Placed[], fromMin: number): number[] {
  const out = new Set<number>([fromMin]);
  const offsets: number[] = [];
  let at = 0;
  for (const p of act.phases) {
    offsets.push(at);
    at += p.minutes;
  }
  for (const p of placed) {
    for (const { to } of stretchesOf(p)) {
      for (const offset of offsets) if (to - offset > fromMin) out.add(to - offset);
    }
  }
  return [...out].sort((a, b) => a - b);
}

const endOf = (placed: readonly Placed[]): number =>
  placed.reduce((a, p) => Math.max(a, p.startMin + actMinutes(p.act)), 0);

/** No order ends earlier: each machine and each pair of hands has so much to do. */
function boundOf(acts: readonly Act[], { hands }: Bounds, fromMin: number): number {
  const byMachine = new Map<string, number>();
  let work = 0;
  for (const a of acts) {
    byMachine.set(a.machine, (byMachine.get(a.machine) ?? 0) + actMinutes(a));
    for (const p of a.phases) if (p.hands) work += p.minutes;
  }
  return fromMin + Math.max(Math.ceil(work / hands), ...byMachine.values());
}

/** Each act in turn at the first place where it fits. */
function inTurn(
  order: readonly Act[],
  bounds: Bounds,
  fromMin: number,
  fixed: readonly Placed[],
): Placed[] {
  const placed: Placed[] = [];
  const waiting = [...order];
  while (waiting.length > 0) {
    const ids = new Set(waiting.map((a) => a.id));
    const at = waiting.findIndex((a) => !(a.after ?? []).some((id) => ids.has(id)));
    const [act] = waiting.splice(at, 1);
    const beside = [...fixed, ...placed];
    const startMin =
      placesFor(act!, beside, fromMin).find((m) => fits(act!, m, beside, bounds)) ??
      Math.max(fromMin, endOf(beside));
    placed.push({ act: act!, startMin });
  }
  return placed;
}

function tried(
  acts: readonly Act[],
  bounds: Bounds,
  fromMin: number,
  fixed: readonly Placed[],
  seed: number,
): Placed[] {
  const next = randomStream(seed);
  const bound = boundOf(acts, bounds, fromMin);
  // long ones first, as they are given, and those that need the room alone first
  const alone = (a: Act) => a.phases.reduce((s, p) => s + (p.room === 'alone' ? p.minutes : 0), 0);
  const starts = [
    [...acts],
    [...acts].sort((a, b) => actMinutes(b) - actMinutes(a)),
    [...acts].sort((a, b) => alone(b) - alone(a) || actMinutes(b) - actMinutes(a)),
  ];
  let order = starts[0]!;
  let best = inTurn(order, bounds, fromMin, fixed);
  const take = (other: Act[]) => {
    const found = inTurn(other, bounds, fromMin, fixed);
    const [a, b] = [costOf(found), costOf(best)];
    if (a <= b) order = other;
    if (a < b) best = found;
  };
  starts.slice(1).forEach(take);
  for (let k = 0; k < TRIES && endOf(best) > bound; k++) {
    const other = [...order];
    const from = Math.floor(next() * other.length);
    const [moved] = other.splice(from, 1);
    other.splice(Math.floor(next() * (other.length + 1)), 0, moved!);
    take(other);
  }
  return best;
}

/** The end of the day first, then how early each act is over. */
const costOf = (placed: readonly Placed[]): number =>
  endOf(placed) + 1e-6 * placed.reduce((a, p) => a + p.startMin + actMinutes(p.act), 0);

function answer(placed: readonly Placed[], fixed: readonly Placed[], exact: boolean): OrderedDay {
  return {
    startMin: Object.fromEntries(placed.map((p) => [p.act.id, p.startMin])),
    endMin: Math.max(endOf(placed), endOf(fixed)),
    exact,
  };
}

function refuseCircles(acts: readonly Act[]): void {
  let waiting = [...acts];
  while (waiting.length > 0) {
    const ids = new Set(waiting.map((a) => a.id));
    const next = waiting.filter((a) => (a.after ?? []).some((id) => ids.has(id)));
    if (next.length === waiting.length) {
      throw new RangeError(`these wait for each other: ${next.map((a) => a.name).join(', ')}`);
    }
    waiting = next;
  }
}
