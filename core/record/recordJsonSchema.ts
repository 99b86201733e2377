import { z } from 'zod';
import { fields } from './field';
import { recordSchema } from './recordSchema';

/** The record format as a JSON Schema document, for other programs that read or write records: bounds, names and units. */
export function recordJsonSchema(): string {
  const schema = z.toJSONSchema(recordSchema, {
    io: 'input',
    override({ zodSchema, jsonSchema }) {
      const known = fields.get(zodSchema as unknown as z.ZodType);
      if (!known) return;
      jsonSchema.title = known.name;
      if (known.unit) jsonSchema['unit'] = known.unit;
    },
  });
  return `${JSON.stringify(schema, null, 2)}\n`;
}
