// npm run docs: writes the documents that are made from the core.
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { bandsDocument } from '@zugluft/core/method/bandsDocument';
import { bandedExamples } from '@zugluft/core/method/bandedExamples';
import { plansJsonSchema } from '@zugluft/core/levers/plansDocument';
import { methodDocument } from '@zugluft/core/method/methodDocument';
import { schoolsDocument } from '@zugluft/core/method/schools';
import { marksJsonSchema } from '@zugluft/core/photo/marksFile';
import { parseRecord } from '@zugluft/core/record/parseRecord';
import { recordJsonSchema } from '@zugluft/core/record/recordJsonSchema';
import { articleJsonSchema } from '@zugluft/core/report/article';
import { openApiDocument } from '@zugluft/server/openapi/openApiDocument';
import { runJsonSchema } from '@zugluft/core/runs/runDocument';
import { openUpJsonSchema } from '@zugluft/core/service/openUpJsonSchema';

const example = (name: string) =>
  parseRecord(JSON.parse(readFileSync(`examples/${name}.json`, 'utf8'))).record!;

writeFileSync('docs/method.md', methodDocument());
writeFileSync(
  'docs/schools.md',
  schoolsDocument({ twoFan: example('two-fan-shared-pipes'), oneDie: example('one-die') }),
);
writeFileSync(
  'docs/bands.md',
  bandsDocument(bandedExamples((file) => JSON.parse(readFileSync(`examples/${file}`, 'utf8')))),
);
mkdirSync('docs/format', { recursive: true });
writeFileSync('docs/format/record.schema.json', recordJsonSchema());
writeFileSync('docs/format/openapi.json', openApiDocument());
writeFileSync('docs/format/openup.schema.json', openUpJsonSchema());
writeFileSync('docs/format/run.schema.json', runJsonSchema());
writeFileSync('docs/format/plans.schema.json', plansJsonSchema());
writeFileSync('docs/format/article.schema.json', articleJsonSchema());
writeFileSync('docs/format/marks.schema.json', marksJsonSchema());
