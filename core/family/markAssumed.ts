import { COUNT_NOTE } from '../record/figure';
import { isObject, type Json } from '../record/plainJson';
import type { CaseRecord } from '../record/recordSchema';
import { joinCase, splitCase } from './splitCase';

/** Sections whose numbers are no figures of the machine. */
const NO_FIGURES = new Set(['format', 'formatVersion', 'identity']);
const FROM = 'assumed from ';

function mark(value: unknown, note: string): unknown {
  if (typeof value === 'number') return { value, origin: 'assumed', note };
  if (Array.isArray(value)) return value.map((x) => mark(x, note));
  if (!isObject(value)) return value;
  if (typeof value['value'] === 'number') return { ...value, origin: 'assumed', note };
  return Object.fromEntries(Object.entries(value).map(([key, x]) => [key, mark(x, note)]));
}

/**
 * A copy of a case for a sibling variant: every figure of the cooling and of the settings is marked as assumed, with where it
 * came from, until somebody confirms it. What was read off the one unit (room, noise, dust, age) is left out.
 *
 * @param record the case to copy from
 * @param from what it is called, for the note
 */
export function copyForSibling(record: CaseRecord, from: string): CaseRecord {
  const { cooling, state } = splitCase(record);
  const note = `${FROM}${from}`.slice(0, 200);
  const marked: Json = {};
  for (const [key, value] of Object.entries(cooling)) {
    marked[key] = NO_FIGURES.has(key) ? value : mark(value, note);
  }
  if (isObject(cooling['identity'])) marked['identity'] = markIdentity(cooling['identity'], note);
  return joinCase({ cooling: marked, state: freshState(state, (x) => mark(x, note)) });
}

/**
 * A copy of a case for another machine that looks like it: as for a sibling, and nothing is as sure as it was there, so that
 * each figure has the width of what is assumed. What it is called is left out.
 *
 * @param record the case to copy from
 * @param from what it is called, for the notes
 */
export function copyForLike(record: CaseRecord, from: string): CaseRecord {
  const { identity: _, ...copy } = copyForSibling(record, from);
  return withoutPlusMinus(copy) as CaseRecord;
}

function withoutPlusMinus(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(withoutPlusMinus);
  if (!isObject(value)) return value;
  if (isAssumedFromSibling(value)) {
    const { plusMinus: __, ...figure } = value;
    return figure;
  }
  return Object.fromEntries(Object.entries(value).map(([key, x]) => [key, withoutPlusMinus(x)]));
}

/** Texts of a sibling's identity that have to be read off the new variant itself. */
const READ_OFF = ['modelCode', 'modelCodeFrom'] as const;

function markIdentity(identity: Json, note: string): Json {
  const assumed = READ_OFF.filter((field) => identity[field] !== undefined);
  return {
    ...identity,
    ...('year' in identity ? { year: mark(identity['year'], note) } : {}),
    ...(assumed.length ? { assumed } : {}),
  };
}

/** Whether a text was copied from a sibling and not read off this one yet. */
export const isAssumedText = (holder: unknown, field: string): boolean =>
  isObject(holder) && Array.isArray(holder['assumed']) && holder['assumed'].includes(field);

/** The holder of a text that somebody read off this one: it is assumed no longer. */
export function confirmText<T>(holder: T, field: string): T {
  if (!isAssumedText(holder, field)) return holder;
  const { assumed, ...rest } = holder as Json;
  const left = (assumed as string[]).filter((x) => x !== field);
  return (left.length ? { ...rest, assumed: left } : rest) as T;
}

/** A copy of a case for another unit of the same variant: the cooling as it is, a state still to be found out. */
export function copyForUnit(record: CaseRecord): CaseRecord {
  const { cooling, state } = splitCase(record);
  return joinCase({ cooling, state: freshState(state, (x) => x) });
}

/** What of a state holds for any unit until somebody looks: settings, and the kind of interface material, not its age. */
function freshState(state: Json, map: (x: unknown) => unknown): Json {
  const fresh: Json = { room: { surface: 'desk', lid: 'open' } };
  if ('settings' in state) fresh['settings'] = map(state['settings']);
  if ('power' in state) fresh['power'] = state['power'];
  if (Array.isArray(state['dies'])) {
    fresh['dies'] = (state['dies'] as Json[]).map((d) => {
      const { ageYears: _, ...kept } = (d['interface'] ?? {}) as Json;
      return { id: d['id'], interface: map(kept) };
    });
  }
  return fresh;
}

/** Whether a figure stands in until it is measured: copied from a sibling, or from a quick count. */
export function standsIn(figure: unknown): boolean {
  return isAssumedFromSibling(figure) || (isObject(figure) && figure['note'] === COUNT_NOTE);
}

/** Whether a figure still rests on a sibling. */
export function isAssumedFromSibling(figure: unknown): boolean {
  return (
    isObject(figure) &&
    figure['origin'] === 'assumed' &&
    typeof figure['note'] === 'string' &&
    figure['note'].startsWith(FROM)
  );
}

/** A figure that somebody has now confirmed by measuring: the value stands, the mark and its note go. */
export function confirmFigure(figure: Json): Json {
  const { note: _, plusMinus: __, ...rest } = figure;
  return { ...rest, origin: 'measured' };
}
