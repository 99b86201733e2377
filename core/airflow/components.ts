/**
 * Groups items that share a link, such as fans that draw on one vent.
 *
 * @param count number of items
 * @param links lists of items joined with each other
 * @returns group number of each item, 0…groups − 1
 */
export function groupByLinks(
  count: number,
  links: readonly (readonly number[])[],
): { groupOf: number[]; groups: number } {
  const parent = Array.from({ length: count }, (_, i) => i);
  const root = (i: number): number => (parent[i] === i ? i : (parent[i] = root(parent[i]!)));
  for (const link of links) {
    for (const i of link.slice(1)) parent[root(i)] = root(link[0]!);
  }
  const numbers = new Map<number, number>();
  const groupOf = parent.map((_, i) => {
    const r = root(i);
    if (!numbers.has(r)) numbers.set(r, numbers.size);
    return numbers.get(r)!;
  });
  return { groupOf, groups: numbers.size };
}
