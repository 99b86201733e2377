/**
 * Names as short as they still tell apart, for the labels of a chart: pieces between commas are added until no other has the same, and
 * a first piece that all share is left out.
 *
 * @param names maker and model, then what else tells machines apart, such as “Velmara Quill 14, one thin fan”
 */
export function shortNames(names: readonly string[]): string[] {
  const pieces = names.map((n) => n.split(', '));
  const shared =
    names.length > 1 && pieces.every((p) => p.length > 1 && p[0] === pieces[0]![0]) ? 1 : 0;
  return pieces.map((own, i) => {
    for (let n = shared + 1; n < own.length; n++) {
      const short = own.slice(shared, n).join(', ');
      const isOwn = pieces.every((p, k) => k === i || p.slice(shared, n).join(', ') !== short);
      if (isOwn) return short;
    }
    return own.slice(shared).join(', ');
  });
}
