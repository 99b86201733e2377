import type { PlacedScrew } from './openUpLog';

export type Hole = Pick<PlacedScrew, 'id' | 'xMm' | 'yMm' | 'printed'>;

export interface TighteningOrder {
  /** Holes in the order of one round. */
  order: string[];
  /** Whether it follows printed numbers, or was computed. */
  by: 'printed' | 'crosswise';
  /** Each time round: first lightly, then firmly. */
  rounds: 2;
  /** Pairs of neighbours that follow each other, since it cannot be avoided. */
  neighbours: number;
}

/** Up to here the best order is found by looking at all of them. */
const MAX_EXACT = 12;

/**
 * The order in which the screws of one part are tightened, in two rounds: by their printed numbers where each has one, else
 * crosswise. Loosening goes the other way round by printed numbers.
 *
 * Crosswise: holes stand in a ring around their middle; an order is sought in which as few neighbours on the ring as can be follow
 * each other, and of these the one with the longest ways between one screw and the next.
 *
 * @param holes screws of one part with their places, mm
 * @param rule the house's: printed numbers where there are any, or crosswise whatever is printed
 * Source: common practice, no source.
 */
export function tighteningOrder(
  holes: readonly Hole[],
  rule: 'printed' | 'crosswise' = 'printed',
): TighteningOrder {
  if (rule === 'printed' && holes.length && holes.every((h) => h.printed !== undefined)) {
    const order = [...holes].sort((a, b) => a.printed! - b.printed!).map((h) => h.id);
    return { order, by: 'printed', rounds: 2, neighbours: 0 };
  }
  const ring = aroundTheMiddle(holes);
  const order = ring.length <= MAX_EXACT ? bestOrder(ring) : strides(ring);
  let neighbours = 0;
  for (let k = 0; k + 1 < order.length; k++) {
    if (besideOnRing(order[k]!, order[k + 1]!, ring.length)) neighbours++;
  }
  return { order: order.map((i) => ring[i]!.id), by: 'crosswise', rounds: 2, neighbours };
}

/** Loosening: falling printed numbers, else crosswise as tightening. */
export function looseningOrder(holes: readonly Hole[]): string[] {
  const { order, by } = tighteningOrder(holes);
  return by === 'printed' ? [...order].reverse() : order;
}

/** Holes by their angle around their middle; of equal angles the nearer one first. */
export function aroundTheMiddle(holes: readonly Hole[]): Hole[] {
  const n = Math.max(1, holes.length);
  const x = holes.reduce((sum, h) => sum + h.xMm, 0) / n;
  const y = holes.reduce((sum, h) => sum + h.yMm, 0) / n;
  const angle = (h: Hole) => Math.atan2(h.yMm - y, h.xMm - x);
  const far = (h: Hole) => Math.hypot(h.xMm - x, h.yMm - y);
  return [...holes].sort((a, b) => angle(a) - angle(b) || far(a) - far(b));
}

/** Whether two places of a ring lie beside each other. */
export function besideOnRing(i: number, j: number, n: number): boolean {
  const apart = Math.abs(i - j);
  return apart === 1 || apart === n - 1;
}

/** The best order of a few holes, over all of them (dynamic programming over the holes already done and the last of them). */
function bestOrder(ring: readonly Hole[]): number[] {
  const n = ring.length;
  if (n === 0) return [];
  const far = Math.max(1, ...ring.flatMap((a) => ring.map((b) => distance(a, b))));
  // one pair of neighbours weighs more than all ways together
  const cost = (i: number, j: number) =>
    (besideOnRing(i, j, n) ? 2 * n : 0) - distance(ring[i]!, ring[j]!) / far;
  const size = 1 << n;
  const least = new Float64Array(size * n).fill(Infinity);
  const from = new Int8Array(size * n).fill(-1);
  for (let i = 0; i < n; i++) least[(1 << i) * n + i] = 0;
  for (let done = 1; done < size; done++) {
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
  let last = 0;
  for (let i = 1; i < n; i++) {
    if (least[(size - 1) * n + i]! < least[(size - 1) * n + last]! - 1e-12) last = i;
  }
  const order: number[] = [];
  for (let done = size - 1; last >= 0;) {
    order.push(last);
    const before = from[done * n + last]!;
    done &= ~(1 << last);
    last = before;
  }
  return order.reverse();
}

/** Many holes: round the ring in strides of nearly half of it, then on to the next hole that is left. */
function strides(ring: readonly Hole[]): number[] {
  const n = ring.length;
  const stride = Math.floor((n - 1) / 2);
  const order: number[] = [];
  const left = new Set(Array.from({ length: n }, (_, i) => i));
  for (let at = 0; left.size;) {
    left.delete(at);
    order.push(at);
    let next = (at + stride) % n;
    for (let k = 0; k < n && (!left.has(next) || besideOnRing(at, next, n)); k++) {
      next = (next + 1) % n;
    }
    at = left.has(next) ? next : ([...left][0] ?? -1);
  }
  return order;
}

function distance(a: Hole, b: Hole): number {
  return Math.hypot(a.xMm - b.xMm, a.yMm - b.yMm);
}
