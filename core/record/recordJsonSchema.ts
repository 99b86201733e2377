import { z } from 'zod';
import { recordSchema } from './recordSchema';

/** The record format as a JSON Schema document, for other programs that read or write records. */
export function recordJsonSchema(): string {
  return `${JSON.stringify(z.toJSONSchema(recordSchema, { io: 'input' }), null, 2)}\n`;
}
