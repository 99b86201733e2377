/**
 * The longest way through squares that hold together, a skeleton's: from the farthest of them to that farthest from it.
 *
 * @param squares one group of them, as places in the mask
 * @returns places along it
 */
export function longestWay(squares: Int32Array, width: number): number[] {
  const [first] = squares;
  if (first === undefined) return [];
  const group = new Set(squares);
  const [start] = farthest(first, group, width);
  const [end, before] = farthest(start, group, width);
  const way = [end];
  for (let at = end; at !== start;) {
    at = before.get(at)!;
    way.push(at);
  }
  return way;
}

/** The farthest square from one, and from where each is reached; beside before across, so that steps are as short as they can be. */
function farthest(
  start: number,
  group: ReadonlySet<number>,
  width: number,
): [number, Map<number, number>] {
  const steps = [1, -1, width, -width, width + 1, width - 1, 1 - width, -1 - width];
  const before = new Map<number, number>([[start, start]]);
  let ring = [start];
  let last = start;
  while (ring.length > 0) {
    const next: number[] = [];
    for (const at of ring) {
      last = at;
      for (const step of steps) {
        const k = at + step;
        if (!group.has(k) || before.has(k)) continue;
        before.set(k, at);
        next.push(k);
      }
    }
    ring = next;
  }
  return [last, before];
}
