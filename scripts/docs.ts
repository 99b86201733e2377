// npm run docs: writes the documents that are made from the core.
import { writeFileSync } from 'node:fs';
import { methodDocument } from '@zugluft/core/method/methodDocument';

writeFileSync('docs/method.md', methodDocument());
