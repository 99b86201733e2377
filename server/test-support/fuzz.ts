import { z } from 'zod';

/** A number in [0, 1), the next of a seeded row. */
export type Random = () => number;

export const oneOf = <T>(random: Random, of: readonly T[]): T =>
  of[Math.floor(random() * of.length)]!;

/** Texts that have broken programs before. */
export const NASTY_TEXTS = [
  '',
  ' ',
  '\u0000',
  '\ud800',
  '\u202egnp.exe',
  "'; DROP TABLE machines; --",
  '%',
  '_',
  '../../etc/passwd',
  '..\\..\\x',
  '__proto__',
  'constructor',
  '=1+1',
  '<script>alert(1)</script>',
  '{{7*7}}',
  '💨'.repeat(50),
  'a'.repeat(5000),
  '1e309',
  'NaN',
  '-0',
  '0x10',
  'null',
  'true',
  '2026-13-45T99:99:99Z',
  '\r\nSet-Cookie: a=b',
];
export const NASTY_VALUES: readonly unknown[] = [
  null,
  true,
  0,
  -1,
  1e308,
  -1e-308,
  1.5,
  2 ** 53,
  [],
  {},
  [[]],
  { length: 1e9 },
  JSON.parse('{"__proto__":{"x":1}}') as unknown,
  ...NASTY_TEXTS,
];

type JsonSchema = {
  type?: string;
  enum?: unknown[];
  const?: unknown;
  anyOf?: JsonSchema[];
  oneOf?: JsonSchema[];
  allOf?: JsonSchema[];
  properties?: Record<string, JsonSchema>;
  required?: string[];
  additionalProperties?: JsonSchema | boolean;
  propertyNames?: JsonSchema;
  items?: JsonSchema;
  prefixItems?: JsonSchema[];
  format?: string;
  minimum?: number;
  maximum?: number;
  exclusiveMinimum?: number;
  minLength?: number;
  maxLength?: number;
  minItems?: number;
  maxItems?: number;
  $ref?: string;
  $defs?: Record<string, JsonSchema>;
};

/** A value that a schema may take, as far as a schema says it; now and then one that it must not. */
export function valueOf(schema: z.ZodType, random: Random, ids: readonly string[] = []): unknown {
  const root = z.toJSONSchema(schema, { unrepresentable: 'any', io: 'input' }) as JsonSchema;
  const make = (s: JsonSchema, depth: number): unknown => {
    if (random() < 0.03) return oneOf(random, NASTY_VALUES);
    if (s.$ref)
      return depth > 6 ? null : make(root.$defs?.[s.$ref.split('/').pop()!] ?? root, depth + 1);
    const choices = s.anyOf ?? s.oneOf;
    if (choices) return make(oneOf(random, choices), depth);
    if (s.allOf) return Object.assign({}, ...s.allOf.map((a) => make(a, depth)));
    if (s.const !== undefined) return s.const;
    if (s.enum) return oneOf(random, s.enum);
    switch (s.type) {
      case 'object': {
        const made: [string, unknown][] = [];
        for (const [key, of] of Object.entries(s.properties ?? {})) {
          const isNeeded = s.required?.includes(key) ?? false;
          if (isNeeded || random() < (depth > 3 ? 0.2 : 0.6)) made.push([key, make(of, depth + 1)]);
        }
        if (typeof s.additionalProperties === 'object') {
          const key = s.propertyNames ? String(make(s.propertyNames, depth + 1)) : 'some';
          made.push([key, make(s.additionalProperties, depth + 1)]);
        }
        if (random() < 0.03) made.push([oneOf(random, NASTY_TEXTS), 1]);
        return Object.fromEntries(made);
      }
      case 'array': {
        if (s.prefixItems) return s.prefixItems.map((p) => make(p, depth + 1));
        const least = s.minItems ?? 0;
        const n = least + Math.floor(random() * Math.min(3, (s.maxItems ?? 3) - least + 1));
        return Array.from({ length: n }, () => make(s.items ?? {}, depth + 1));
      }
      case 'integer':
      case 'number': {
        const low = s.minimum ?? s.exclusiveMinimum ?? -10;
        const high = Math.min(s.maximum ?? low + 1000, low + 1e6);
        const x = low + random() * (high - low);
        return s.type === 'integer' ? Math.round(x) : x;
      }
      case 'boolean':
        return random() < 0.5;
      case 'string': {
        if (s.format === 'uuid') {
          return oneOf(random, [...ids, '00000000-0000-4000-8000-000000000000']);
        }
        if (s.format === 'date-time') return '2026-03-04T05:06:07Z';
        if (random() < 0.2) return oneOf(random, NASTY_TEXTS);
        return 'word '.repeat(1 + Math.floor(random() * 3)).slice(0, s.maxLength ?? 20);
      }
      default:
        return oneOf(random, NASTY_VALUES);
    }
  };
  return make(root, 0);
}
