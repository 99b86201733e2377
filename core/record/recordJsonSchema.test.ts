import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { recordJsonSchema } from './recordJsonSchema';

test('docs/format/record.schema.json is what the Zod schema says (npm run docs)', () => {
  const file = join(__dirname, '../../docs/format/record.schema.json');
  expect(readFileSync(file, 'utf8')).toBe(recordJsonSchema());
});

test('names the parts, their bounds, and lets unknown fields be', () => {
  const schema = JSON.parse(recordJsonSchema());
  expect(Object.keys(schema.properties)).toEqual(
    expect.arrayContaining(['format', 'dies', 'heatPipes', 'finStacks', 'fans', 'room']),
  );
  expect(schema.properties.dies.maxItems).toBe(8);
  expect(schema.additionalProperties).not.toBe(false);
});
