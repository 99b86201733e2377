import { parseCount } from '../count/parseCount';
import { PART_LISTS } from '../record/partLists';
import { isObject, type Json } from '../record/plainJson';
import type { LabDefaults } from '../record/resolver';
import { mergeDocuments, type Side } from './mergeDocuments';

/**
 * A record after its count was changed: what followed from the count before follows from the new one, what somebody measured
 * or changed since stands. While the new count is refused or not whole only itself is kept, and the parts stay as they were,
 * with the count they follow from under `countMade`.
 *
 * @param record as it stands, perhaps with half typed figures
 * @param now the count as it is now, as typed
 * @param lab a laboratory's own defaults
 * @returns the record, its count under `count`
 */
export function recount(record: Json, now: Json, lab: LabDefaults = {}): Json {
  const before = record['countMade'] ?? record['count'];
  const base = isObject(before) ? plain(parseCount(before, lab).record) : null;
  const made = plain(parseCount(now, lab).record);
  if (!made) return { ...record, ...(base ? { countMade: before } : {}), count: now };
  const { count: _, ...mine } = made;
  const { countMade: _made, ...standing } = record;
  if (!base) {
    // counted for the first time: nothing of the cooling stands there yet
    const identity = { ...asObject(standing['identity']), ...asObject(mine['identity']) };
    return { ...standing, ...mine, identity, count: now };
  }
  const { count: __, ...from } = base;
  const { count: ___, ...theirs } = standing;
  const { conflicts } = mergeDocuments<Json>(from, mine, theirs);
  const chosen = new Map(conflicts.map((c): [string, Side] => [c.path, 'theirs']));
  return { ...mergeDocuments<Json>(from, mine, theirs, chosen).value, count: now };
}

/** As it comes back from a file: no figure is shared between two parts. */
function plain(record: unknown): Json | null {
  return record ? (JSON.parse(JSON.stringify(record)) as Json) : null;
}

const asObject = (x: unknown): Json => (isObject(x) ? x : {});

/** Whether a record has parts that no count of its own explains: recorded one by one, or made like another machine. */
export function isRecordedOtherwise(record: Json): boolean {
  if (isObject(record['count'])) return false;
  return PART_LISTS.some((list) => Array.isArray(record[list]) && record[list].length > 0);
}
