/** Plain JSON. */
export type Json = { [key: string]: unknown };

export function isObject(x: unknown): x is Json {
  return typeof x === 'object' && x !== null && !Array.isArray(x);
}

export type Path = readonly (string | number)[];

/** Value at a path, undefined where the way there does not exist. */
export function getAt(json: unknown, path: Path): unknown {
  let at = json;
  for (const key of path) {
    if (typeof at !== 'object' || at === null) return undefined;
    at = (at as Record<string | number, unknown>)[key];
  }
  return at;
}

/** A copy with the value at a path set, objects made on the way; undefined removes the field. */
export function setAt<T>(json: T, path: Path, value: unknown): T {
  const [key, ...rest] = path;
  if (key === undefined) return value as T;
  const copy: Record<string | number, unknown> | unknown[] = Array.isArray(json)
    ? [...(json as unknown[])]
    : { ...(json as object) };
  const inside = copy as Record<string | number, unknown>;
  const next = rest.length ? setAt(inside[key] ?? {}, rest, value) : value;
  if (next === undefined && !Array.isArray(copy)) delete inside[key];
  else inside[key] = next;
  return copy as T;
}
