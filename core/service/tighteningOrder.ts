import type { PlacedScrew } from './openUpLog';

export type Hole = Pick<PlacedScrew, 'id' | 'xMm' | 'yMm' | 'printed'>;

export interface TighteningOrder {
  /** Holes in the order of one round. */
  order: string[];
  /** Whether it follows printed numbers, follows those that can be read and goes crosswise over the rest, or was computed. */
  by: 'printed' | 'printed-in-part' | 'crosswise';
  /** Each time round: first lightly, then firmly. */
  rounds: 2;
  /** Pairs of neighbours that follow each other, since it cannot be avoided; within a round. */
  neighbours: number;
  /** The second round begins beside the hole at which the first one ends, since it cannot be avoided. */
  joinBeside: boolean;
}

/** Up to here the best order is found by looking at all of them. */
const MAX_EXACT = 12;
const MAX_ANY_FIRST = 7;
/** Holes stand in one row when they are off its line by no more than this, mm. */
const ROW_MM = 6;

/**
 * The order in which the screws of one part are tightened, in two rounds: by their printed numbers as far as they go, else
 * crosswise. Loosening goes the other way round by printed numbers.
 *
 * Crosswise: holes in a row lie beside those before and behind them, others in a ring around their middle; an order is sought in
 * which as few neighbours as can be follow each other, also from the end of the first round to the beginning of the second, and of
 * these the one with the longest ways between one screw and the next.
 *
 * @param holes screws of one part with their places, mm
 * @param rule the house's: printed numbers where there are any, or crosswise whatever is printed
 * Source: common practice, no source.
 */
export function tighteningOrder(
  holes: readonly Hole[],
  rule: 'printed' | 'crosswise' = 'printed',
): TighteningOrder {
  const all = numbered(holes);
  const printed = all
    .filter((h) => h.printed !== undefined)
    .sort((a, b) => a.printed! - b.printed!);
  if (rule === 'printed' && printed.length > 1) {
    const rest = all.filter((h) => h.printed === undefined);
    const after = rest.length ? tighteningOrder(rest, 'crosswise') : null;
    return {
      order: [...printed.map((h) => h.id), ...(after?.order ?? [])],
      by: after ? 'printed-in-part' : 'printed',
      rounds: 2,
      neighbours: after?.neighbours ?? 0,
      joinBeside: false,
    };
  }
  const { places, beside } = neighbourhood(holes);
  const n = places.length;
  const order = n <= MAX_EXACT ? bestOrder(places, beside) : strides(n, beside);
  let neighbours = 0;
  for (let k = 0; k + 1 < n; k++) if (beside(order[k]!, order[k + 1]!)) neighbours++;
  return {
    order: order.map((i) => places[i]!.id),
    by: 'crosswise',
    rounds: 2,
    neighbours,
    joinBeside: n > 1 && beside(order[n - 1]!, order[0]!),
  };
}

/** Where one number alone cannot be read, it is the one that is missing among the others. */
function numbered(holes: readonly Hole[]): Hole[] {
  const known = new Set(holes.flatMap((h) => h.printed ?? []));
  const unread = holes.filter((h) => h.printed === undefined);
  const gaps = holes.map((_, i) => i + 1).filter((n) => !known.has(n));
  if (unread.length !== 1 || gaps.length !== 1 || known.size !== holes.length - 1)
    return [...holes];
  return holes.map((h) => (h.printed === undefined ? { ...h, printed: gaps[0]! } : h));
}

/** Loosening: falling printed numbers, else crosswise as tightening. */
export function looseningOrder(holes: readonly Hole[]): string[] {
  const { order, by } = tighteningOrder(holes);
  return by === 'crosswise' ? order : [...order].reverse();
}

/** Holes by their angle around their middle; of equal angles the nearer one first. */
export function aroundTheMiddle(holes: readonly Hole[]): Hole[] {
  const { x, y } = middleOf(holes);
  const angle = (h: Hole) => Math.atan2(h.yMm - y, h.xMm - x);
  const far = (h: Hole) => Math.hypot(h.xMm - x, h.yMm - y);
  return [...holes].sort((a, b) => angle(a) - angle(b) || far(a) - far(b));
}

function middleOf(holes: readonly Hole[]): { x: number; y: number } {
  const n = Math.max(1, holes.length);
  return {
    x: holes.reduce((sum, h) => sum + h.xMm, 0) / n,
    y: holes.reduce((sum, h) => sum + h.yMm, 0) / n,
  };
}

