import { isObject, type Json } from '../record/plainJson';
import { parseRecord } from '../record/parseRecord';
import { PART_LISTS } from '../record/partLists';
import type { CaseRecord } from '../record/recordSchema';
import type { Change } from './lever';

/** Lists whose entries are named by their ids. */
const LISTS: ReadonlySet<string> = new Set([...PART_LISTS, 'settings', 'pads', 'strips']);
/** The setting that applies is no figure of the record. */
const SETTING = 'setting';

/** A change that cannot be made: its place in the list of changes, and why. */
export class ImpossibleChange extends Error {
  constructor(
    readonly at: number,
    readonly path: string,
    message: string,
  ) {
    super(message);
  }
}

/** A record after changes, and the setting that applies then. */
export interface Changed {
  record: CaseRecord;
  setting: string | undefined;
}

/**
 * Makes changes to a record; those to different places may come in any order.
 *
 * @param record complete
 * @param changes in order
 * @param setting that applies before
 * @throws ImpossibleChange where a part is not there, or what comes out is no complete record
 * @example applyChanges(record, [{ path: 'dies.cpu.interface.ageYears', to: 0 }])
 */
export function applyChanges(
  record: CaseRecord,
  changes: readonly Change[],
  setting?: string,
): Changed {
  let next: unknown = record;
  let applies = setting;
  changes.forEach(({ path, to }, at) => {
    if (path === SETTING) {
      if (typeof to !== 'string' || !record.settings?.some((s) => s.id === to)) {
        throw new ImpossibleChange(at, path, `there is no setting called “${String(to)}”`);
      }
      applies = to;
      return;
    }
    const parts = path.split('.');
    if (parts.some((p) => p === ''))
      throw new ImpossibleChange(at, path, 'is no place of a record');
    next = put(next, parts, to, { at, path });
  });
  if (next === record) return { record, setting: applies };
  const parsed = parseRecord(JSON.parse(JSON.stringify(next)));
  if (!parsed.record || !parsed.complete) {
    const issue = parsed.issues[0];
    // the change nearest to what is wrong is the one to name
    const at = Math.max(
      0,
      changes.findIndex((c) => issue?.path.includes(c.path.split('.').at(-1)!)),
    );
    throw new ImpossibleChange(
      at,
      changes[at]?.path ?? '',
      issue ? `${issue.path}: ${issue.message}` : 'what comes out is no complete record',
    );
  }
  return { record: parsed.record, setting: applies };
}

function put(
  value: unknown,
  path: readonly string[],
  to: unknown,
  about: { at: number; path: string },
): unknown {
  const [head, ...rest] = path as [string, ...string[]];
  if (Array.isArray(value)) return putInList(value, head, rest, to, about);
  if (value !== undefined && !isObject(value)) {
    throw new ImpossibleChange(about.at, about.path, `there is nothing below ${head}`);
  }
  const object: Json = value ?? {};
  if (rest.length === 0) {
    if (to !== null) return { ...object, [head]: to };
    const { [head]: _, ...others } = object;
    return others;
  }
  const below = object[head] ?? (LISTS.has(head) ? [] : undefined);
  return { ...object, [head]: put(below, rest, to, about) };
}

function putInList(
  list: readonly unknown[],
  id: string,
  rest: readonly string[],
  to: unknown,
  about: { at: number; path: string },
): unknown {
  const at = list.findIndex((x) => isObject(x) && x['id'] === id);
  if (rest.length > 0) {
    if (at < 0) throw new ImpossibleChange(about.at, about.path, `there is no part called “${id}”`);
    return list.map((x, i) => (i === at ? put(x, rest, to, about) : x));
  }
  if (to === null) {
    if (at < 0) throw new ImpossibleChange(about.at, about.path, `there is no part called “${id}”`);
    return list.filter((_, i) => i !== at);
  }
  if (!isObject(to)) {
    throw new ImpossibleChange(about.at, about.path, 'a part is put in as an object');
  }
  const part = { ...to, id };
  return at < 0 ? [...list, part] : list.map((x, i) => (i === at ? part : x));
}
