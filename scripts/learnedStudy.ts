// npm run study:learned: simulated laboratories whose machines share how their parts are built in; writes docs/learned.md.
import { readFileSync, writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import {
  learnedStudyDocument,
  studyLaboratory,
  STUDIED_READINGS,
  type LearnedMachineStudied,
} from '@zugluft/core/method/learnedStudy';
import { parseRecord } from '@zugluft/core/record/parseRecord';
import { inParts } from './inParts';

const LABORATORIES = 4;
const MACHINES = 20;
const FILES = ['two-fan-shared-pipes', 'one-die'];

interface Studied {
  reading: number;
  seed: number;
  machines: LearnedMachineStudied[];
}

const jobs = STUDIED_READINGS.flatMap((_, reading) =>
  Array.from({ length: LABORATORIES }, (_, k) => ({ reading, seed: k + 1 })),
);
const [part, of] = process.argv.slice(2).map(Number);
if (part !== undefined && of !== undefined) {
  const records = FILES.map(
    (file) => parseRecord(JSON.parse(readFileSync(`examples/${file}.json`, 'utf8'))).record!,
  );
  const own = jobs.filter((_, j) => j % of === part);
  const found = own.map(({ reading, seed }): Studied => {
    const all = Array.from({ length: MACHINES }, (_, i) => records[i % records.length]!);
    const machines = studyLaboratory(all, seed, STUDIED_READINGS[reading]!.read);
    process.stderr.write(`laboratory ${seed}, ${STUDIED_READINGS[reading]!.words}\n`);
    return { reading, seed, machines };
  });
  process.stdout.write(JSON.stringify(found));
} else {
  const all = (await inParts<Studied>(fileURLToPath(import.meta.url))).sort(
    (a, b) => a.reading - b.reading || a.seed - b.seed,
  );
  writeFileSync('docs/learned.md', learnedStudyDocument(all));
}
