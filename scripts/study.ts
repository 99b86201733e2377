// npm run study: 40 simulated machines whose truth is hidden, shared out over the processor's cores; writes docs/study.md.
import { spawn } from 'node:child_process';
import { readFileSync, writeFileSync } from 'node:fs';
import { availableParallelism } from 'node:os';
import { fileURLToPath } from 'node:url';
import { studyDocument, studyMachine, type StudiedMachine } from '@zugluft/core/method/study';
import { parseRecord } from '@zugluft/core/record/parseRecord';

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
  const parts = Math.max(1, availableParallelism());
  const answers = await Promise.all(Array.from({ length: parts }, (_, p) => answerOf(p, parts)));
  const all = answers.flat();
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

function answerOf(
  p: number,
  parts: number,
): Promise<{ r: number; k: number; machine: StudiedMachine }[]> {
  return new Promise((done, failed) => {
    const own = fileURLToPath(import.meta.url);
    const child = spawn(process.execPath, ['--import', 'tsx', own, String(p), String(parts)], {
      stdio: ['ignore', 'pipe', 'inherit'],
    });
    let out = '';
    child.stdout.on('data', (text: Buffer) => (out += text.toString()));
    child.on('error', failed);
    child.on('close', (code) => {
      if (code === 0) done(JSON.parse(out) as { r: number; k: number; machine: StudiedMachine }[]);
      else failed(new Error(`a part of the study ended with ${code}`));
    });
  });
}
