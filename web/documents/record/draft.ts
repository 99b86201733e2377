import { standsIn } from '@zugluft/core/family/markAssumed';
import { withMentions } from '@zugluft/core/record/mentions';
import type { PartListName } from '@zugluft/core/record/partLists';
import { getAt, setAt, type Path } from '@zugluft/core/record/plainJson';
import { readFigure } from '@zugluft/core/record/readFigure';
import type { UnitPreference } from '@zugluft/core/record/units';

/** A record while it is being typed: plain JSON that may hold raw text where a number should be. */
export type Draft = { [key: string]: unknown };
export { getAt, setAt, type Path };

/** What stands in a figure, whether plain or with details: a number, raw text, or nothing. */
export function figureText(figure: unknown): string {
  const value =
    typeof figure === 'object' && figure !== null ? (figure as { value?: unknown }).value : figure;
  return value === undefined || value === null ? '' : String(value);
}

/** Reads what was typed: a number with point or comma, else the text as it is, or undefined where it is empty. */
export function readTyped(text: string): number | string | undefined {
  const trimmed = text.trim();
  if (trimmed === '') return undefined;
  const plain = trimmed.replace(',', '.').replace(/^−/, '-');
  return /^[+-]?(\d+\.?\d*|\.\d+)(e[+-]?\d+)?$/i.test(plain) ? Number(plain) : trimmed;
}

/**
 * Sets a figure from typed text. A plain number keeps the figure's ± and origin, unless it was only copied from a sibling
 * variant: what somebody types is no longer assumed.
 *
 * @param unit the record's unit, `share` for shares
 * @param units how plain numbers are read
 */
export function typeFigure(
  draft: Draft,
  path: Path,
  text: string,
  unit?: string,
  units?: UnitPreference,
): Draft {
  const read = readFigure(text, unit, units);
  const now = getAt(draft, path);
  const kept: Draft =
    typeof now === 'object' && now !== null && !standsIn(now) ? (now as Draft) : {};
  if (typeof read !== 'object') {
    const detailed = read !== undefined && Object.keys(kept).length > 0;
    return setAt(draft, path, detailed ? { ...kept, value: read } : read);
  }
  const { value, plusMinus, origin } = read;
  const next = {
    ...kept,
    value,
    ...(plusMinus === undefined ? {} : { plusMinus }),
    ...(origin ? { origin } : {}),
  };
  return setAt(draft, path, Object.keys(next).length === 1 ? value : next);
}

/** A figure as it is kept after it was typed into a field of its own. */
export function typedFigure(text: string, unit?: string, units?: UnitPreference): unknown {
  return getAt(typeFigure({} as Draft, ['figure'], text, unit, units), ['figure']);
}

export type PartList = PartListName | 'settings';

export type Part = { id: string; [key: string]: unknown };

export function partsOf(draft: Draft, list: PartList): Part[] {
  const parts = draft[list];
  return Array.isArray(parts) ? (parts as Part[]) : [];
}

const STEM: Record<PartList, string> = {
  dies: 'die',
  plates: 'plate',
  heatPipes: 'pipe',
  finStacks: 'fins',
  fans: 'fan',
  vents: 'vent',
  strips: 'strip',
  pads: 'pad',
  settings: 'setting',
};

/** A name no other part of the list has: the stem of an old name with the next number. */
function freshId(draft: Draft, list: PartList, like?: string): string {
  const taken = new Set(partsOf(draft, list).map((p) => p.id));
  if (list === 'finStacks') for (const p of partsOf(draft, 'plates')) taken.add(p.id);
  if (list === 'dies' && like === undefined) {
    for (const id of ['cpu', 'gpu']) if (!taken.has(id)) return id;
  }
  const stem = (like ?? STEM[list]).replace(/-\d+$/, '');
  for (let n = 1; ; n++) {
    const id = `${stem}-${n}`;
    if (!taken.has(id)) return id;
  }
}

/** Parts of a list that no part of another list mentions yet. */
function unserved(draft: Draft, of: 'fans' | 'finStacks', by: 'finStacks' | 'vents'): string[] {
  const served = new Set(partsOf(draft, by).flatMap((p) => (p[of] as string[] | undefined) ?? []));
  const ids = partsOf(draft, of).map((p) => p.id);
  return ids.filter((x) => !served.has(x));
}