/** Holes along the line through them; null where they do not lie in a row. */
export function alongARow(holes: readonly Hole[]): Hole[] | null {
  const { x, y } = middleOf(holes);
  let [xx, xy, yy] = [0, 0, 0];
  for (const h of holes) {
    xx += (h.xMm - x) ** 2;
    xy += (h.xMm - x) * (h.yMm - y);
    yy += (h.yMm - y) ** 2;
  }
  // direction in which they lie furthest apart
  const angle = 0.5 * Math.atan2(2 * xy, xx - yy);
  const [ux, uy] = [Math.cos(angle), Math.sin(angle)];
  const off = (h: Hole) => Math.abs(-(h.xMm - x) * uy + (h.yMm - y) * ux);
  if (holes.length < 3 || holes.some((h) => off(h) > ROW_MM)) return null;
  const along = (h: Hole) => (h.xMm - x) * ux + (h.yMm - y) * uy;
  return [...holes].sort((a, b) => along(a) - along(b));
}

/** Whether two places of a ring lie beside each other. */
export function besideOnRing(i: number, j: number, n: number): boolean {
  const apart = Math.abs(i - j);
  return apart === 1 || apart === n - 1;
}

/** Holes in the order in which they lie, and which of them lie beside each other. */
export function neighbourhood(holes: readonly Hole[]): {
  places: Hole[];
  beside: (i: number, j: number) => boolean;
} {
  const row = alongARow(holes);
  if (row) return { places: row, beside: (i, j) => Math.abs(i - j) === 1 };
  const places = aroundTheMiddle(holes);
  return { places, beside: (i, j) => besideOnRing(i, j, places.length) };
}

/**
 * The best order of a few holes, over all of them (dynamic programming over the holes already done and the last of them, for each
 * that may be the first).
 */
function bestOrder(places: readonly Hole[], beside: (i: number, j: number) => boolean): number[] {
  const n = places.length;
  if (n < 2) return places.map((_, i) => i);
  const far = Math.max(1, ...places.flatMap((a) => places.map((b) => distance(a, b))));
  // one pair of neighbours weighs more than all ways together; a round is gone through twice, the join between rounds once
  const cost = (i: number, j: number) =>
    2 * ((beside(i, j) ? 2 * n : 0) - distance(places[i]!, places[j]!) / far);
  const join = (last: number, first: number) => cost(last, first) / (n <= MAX_ANY_FIRST ? 2 : 1);
  const size = 1 << n;
  const least = new Float64Array(size * n);
  const from = new Int8Array(size * n);
  let best: { order: number[]; cost: number } | null = null;
  // over few holes neighbours may be met whatever is done, so that it matters where the round begins; over more it is turned after
  const firsts = n <= MAX_ANY_FIRST ? n : 1;
  for (let first = 0; first < firsts; first++) {
    least.fill(Infinity);
    from.fill(-1);
    least[(1 << first) * n + first] = 0;
    for (let done = 1; done < size; done++) {
      if (!(done & (1 << first))) continue;
      for (let last = 0; last < n; last++) {
        const now = least[done * n + last]!;
        if (now === Infinity) continue;
        for (let next = 0; next < n; next++) {
          if (done & (1 << next)) continue;
          const at = (done | (1 << next)) * n + next;
          const with_ = now + cost(last, next);
          if (with_ < least[at]! - 1e-12) {
            least[at] = with_;
            from[at] = last;
          }
        }
      }
    }
    for (let last = 0; last < n; last++) {
      if (last === first) continue;
      const whole = least[(size - 1) * n + last]! + join(last, first);
      if (best && whole >= best.cost - 1e-12) continue;
      const order: number[] = [];
      for (let done = size - 1, at = last; at >= 0;) {
        order.push(at);
        const before = from[done * n + at]!;
        done &= ~(1 << at);
        at = before;
      }
      best = { order: order.reverse(), cost: whole };
    }
  }
  const { order } = best!;
  if (firsts === n) return order;
  // the shortest of its ways is the one between the rounds
  const way = (k: number) => cost(order[k]!, order[(k + 1) % n]!);
  let cut = n - 1;
  for (let k = 0; k < n; k++) if (way(k) > way(cut) + 1e-12) cut = k;
  return [...order.slice(cut + 1), ...order.slice(0, cut + 1)];
}

/** Many holes: in strides of nearly half of them, then on to the next hole that is left. */
function strides(n: number, beside: (i: number, j: number) => boolean): number[] {
  const stride = Math.floor((n - 1) / 2);
  const order: number[] = [];
  const left = new Set(Array.from({ length: n }, (_, i) => i));
  for (let at = 0; left.size;) {
    left.delete(at);
    order.push(at);
    let next = (at + stride) % n;
    for (let k = 0; k < n && (!left.has(next) || beside(at, next)); k++) {
      next = (next + 1) % n;
    }
    at = left.has(next) ? next : ([...left][0] ?? -1);
  }
  // turned round so that the second round does not begin beside the end of the first
  for (let k = 0; k < n && beside(order[n - 1]!, order[0]!); k++) order.push(order.shift()!);
  return order;
}

function distance(a: Hole, b: Hole): number {
  return Math.hypot(a.xMm - b.xMm, a.yMm - b.yMm);
}
