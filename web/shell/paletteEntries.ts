import { PART_LISTS } from '@zugluft/core/record/partLists';
import { isObject } from '@zugluft/core/record/plainJson';
import type { MachineSummary } from '../api/machines';
import { commandOf, COMMAND_IDS, type CommandId, type CommandPlace } from '../documents/commands';
import { LIBRARY } from '../documents/places';

/** Something the palette finds. */
export interface Entry {
  name: string;
  /** What it is: a command's key, or the kind of thing found. */
  hint: string;
  /** Where it leads, or the command that it gives, or both: first there, then that. */
  to?: string;
  command?: CommandId;
}

const MAX_EACH = 8;

/** Every word begins a word of the text. */
function fits(text: string, words: readonly string[]): boolean {
  const all = text.toLowerCase().split(/[\s,.;:()–-]+/);
  return words.every((w) => all.some((x) => x.startsWith(w)));
}

const STEP_PLACES: readonly CommandPlace[] = [
  'identify',
  'outside',
  'open-up',
  'cooling',
  'estimate',
  'runs',
  'levers',
  'verdict',
];

/** Commands that can be given here, or after going to where they can. */
export function commandEntries(
  words: readonly string[],
  standing: readonly CommandId[],
  machineId: string | undefined,
): Entry[] {
  return COMMAND_IDS.flatMap((id): Entry[] => {
    const { name, place, keys, shown = keys ?? [], words: more = '', keyOnly } = commandOf(id);
    if (keyOnly || !fits(`${name} ${more}`, words)) return [];
    const entry = { name, hint: shown.join(' '), command: id };
    if (standing.includes(id)) return [entry];
    if (place === 'library') return [{ ...entry, to: LIBRARY }];
    if (place === 'bench-day') return [{ ...entry, to: '/bench-day' }];
    if (machineId && STEP_PLACES.includes(place)) {
      return [{ ...entry, to: `/machines/${machineId}/${place}` }];
    }
    return [];
  });
}

/** Commands that are called so and can be given only elsewhere, in words; null where there is none. */
export function elsewhereWords(words: readonly string[]): string | null {
  if (!words.length) return null;
  const names = COMMAND_IDS.map(commandOf)
    .filter((c) => !c.keyOnly && fits(`${c.name} ${c.words ?? ''}`, words))
    .map((c) => `“${c.name}”`);
  return names.length ? `${names.join(', ')}: in the file of a machine, once it is open.` : null;
}

/** Machines of the library. */
export function machineEntries(items: readonly MachineSummary[]): Entry[] {
  return items.map((m) => ({
    name: [m.maker, m.model, m.variant].filter(Boolean).join(' ') || 'Unnamed machine',
    hint: 'machine',
    to: `/machines/${m.id}/cooling`,
  }));
}

/** Whether the words ask for another machine to compare the open one with; then the words for that machine. */
export function comparedWith(
  words: readonly string[],
  machineId: string | undefined,
): readonly string[] | null {
  const [verb = '', ...rest] = words;
  if (!machineId || verb.length < 4 || !'compare'.startsWith(verb)) return null;
  return rest[0] === 'with' ? rest.slice(1) : rest;
}

/** The open machine beside each of others. */
export function compareEntries(items: readonly MachineSummary[], machineId: string): Entry[] {
  return machineEntries(items.filter((m) => m.id !== machineId)).map((e, i) => ({
    name: `Compare with ${e.name}`,
    hint: 'side by side',
    to: `/compare/${machineId}/${items.filter((m) => m.id !== machineId)[i]!.id}`,
  }));
}

/** Parts of the machine that is open. */
export function partEntries(record: unknown, machineId: string, words: readonly string[]): Entry[] {
  if (!isObject(record) || !words.length) return [];
  return PART_LISTS.flatMap((list) => {
    const parts = Array.isArray(record[list]) ? (record[list] as unknown[]) : [];
    return parts.flatMap((part, i) => {
      const id = isObject(part) ? String(part['id']) : '';
      if (!fits(id, words)) return [];
      return [{ name: id, hint: 'part', to: `/machines/${machineId}/cooling?part=${list}.${i}` }];
    });
  }).slice(0, MAX_EACH);
}

/** Equations and defaults of the method. */
export function methodEntries(
  method: readonly { equations: readonly { title: string }[] }[],
  defaults: Readonly<Record<string, { about: string }>>,
  words: readonly string[],
): Entry[] {
  if (!words.length) return [];
  const find = (text: string) => `/method?find=${encodeURIComponent(text)}`;
  const equations = method
    .flatMap((c) => c.equations)
    .filter((e) => fits(e.title, words))
    .map((e) => ({ name: e.title, hint: 'equation', to: find(e.title) }));
  const own = Object.entries(defaults)
    .filter(([key, d]) => fits(`${key} ${d.about}`, words))
    .map(([key, d]) => ({ name: d.about, hint: 'default', to: find(key) }));
  return [...equations.slice(0, MAX_EACH), ...own.slice(0, MAX_EACH)];
}
