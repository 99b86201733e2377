import { isLeaf, keyedById, sameValue } from '../family/diffRecords';
import { isObject, type Json } from '../record/plainJson';

/** A figure that both sides changed, each to something else; absent where a side has none. */
export interface MergeConflict {
  path: string;
  base?: unknown;
  mine?: unknown;
  theirs?: unknown;
}

export type Side = 'mine' | 'theirs';

/** What two changes of one value are together; where they touch, mine stands until somebody chose. */
export interface Merged<T> {
  value: T;
  conflicts: MergeConflict[];
}

/**
 * Joins two changes of one value figure by figure: what only one side changed is as that side has it; what both changed to the
 * same is so; what both changed otherwise is asked for. Parts are known by id, whatever their place.
 *
 * @param base what both started from
 * @param mine, theirs what each made of it
 * @param chosen sides already chosen, by path
 */
export function mergeDocuments<T>(
  base: T,
  mine: T,
  theirs: T,
  chosen: ReadonlyMap<string, Side> = new Map(),
): Merged<T> {
  const conflicts: MergeConflict[] = [];
  const value = merge(base, mine, theirs, '', chosen, conflicts) as T;
  return { value, conflicts };
}

function merge(
  base: unknown,
  mine: unknown,
  theirs: unknown,
  path: string,
  chosen: ReadonlyMap<string, Side>,
  conflicts: MergeConflict[],
): unknown {
  if (sameValue(mine, theirs) || sameValue(theirs, base)) return mine;
  if (sameValue(mine, base)) return theirs;
  const under = (key: string) => (path === '' ? key : `${path}.${key}`);
  if (isObject(mine) && isObject(theirs) && !isLeaf(mine) && !isLeaf(theirs)) {
    const from: Json = isObject(base) && !isLeaf(base) ? base : {};
    const out: Json = {};
    for (const key of new Set([...Object.keys(mine), ...Object.keys(theirs)])) {
      const value = merge(from[key], mine[key], theirs[key], under(key), chosen, conflicts);
      if (value !== undefined) out[key] = value;
    }
    return out;
  }
  const mineById = keyedById(mine);
  const theirsById = keyedById(theirs);
  if (mineById && theirsById) {
    const baseById = keyedById(base) ?? new Map<string, unknown>();
    const kept = new Map<string, unknown>();
    for (const id of new Set([...mineById.keys(), ...theirsById.keys()])) {
      const value = merge(
        baseById.get(id),
        mineById.get(id),
        theirsById.get(id),
        under(id),
        chosen,
        conflicts,
      );
      if (value !== undefined) kept.set(id, value);
    }
    return orderOf([...baseById.keys()], [...mineById.keys()], [...theirsById.keys()])
      .filter((id) => kept.has(id))
      .map((id) => kept.get(id));
  }
  const side = chosen.get(path);
  if (side !== undefined) return side === 'mine' ? mine : theirs;
  conflicts.push({
    path,
    ...(base === undefined ? {} : { base }),
    ...(mine === undefined ? {} : { mine }),
    ...(theirs === undefined ? {} : { theirs }),
  });
  return mine;
}

/** The order that one side changed; where both did, mine. What only the other side has stands behind what it followed there. */
function orderOf(base: string[], mine: string[], theirs: string[]): string[] {
  const untouched = mine.join('\n') === base.join('\n');
  const [out, other] = untouched ? [[...theirs], mine] : [[...mine], theirs];
  other.forEach((id, i) => {
    if (out.includes(id)) return;
    const before = other
      .slice(0, i)
      .reverse()
      .find((x) => out.includes(x));
    out.splice(before === undefined ? 0 : out.indexOf(before) + 1, 0, id);
  });
  return out;
}
