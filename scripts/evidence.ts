// npm run docs:evidence: computes docs/evidence.md, which takes some minutes.
import { readFileSync, writeFileSync } from 'node:fs';
import { bandedExamples } from '@zugluft/core/method/bandedExamples';
import { evidenceDocument } from '@zugluft/core/method/evidence';

writeFileSync(
  'docs/evidence.md',
  evidenceDocument(bandedExamples((file) => JSON.parse(readFileSync(`examples/${file}`, 'utf8')))),
);
