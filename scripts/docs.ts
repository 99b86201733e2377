// npm run docs: writes the documents that are made from the core.
import { mkdirSync, writeFileSync } from 'node:fs';
import { methodDocument } from '@zugluft/core/method/methodDocument';
import { recordJsonSchema } from '@zugluft/core/record/recordJsonSchema';
import { openUpJsonSchema } from '@zugluft/core/service/openUpJsonSchema';

writeFileSync('docs/method.md', methodDocument());
mkdirSync('docs/format', { recursive: true });
writeFileSync('docs/format/record.schema.json', recordJsonSchema());
writeFileSync('docs/format/openup.schema.json', openUpJsonSchema());
