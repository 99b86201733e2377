import { isObject } from '../record/plainJson';

/** One place at which two values differ; a side without it is absent there. */
export interface PatchPlace {
  path: (string | number)[];
  before?: unknown;
  after?: unknown;
}

/** How one value becomes another and back, in the fewest places. */
export type Patch = PatchPlace[];

function walk(a: unknown, b: unknown, path: (string | number)[], out: Patch): void {
  if (Object.is(a, b)) return;
  if (Array.isArray(a) && Array.isArray(b) && a.length === b.length) {
    a.forEach((x, i) => walk(x, b[i], [...path, i], out));
    return;
  }
  if (isObject(a) && isObject(b)) {
    for (const key of new Set([...Object.keys(a), ...Object.keys(b)])) {
      walk(a[key], b[key], [...path, key], out);
    }
    return;
  }
  out.push({
    path,
    ...(a === undefined ? {} : { before: a }),
    ...(b === undefined ? {} : { after: b }),
  });
}

/**
 * Where two values of plain JSON differ, so that one can be made of the other. Shared parts are not looked into.
 *
 * @example patchOf({ a: 1, b: 2 }, { a: 1, b: 3 }) // [{ path: ['b'], before: 2, after: 3 }]
 */
export function patchOf(before: unknown, after: unknown): Patch {
  const out: Patch = [];
  walk(before, after, [], out);
  return out;
}

function put(value: unknown, path: readonly (string | number)[], to: unknown): unknown {
  const [key, ...rest] = path;
  if (key === undefined) return to;
  if (Array.isArray(value)) {
    const copy: unknown[] = [...(value as unknown[])];
    copy[key as number] = put(copy[key as number], rest, to);
    return copy;
  }
  const copy: Record<string, unknown> = { ...(isObject(value) ? value : {}) };
  const next = put(copy[key], rest, to);
  if (next === undefined) delete copy[key];
  else copy[key] = next;
  return copy;
}

/**
 * Makes the value on the other side of a patch.
 *
 * @param value the value on the first side
 * @param way forward: from before to after
 */
export function applyPatch<T>(value: T, patch: Patch, way: 'forward' | 'back'): T {
  return patch.reduce<unknown>(
    (v, p) => put(v, p.path, way === 'forward' ? p.after : p.before),
    value,
  ) as T;
}
