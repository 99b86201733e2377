import { diffRecords } from '../family/diffRecords';
import { isObject } from '../record/plainJson';

/** Machines that are compared at most, and of which every figure stands side by side. */
export const MAX_COMPARED = 200;
export const MAX_BESIDE = 6;

/** A field in which machines differ, with what stands there in each; undefined where one has none. */
export interface ComparedField {
  path: string;
  values: unknown[];
}

/**
 * Fields in which any of several records differs from the first, in the order of the record.
 *
 * @param records two or more
 * @example compareRecords([{ fans: 1 }, { fans: 2 }, { fans: 1 }]) // [{ path: 'fans', values: [1, 2, 1] }]
 */
export function compareRecords(records: readonly unknown[]): ComparedField[] {
  const [first, ...others] = records;
  const differences = others.map((r) => new Map(diffRecords(first, r).map((d) => [d.path, d])));
  const paths = [...new Set(differences.flatMap((d) => [...d.keys()]))];
  return paths.map((path) => {
    const before = differences.map((d) => d.get(path)).find((d) => d !== undefined)!.before;
    return {
      path,
      values: [
        before,
        ...differences.map((d) =>
          d.has(path) ? d.get(path)!.after : (valueAt(first, path) ?? before),
        ),
      ],
    };
  });
}

/** What stands at a path that names parts by id; a whole part is not said again. */
function valueAt(record: unknown, path: string): unknown {
  let at = record;
  for (const key of path.split('.')) {
    if (Array.isArray(at)) at = at.find((x) => isObject(x) && x['id'] === key) ?? at[Number(key)];
    else at = isObject(at) ? at[key] : undefined;
  }
  return at;
}
