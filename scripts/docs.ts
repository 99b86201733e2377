// npm run docs: writes the documents that are made from the core.
import { mkdirSync, writeFileSync } from 'node:fs';
import { methodDocument } from '@zugluft/core/method/methodDocument';
import { recordJsonSchema } from '@zugluft/core/record/recordJsonSchema';
import { openApiDocument } from '@zugluft/server/openapi/openApiDocument';
import { openUpJsonSchema } from '@zugluft/core/service/openUpJsonSchema';

writeFileSync('docs/method.md', methodDocument());
mkdirSync('docs/format', { recursive: true });
writeFileSync('docs/format/record.schema.json', recordJsonSchema());
writeFileSync('docs/format/openapi.json', openApiDocument());
writeFileSync('docs/format/openup.schema.json', openUpJsonSchema());
