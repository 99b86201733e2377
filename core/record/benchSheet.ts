import { measuringOf, type Measuring } from './howToMeasure';
import { HOW_TO } from './howToTable';
import { fieldsOfMachine, fieldsOfPart, type Field } from './fieldTable';
import type { PartListName } from './partLists';
import { getAt, isObject } from './plainJson';
import type { CaseRecord } from './recordSchema';

/** A figure that is still open, with how it is taken. */
export interface SheetRow {
  /** Parts by their name. */
  path: string;
  how: Measuring;
  /** No estimate without it. */
  needed: boolean;
}

export interface SheetSection {
  title: string;
  rows: SheetRow[];
}

/** In the order of opening: what is seen outside, then layer by layer, then what is taken at the running machine. */
const ORDER: readonly { title: string; once?: string; lists?: readonly PartListName[] }[] = [
  { title: 'Outside', once: 'shell' },
  { title: 'Vents', lists: ['vents'] },
  { title: 'Strips, before anything is lifted', lists: ['strips'] },
  { title: 'Fans', lists: ['fans'] },
  { title: 'Fin stacks', lists: ['finStacks'] },
  { title: 'Heat pipes', lists: ['heatPipes'] },
  { title: 'Pads', lists: ['pads'] },
  { title: 'Under the heat sink: plates', lists: ['plates'] },
  { title: 'Under the heat sink: dies', lists: ['dies'] },
  { title: 'Power', once: 'power' },
  { title: 'Room', once: 'room' },
  { title: 'Microphone', once: 'noise' },
];

/** Nothing stands there, or only what was assumed or guessed. */
function isOpen(x: unknown): boolean {
  if (isObject(x)) return x['origin'] === 'assumed' || x['origin'] === 'estimated';
  return x === undefined || x === null || x === '';
}

/**
 * What is still open on a machine, to be taken along to the bench: figures that an estimate needs, those it assumed, and those that
 * matter most, in the order of opening.
 *
 * @param record a record, complete or not
 * @param assumed paths of figures that the estimate assumed, parts by name
 */
export function benchSheet(
  record: Partial<CaseRecord>,
  assumed: ReadonlySet<string> = new Set(),
): SheetSection[] {
  const row = (path: string, field: Field, at: string): SheetRow[] => {
    if (field.at.includes('.*.') && field.at.split('*').length > 2) return [];
    const value = getAt(
      record,
      at.split('.').map((k) => (/^\d+$/.test(k) ? Number(k) : k)),
    );
    const wanted = field.needed || assumed.has(path) || HOW_TO[field.at]?.drawing !== undefined;
    const how = measuringOf(path);
    if (!wanted || !how || !isOpen(value)) return [];
    return [{ path, how, needed: field.needed === true && value === undefined }];
  };
  return ORDER.map(({ title, once, lists = [] }) => ({
    title,
    rows: [
      ...fieldsOfMachine()
        .filter((f) => once !== undefined && f.at.startsWith(`${once}.`))
        .flatMap((f) => row(f.at, f, f.at)),
      ...lists.flatMap((list) =>
        (record[list] ?? []).flatMap((part, i) =>
          fieldsOfPart(list).flatMap((f) =>
            row(
              `${list}.${part.id}.${f.at}`,
              { ...f, at: `${list}.*.${f.at}` },
              `${list}.${i}.${f.at}`,
            ),
          ),
        ),
      ),
    ],
  })).filter((s) => s.rows.length > 0);
}
