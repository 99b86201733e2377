import { RECORD_FIELDS, type Field } from './fieldTable';
import { PART_LISTS, type PartListName } from './partLists';
import { isObject, type Json } from './plainJson';

/**
 * Where parts of a kind are mentioned by name, from the table of fields: `*` any entry of a list, `[]` a list of names, `{}` an
 * object with names as keys, `!` the entry around the name goes with it.
 */
const MENTIONS = Object.fromEntries(
  PART_LISTS.map((list) => [list, RECORD_FIELDS.flatMap((f) => mentionOf(f, list))]),
) as Record<PartListName, string[]>;

function mentionOf({ at, refersTo }: Field, list: PartListName): string[] {
  if (!refersTo?.lists.includes(list)) return [];
  if (refersTo.as === 'names') return [`${at}.[]`];
  if (refersTo.as === 'keys') return [`${at}.{}`];
  return [refersTo.withEntry ? at.replace(/[^.]+$/, '!$&') : at];
}

/** What stands in place of a name; null: the part is gone. */
type Map = (name: string) => string | null;

const DROP = Symbol('drop');

function walk(value: unknown, path: readonly string[], map: Map): unknown {
  const [head, ...rest] = path;
  if (head === '[]') {
    if (!Array.isArray(value)) return value;
    return (value as unknown[]).flatMap((x) => (typeof x === 'string' ? (map(x) ?? []) : [x]));
  }
  if (head === '{}') {
    if (!isObject(value)) return value;
    return Object.fromEntries(
      Object.entries(value).flatMap(([name, x]) => {
        const to = map(name);
        return to === null ? [] : [[to, x]];
      }),
    );
  }
  if (head === '*') {
    if (!Array.isArray(value)) return value;
    return (value as unknown[]).map((x) => walk(x, rest, map)).filter((x) => x !== DROP);
  }
  if (!isObject(value) || head === undefined) return value;
  const withEntry = head.startsWith('!');
  const key = withEntry ? head.slice(1) : head;
  if (!(key in value)) return value;
  if (rest.length) {
    const next = walk(value[key], rest, map);
    return next === value[key] ? value : { ...value, [key]: next };
  }
  const name = value[key];
  if (typeof name !== 'string') return value;
  const to = map(name);
  if (to === name) return value;
  if (to !== null) return { ...value, [key]: to };
  if (withEntry) return DROP;
  const { [key]: _, ...others } = value;
  return others;
}

/**
 * Follows the renaming or removal of a part through every mention of it.
 *
 * @param record plain JSON, also while it is typed
 * @param list the kind of the part
 * @param from its name
 * @param to its new name, null where it is gone
 * @example withMentions(record, 'fans', 'fan-1', 'fan-left')
 */
export function withMentions<T extends Json>(
  record: T,
  list: PartListName,
  from: string,
  to: string | null,
): T {
  const map: Map = (name) => (name === from ? to : name);
  return MENTIONS[list].reduce<unknown>((r, path) => walk(r, path.split('.'), map), record) as T;
}
