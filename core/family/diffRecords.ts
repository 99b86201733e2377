import { isObject, type Json } from '../record/plainJson';

/** One field that differs; absent on one side where it was added or removed. Parts are named by id. */
export interface Difference {
  path: string;
  before?: unknown;
  after?: unknown;
}

/** What a list holds, by id where its entries have one of their own, else by place. */
function keyed(list: readonly unknown[]): Map<string, unknown> {
  const ids = list.map((x) => (isObject(x) && typeof x['id'] === 'string' ? x['id'] : null));
  const usable = ids.every((id) => id !== null) && new Set(ids).size === ids.length;
  return new Map(list.map((x, i) => [usable ? ids[i]! : String(i), x]));
}

/** What a list of parts holds by their ids, each of its own; null for any other list or value. */
export function keyedById(list: unknown): Map<string, unknown> | null {
  if (!Array.isArray(list)) return null;
  const keyedList = keyed(list);
  const byId = list.every((x) => isObject(x) && keyedList.get(x['id'] as string) === x);
  return byId ? keyedList : null;
}

/** A figure or a plain value: shown whole, never field by field. */
export function isLeaf(x: unknown): boolean {
  if (isObject(x)) return 'value' in x;
  return !Array.isArray(x) || x.every((y) => typeof y !== 'object');
}

/** Whether two values say the same; a plain number is the figure that holds nothing else. */
export function sameValue(a: unknown, b: unknown): boolean {
  if (a === b) return true;
  if (Array.isArray(a) && Array.isArray(b)) {
    return a.length === b.length && a.every((x, i) => sameValue(x, b[i]));
  }
  if (isObject(a) && isObject(b)) {
    const keys = new Set([...Object.keys(a), ...Object.keys(b)]);
    return [...keys].every((k) => sameValue(a[k], b[k]));
  }
  // a plain number is the same figure as one that holds nothing else
  if (isObject(a) && Object.keys(a).length === 1 && 'value' in a) return a['value'] === b;
  if (isObject(b) && Object.keys(b).length === 1 && 'value' in b) return b['value'] === a;
  return false;
}

/**
 * Fields in which two records differ, in the order of the first, then what only the second has.
 *
 * @param before, after records or parts of records
 */
export function diffRecords(before: unknown, after: unknown): Difference[] {
  const out: Difference[] = [];
  walk(before, after, '', out);
  return out;
}

function walk(a: unknown, b: unknown, path: string, out: Difference[]): void {
  if (sameValue(a, b)) return;
  const entries = (x: unknown): Map<string, unknown> | null =>
    x === undefined
      ? new Map()
      : isLeaf(x)
        ? null
        : Array.isArray(x)
          ? keyed(x)
          : new Map(Object.entries(x as Json));
  const left = entries(a);
  const right = entries(b);
  if (!left || !right || (a === undefined && isLeaf(b)) || (b === undefined && isLeaf(a))) {
    out.push({
      path,
      ...(a === undefined ? {} : { before: a }),
      ...(b === undefined ? {} : { after: b }),
    });
    return;
  }
  // a part that came or went is one difference, not one for each of its figures
  if ((a === undefined || b === undefined) && path !== '') {
    out.push({ path, ...(a === undefined ? { after: b } : { before: a }) });
    return;
  }
  for (const key of new Set([...left.keys(), ...right.keys()])) {
    if (key === 'id') continue;
    walk(left.get(key), right.get(key), path === '' ? key : `${path}.${key}`, out);
  }
}