/** A new part with the connections most machines have, so that a first sketch needs few steps. */
function newPart(draft: Draft, list: PartList): Part {
  const id = freshId(draft, list);
  switch (list) {
    case 'dies':
      return { id, role: id === 'gpu' ? 'gpu' : 'cpu' };
    case 'plates': {
      const covered = new Set(
        partsOf(draft, 'plates').flatMap((p) => (p['dies'] as string[]) ?? []),
      );
      const free = partsOf(draft, 'dies').find((d) => !covered.has(d.id));
      return {
        id: free ? `plate-${free.id}` : id,
        kind: 'copper-plate',
        dies: free ? [free.id] : [],
      };
    }
    case 'heatPipes': {
      // the first pipe joins everything; a further one, all plates to the last stack
      const stacks = partsOf(draft, 'finStacks').map((s) => s.id);
      const shared = stacks.length > 1 && partsOf(draft, 'heatPipes').length === 0;
      const ends = shared ? [stacks.slice(0, 1), stacks.slice(1)] : [[], stacks.slice(-1)];
      return {
        id,
        count: 1,
        along: [...ends[0]!, ...partsOf(draft, 'plates').map((p) => p.id), ...ends[1]!].map(
          (part) => ({ part }),
        ),
      };
    }
    case 'finStacks':
      return { id, fans: unserved(draft, 'fans', 'finStacks').slice(0, 1) };
    case 'fans':
      return { id };
    case 'vents': {
      const unfed = unserved(draft, 'fans', 'vents');
      // seen before anything is opened, the first ones are those below
      const closed = !partsOf(draft, 'fans').length && !partsOf(draft, 'finStacks').length;
      if (unfed.length || closed) {
        return { id, flow: 'intake', side: 'base', fans: unfed.slice(0, 1) };
      }
      const shut = unserved(draft, 'finStacks', 'vents');
      return { id, flow: 'exhaust', side: 'rear', finStacks: shut.slice(0, 1) };
    }
    case 'pads':
      return { id, from: 'storage', to: 'base-cover' };
    default:
      return { id };
  }
}

/** The first vent of a flow that is linked to nothing, by its place; -1 where there is none. */
function openVent(draft: Draft, flow: 'intake' | 'exhaust', field: 'fans' | 'finStacks'): number {
  return partsOf(draft, 'vents').findIndex(
    (v) => v['flow'] === flow && !(v[field] as string[] | undefined)?.length,
  );
}

/**
 * Adds a part at the end of its list. A new fan blows through the stacks that have none yet and takes air from the first vent that
 * feeds none; a new stack lets its air out by the first vent that lets out none, since vents are seen before the machine is opened.
 */
export function addPart(draft: Draft, list: PartList): Draft {
  const part = newPart(draft, list);
  let next = setAt(draft, [list], [...partsOf(draft, list), part]);
  if (list === 'fans') {
    partsOf(next, 'finStacks').forEach((s, i) => {
      if (!(s['fans'] as string[] | undefined)?.length) {
        next = setAt(next, ['finStacks', i, 'fans'], [part.id]);
      }
    });
    const vent = openVent(next, 'intake', 'fans');
    if (vent >= 0) next = setAt(next, ['vents', vent, 'fans'], [part.id]);
  }
  if (list === 'finStacks') {
    const vent = openVent(next, 'exhaust', 'finStacks');
    if (vent >= 0) next = setAt(next, ['vents', vent, 'finStacks'], [part.id]);
    partsOf(next, 'heatPipes').forEach((p, i) => {
      const along = (p['along'] as { part: string }[] | undefined) ?? [];
      const stacks = new Set(partsOf(next, 'finStacks').map((s) => s.id));
      if (!along.some((a) => stacks.has(a.part))) {
        next = setAt(next, ['heatPipes', i, 'along'], [...along, { part: part.id }]);
      }
    });
  }
  return next;
}

/** Copies a part, with a new name, right behind the original. */
export function copyPart(draft: Draft, list: PartList, index: number): Draft {
  const parts = partsOf(draft, list);
  const original = parts[index];
  if (!original) return draft;
  const copy: Part = { ...structuredClone(original), id: freshId(draft, list, original.id) };
  if (list === 'plates') copy['dies'] = [];
  // the copy serves what nothing serves yet, as the second side of most machines does
  for (const field of ['fans', 'finStacks'] as const) {
    if ((list !== 'finStacks' && list !== 'vents') || !Array.isArray(copy[field])) continue;
    if ((copy[field] as string[]).length !== 1) continue;
    const [free] = unserved(draft, field, list);
    if (free !== undefined) copy[field] = [free];
  }
  const next = setAt(
    draft,
    [list],
    [...parts.slice(0, index + 1), copy, ...parts.slice(index + 1)],
  );
  const [flow, field] =
    list === 'fans' ? (['intake', 'fans'] as const) : (['exhaust', 'finStacks'] as const);
  const vent = list === 'fans' || list === 'finStacks' ? openVent(next, flow, field) : -1;
  return vent < 0 ? next : setAt(next, ['vents', vent, field], [copy.id]);
}

/** Removes a part and every mention of it. */
export function removePart(draft: Draft, list: PartList, index: number): Draft {
  const parts = partsOf(draft, list);
  const gone = parts[index];
  if (!gone) return draft;
  const next = setAt(
    draft,
    [list],
    parts.filter((_, i) => i !== index),
  );
  return list === 'settings' ? next : withMentions(next, list, gone.id, null);
}

/** Renames a part and every mention of it. */
export function renamePart(draft: Draft, list: PartList, index: number, id: string): Draft {
  const old = partsOf(draft, list)[index]?.id;
  const next = setAt(draft, [list, index, 'id'], id);
  return old === undefined || old === '' || list === 'settings'
    ? next
    : withMentions(next, list, old, id);
}

/** An empty record: what a new machine starts from. */
export function emptyRecord(): Draft {
  return {
    format: 'zugluft-record',
    formatVersion: 1,
    identity: {},
    shell: {},
    power: { source: 'mains' },
    settings: [],
    dies: [],
    plates: [],
    heatPipes: [],
    finStacks: [],
    fans: [],
    vents: [],
    room: { surface: 'desk', lid: 'open' },
  };
}
