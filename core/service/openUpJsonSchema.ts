import { z } from 'zod';
import { openUpLog } from './openUpLog';

/** The format of an opening's log as a JSON Schema document, for other programs that read or write logs. */
export function openUpJsonSchema(): string {
  return `${JSON.stringify(z.toJSONSchema(openUpLog, { io: 'input' }), null, 2)}\n`;
}
