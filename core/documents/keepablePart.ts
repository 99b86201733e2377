import { keyedById } from '../family/diffRecords';
import { getAt, isObject, setAt, type Path } from '../record/plainJson';
import type { Accepted } from './documentKind';

/** How much is put back at once where less did not do: the field, the part that holds it, the whole list. */
const REACHES = ['field', 'part', 'list'] as const;
type Reach = (typeof REACHES)[number];

/**
 * What of a value may be kept: what is refused stands as it did in `base`, all else as it is now, so that one refused figure
 * never holds back the others. Parts are known by id, whatever their place.
 *
 * @param accept of the value's kind
 * @param value as it stands now
 * @param base the last one that was kept
 * @returns the value itself where nothing of it is refused; null where not even the rest can be kept
 * @example keepablePart(recordKind.accept, { ...record, shell: { widthMm: 'abc', depthMm: 240 } }, record)
 */
export function keepablePart<T>(
  accept: (input: unknown) => Accepted<T>,
  value: T,
  base: T,
): T | null {
  let part = value;
  for (const reach of REACHES) {
    const taken = accept(part);
    if ('value' in taken) return part;
    // a part that was not kept before goes for now, once all places are done
    const emptied = new Set<string>();
    const now = part;
    for (const { path } of taken.refused) {
      const place = placeOf(now, path, reach);
      if (place.length === 0) return null;
      const old = standingBefore(now, base, place);
      part = setAt(part, place, old);
      if (old === undefined) emptied.add(place.slice(0, -1).join('.'));
    }
    for (const holder of emptied) part = withoutHoles(part, holder ? holder.split('.') : []);
  }
  return 'value' in accept(part) ? part : null;
}

/** The place that is put back for a refused path: never inside a list whose entries have no names. */
function placeOf(value: unknown, path: string, reach: Reach): Path {
  const place: (string | number)[] = [];
  let at = value;
  for (const key of keysOf(value, path)) {
    if (reach === 'list' && place.length) break;
    if (Array.isArray(at)) {
      if (!keyedById(at)) break;
      place.push(Number(key));
      if (reach === 'part') break;
    } else {
      // a part without its name is no part
      if (key === 'id') break;
      place.push(key);
    }
    at = getAt(at, [Array.isArray(at) ? Number(key) : key]);
  }
  return place;
}

/** The keys of a path; those of a document may have dots of their own. */
function keysOf(value: unknown, path: string): string[] {
  const keys: string[] = [];
  let at = value;
  let rest = path === '' ? [] : path.split('.');
  while (rest.length) {
    let length = 1;
    if (isObject(at)) {
      const there = rest.map((_, i) => rest.slice(0, i + 1).join('.'));
      length = there.findLastIndex((key) => Object.hasOwn(at as object, key)) + 1 || 1;
    }
    const key = rest.slice(0, length).join('.');
    keys.push(key);
    at = getAt(at, [key]);
    rest = rest.slice(length);
  }
  return keys;
}

/** What `base` has at a place of a value; entries of lists are found there by their ids. */
function standingBefore(value: unknown, base: unknown, place: Path): unknown {
  let old = base;
  let now = value;
  for (const key of place) {
    const entry = getAt(now, [key]);
    old =
      Array.isArray(now) && Array.isArray(old)
        ? keyedById(old)?.get((entry as { id: string } | undefined)?.id ?? '')
        : getAt(old, [key]);
    now = entry;
  }
  return old;
}

function withoutHoles<T>(value: T, holder: Path): T {
  const list = getAt(value, holder);
  if (!Array.isArray(list)) return value;
  return setAt(
    value,
    holder,
    list.filter((x) => x !== undefined),
  );
}
