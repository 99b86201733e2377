import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { parseRecord } from '../record/parseRecord';
import { learnedResult, learnedStudyDocument, studyLaboratory } from './learnedStudy';

const text = readFileSync(join(__dirname, '../../examples/one-die.json'), 'utf8');
const record = parseRecord(JSON.parse(text)).record!;

test('a simulated laboratory hides what is true, and is foretold as built in and from the others', () => {
  const words: string[] = [];
  const machines = studyLaboratory([record, record], 1, ['exhaust', 'skin'], (w) => words.push(w));
  expect(machines).toHaveLength(2);
  const [a, b] = machines;
  // one record, two truths
  expect(a!.before).toEqual(b!.before);
  expect(a!.trueW).not.toBeCloseTo(b!.trueW, 3);
  // each knows the other alone
  expect(a!.after).not.toEqual(b!.after);
  expect(words).toHaveLength(4);
});

test('its table says how far, how wide and how many inside, each and all', () => {
  const machine = (trueW: number) => ({
    trueW,
    before: { p05: 80, p50: 100, p95: 120 },
    after: { p05: 90, p50: 100, p95: 110 },
  });
  const near = [machine(105), machine(95)];
  const far = [machine(115), machine(115)];
  expect(learnedResult(far, 'after').inside).toBe(0);
  const document = learnedStudyDocument([
    { reading: 1, seed: 1, machines: near },
    { reading: 1, seed: 2, machines: far },
  ]);
  const rows = document.split('\n').filter((l) => l.startsWith('| and the warmest skin'));
  expect(rows).toEqual([
    '| and the warmest skin | 1 | 5 %, ±20 %, 2 of 2 | 5 %, ±10 %, 2 of 2 |',
    '| and the warmest skin | 2 | 14 %, ±20 %, 2 of 2 | 14 %, ±10 %, 0 of 2 |',
    '| and the warmest skin | all | 10 %, ±20 %, 4 of 4 | 10 %, ±10 %, 2 of 4 |',
  ]);
  expect(document).not.toContain('| junctions, level');
});
