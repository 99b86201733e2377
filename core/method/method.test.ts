import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { DEFAULTS, type Default } from '../record/defaults';
import { METHOD } from './equations';
import { bandedExamples } from './bandedExamples';
import { bandsDocument } from './bandsDocument';
import { ACTS, evidenceCell, halfBandsAfter } from './evidence';
import { methodDocument } from './methodDocument';

// documents are computed anew, with both cores busy
jest.setTimeout(300_000);
const root = join(__dirname, '../..');

test('docs/bands.md is what the draws of the examples say (npm run docs)', () => {
  expect(readFileSync(join(root, 'docs/bands.md'), 'utf8')).toBe(
    bandsDocument(
      bandedExamples((file) => JSON.parse(readFileSync(join(root, 'examples', file), 'utf8'))),
    ),
  );
});

test.each([
  [0, 0],
  [0, 1],
  [2, 1],
])('docs/evidence.md: record %i after act %i (npm run docs:evidence)', (record, act) => {
  const examples = bandedExamples((file) =>
    JSON.parse(readFileSync(join(root, 'examples', file), 'utf8')),
  );
  const rows = readFileSync(join(root, 'docs/evidence.md'), 'utf8').split('\n');
  const row = rows.find((r) => r.startsWith(`| ${ACTS[act]!.words} |`))!;
  expect(row.split('|')[2 + record]!.trim()).toBe(
    evidenceCell(halfBandsAfter(examples[record]!.record, act)),
  );
});

test('docs/method.md is what the core says (npm run docs)', () => {
  expect(readFileSync(join(root, 'docs/method.md'), 'utf8')).toBe(methodDocument());
});

test.each(METHOD.flatMap((c) => c.equations).map((e) => [e.title, e] as const))(
  'equation “%s” names a file that is there, its source and its range',
  (_, e) => {
    expect(existsSync(join(root, e.file))).toBe(true);
    expect(e.source).not.toBe('');
    expect(e.range).not.toBe('');
  },
);

test.each(Object.entries(DEFAULTS) as [string, Default][])(
  'default %s has a sound range',
  (_, d) => {
    // a convention has none
    if (d.low !== d.high) {
      expect(d.low).toBeLessThan(d.value);
      expect(d.high).toBeGreaterThan(d.value);
    }
    expect(d.about).not.toBe('');
    expect(d.origin).not.toBe('');
    if (d.share) {
      expect(d.low).toBeGreaterThan(0);
      expect(d.high).toBeLessThan(1);
    }
  },
);
