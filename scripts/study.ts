// npm run study: 40 simulated machines whose truth is hidden, shared out over the processor's cores; writes docs/study.md.
import { readFileSync, writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { studyDocument, studyMachine, type StudiedMachine } from '@zugluft/core/method/study';
import { parseRecord } from '@zugluft/core/record/parseRecord';
import { inParts } from './inParts';

const RECORDS = [
  { name: 'two fans, two dies', file: 'two-fan-shared-pipes' },
  { name: 'one fan, one die', file: 'one-die' },
];
const MACHINES_EACH = 20;

const record = (file: string) =>
  parseRecord(JSON.parse(readFileSync(`examples/${file}.json`, 'utf8'))).record!;

const [part, of] = process.argv.slice(2).map(Number);
if (part !== undefined && of !== undefined) {
  const found = RECORDS.flatMap(({ file }, r) =>
    Array.from({ length: MACHINES_EACH }, (_, k) => ({ r, k }))
      .filter(({ k }) => k % of === part)
      .map(({ k }) => {
        const machine = studyMachine(record(file), 100 * r + k + 1);
        process.stderr.write(`${file}, machine ${k + 1}\n`);
        return { r, k, machine };
      }),
  );
  process.stdout.write(JSON.stringify(found));
} else {
  const all = await inParts<{ r: number; k: number; machine: StudiedMachine }>(
    fileURLToPath(import.meta.url),
  );
  const document = studyDocument(
    RECORDS.map(({ name }, r) => ({
      name,
      machines: all
        .filter((x) => x.r === r)
        .sort((a, b) => a.k - b.k)
        .map((x) => x.machine),
    })),
  );
  writeFileSync('docs/study.md', document);
  process.stdout.write(document);
}
