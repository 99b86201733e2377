import { PART_LISTS } from '../record/partLists';
import { isObject, type Json } from '../record/plainJson';
import type { CaseRecord } from '../record/recordSchema';

/** Fields of a part that change with the unit: ageing, dust and what an earlier hand did. The rest is the variant's. */
const STATE_OF_PART: Readonly<Record<string, readonly string[]>> = {
  dies: ['interface'],
  finStacks: ['blockedShare', 'lintShare'],
  vents: ['blockedShare', 'lintShare'],
  strips: ['state'],
  pads: ['state'],
};
/** Sections that belong to the unit's state altogether. */
const STATE_SECTIONS = ['settings', 'noise', 'room'] as const;
/** Single fields of other sections. */
const STATE_FIELDS: Readonly<Record<string, readonly string[]>> = {
  identity: ['firmware'],
  power: ['source', 'adjustable'],
};

/** The two halves of a case. Both are records; what belongs to the other half is left out. */
export interface CaseHalves {
  /** What every machine of the variant has. */
  cooling: Json;
  /** What changes from unit to unit and from day to day; parts are there with their id alone and the changing fields. */
  state: Json;
}

function take(from: Json, keys: readonly string[]): { taken: Json; rest: Json } {
  const taken: Json = {};
  const rest: Json = {};
  for (const [key, value] of Object.entries(from)) (keys.includes(key) ? taken : rest)[key] = value;
  return { taken, rest };
}

/**
 * Splits a case into the variant's cooling and the unit's state: `joinCase(splitCase(r))` is r again, unknown fields too
 * (they stay with the cooling).
 */
export function splitCase(record: CaseRecord): CaseHalves {
  const cooling: Json = {};
  const state: Json = {};
  for (const [key, value] of Object.entries(record)) {
    if ((STATE_SECTIONS as readonly string[]).includes(key)) {
      state[key] = value;
    } else if (STATE_FIELDS[key] && isObject(value)) {
      const { taken, rest } = take(value, STATE_FIELDS[key]);
      if (Object.keys(taken).length) state[key] = taken;
      cooling[key] = rest;
    } else if (STATE_OF_PART[key] && Array.isArray(value)) {
      const parts: Json[] = [];
      cooling[key] = value.map((part: unknown) => {
        if (!isObject(part)) return part;
        const { taken, rest } = take(part, STATE_OF_PART[key]!);
        if (Object.keys(taken).length) parts.push({ id: part['id'], ...taken });
        return rest;
      });
      if (parts.length) state[key] = parts;
    } else cooling[key] = value;
  }
  return { cooling, state };
}

/** Puts a case together again. State of parts that the cooling no longer has is dropped. */
export function joinCase({ cooling, state }: CaseHalves): CaseRecord {
  const joined: Json = { ...cooling };
  for (const key of STATE_SECTIONS) if (key in state) joined[key] = state[key];
  for (const key of Object.keys(STATE_FIELDS)) {
    if (isObject(state[key])) {
      joined[key] = { ...(isObject(cooling[key]) ? cooling[key] : {}), ...state[key] };
    }
  }
  for (const key of Object.keys(STATE_OF_PART)) {
    const parts = cooling[key];
    const own = state[key];
    if (!Array.isArray(parts) || !Array.isArray(own)) continue;
    joined[key] = parts.map((part: unknown) => {
      const id = isObject(part) ? part['id'] : undefined;
      const mine = (own as Json[]).find((x) => x['id'] === id);
      return mine && isObject(part) ? { ...part, ...mine } : part;
    });
  }
  return joined as CaseRecord;
}

/**
 * What a changed cooling means for another case of the same variant: the new cooling with that case's own state, which follows
 * parts that were renamed in their place.
 *
 * @param before, after the record that was changed
 * @param sibling another case of its variant
 */
export function carryCooling(
  before: CaseRecord,
  after: CaseRecord,
  sibling: CaseRecord,
): CaseRecord {
  const { state } = splitCase(sibling);
  for (const list of PART_LISTS) {
    const names = renamedParts(before[list] ?? [], after[list] ?? []);
    const own = state[list];
    if (names.size && Array.isArray(own)) {
      state[list] = (own as Json[]).map((p) => ({
        ...p,
        id: names.get(p['id'] as string) ?? p['id'],
      }));
    }
    if (list === 'fans' && isObject(state['noise'])) {
      const there = new Set((after.fans ?? []).map((f) => f.id));
      state['noise'] = fitSweep(state['noise'], names, there);
    }
  }
  return joinCase({ cooling: splitCase(after).cooling, state });
}

/** Parts that stand where another name stood, old name to new. */
export function renamedParts(
  before: { id: string }[],
  after: { id: string }[],
): Map<string, string> {
  const names = new Map<string, string>();
  if (before.length !== after.length) return names;
  const old = new Set(before.map((p) => p.id));
  const now = new Set(after.map((p) => p.id));
  before.forEach((p, i) => {
    const to = after[i]!.id;
    if (to !== p.id && !now.has(p.id) && !old.has(to)) names.set(p.id, to);
  });
  return names;
}

/** A sweep's speeds under the fans' new names; those of fans that are gone are dropped. */
function fitSweep(noise: Json, names: ReadonlyMap<string, string>, there: Set<string>): Json {
  const { sweep } = noise;
  if (!Array.isArray(sweep)) return noise;
  const fit = (rpm: Json) =>
    Object.fromEntries(
      Object.entries(rpm)
        .map(([id, x]) => [names.get(id) ?? id, x] as const)
        .filter(([id]) => there.has(id)),
    );
  return {
    ...noise,
    sweep: (sweep as Json[]).map((s) => (isObject(s['rpm']) ? { ...s, rpm: fit(s['rpm']) } : s)),
  };
}
