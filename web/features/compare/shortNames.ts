/**
 * Names as short as they still tell apart, for the labels of a chart. A first piece that is no other's stands alone; where several have
 * it, what tells them apart goes before it, so that it is still there where the end is cut; one that all have is left out.
 *
 * @param names maker and model, then what else tells machines apart, such as “Velmara Quill 14, one thin fan”
 * @example shortNames(['A 1, Studio, x', 'A 1, Office, y', 'B 2, z']) // ['Studio, A 1', 'Office, A 1', 'B 2']
 */
export function shortNames(names: readonly string[]): string[] {
  const split = names.map((name) => {
    const [first = '', ...more] = name.split(', ');
    return { first, more };
  });
  const allShare = names.length > 1 && split.every((s) => s.first === split[0]!.first);
  return split.map(({ first, more }, i) => {
    const alike = split.filter((s, k) => k !== i && s.first === first);
    if (alike.length === 0 || more.length === 0) return first;
    const isOwn = (n: number) =>
      alike.every((s) => s.more.slice(0, n).join(', ') !== more.slice(0, n).join(', '));
    const enough = more.findIndex((_, n) => isOwn(n + 1)) + 1 || more.length;
    return [...more.slice(0, enough), ...(allShare ? [] : [first])].join(', ');
  });
}
