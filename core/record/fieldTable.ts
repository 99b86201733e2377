import { z } from 'zod';
import { fields, type FieldMeta } from './field';
import { PART_LISTS, type PartListName } from './partLists';
import { recordSchema } from './recordSchema';

/** A field of the record: where it stands, `*` for any entry of a list or any name, and what is known of it. */
export interface Field extends FieldMeta {
  at: string;
}

function unwrap(schema: z.ZodType): z.ZodType {
  return schema instanceof z.ZodOptional ? unwrap(schema.unwrap() as z.ZodType) : schema;
}

function walk(schema: z.ZodType, at: readonly string[], out: Field[]): void {
  const inner = unwrap(schema);
  const meta = fields.get(schema) ?? fields.get(inner);
  if (meta) out.push({ at: at.join('.'), ...meta });
  if (inner instanceof z.ZodObject) {
    for (const [key, x] of Object.entries(inner.shape)) walk(x as z.ZodType, [...at, key], out);
  } else if (inner instanceof z.ZodArray) {
    walk(inner.element as z.ZodType, [...at, '*'], out);
  } else if (inner instanceof z.ZodRecord) {
    walk(inner.valueType as z.ZodType, [...at, '*'], out);
  }
}

/** Every field of the record, in the order of the schema. */
export const RECORD_FIELDS: readonly Field[] = (() => {
  const out: Field[] = [];
  walk(recordSchema, [], out);
  return out;
})();

interface Node {
  field?: Field;
  below: Map<string, Node>;
}
const root: Node = { below: new Map() };
for (const field of RECORD_FIELDS) {
  let node = root;
  for (const key of field.at.split('.')) {
    if (!node.below.has(key)) node.below.set(key, { below: new Map() });
    node = node.below.get(key)!;
  }
  node.field = field;
}

/**
 * What is known of the field at a path; parts by their place or their name.
 *
 * @returns undefined where the path leads to no field
 * @example fieldAt('dies.gpu.interface.bondLineUm')?.name // 'bond line'
 */
export function fieldAt(path: string): Field | undefined {
  let node: Node | undefined = root;
  for (const key of path.split('.')) node = node?.below.get(key) ?? node?.below.get('*');
  return node?.field;
}

/** Fields of a part of a kind by their path inside the part. */
export function fieldsOfPart(list: PartListName | 'settings'): Field[] {
  const start = `${list}.*.`;
  return RECORD_FIELDS.filter((f) => f.at.startsWith(start)).map((f) => ({
    ...f,
    at: f.at.slice(start.length),
  }));
}

/** Fields that stand once in a record. */
export function fieldsOfMachine(): Field[] {
  return RECORD_FIELDS.filter((f) => !f.at.includes('*'));
}

/** What one part of a kind is called. */
export const PART_WORDS: Readonly<Record<PartListName | 'settings', string>> = {
  dies: 'die',
  plates: 'plate',
  heatPipes: 'heat pipe',
  finStacks: 'fin stack',
  fans: 'fan',
  vents: 'vent',
  strips: 'strip',
  pads: 'pad',
  settings: 'setting',
};

export function isPartList(name: string): name is PartListName {
  return (PART_LISTS as readonly string[]).includes(name);
}
