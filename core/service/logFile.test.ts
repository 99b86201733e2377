import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { takeOne } from './benchEdits';
import { logFileText, readLogFile } from './logFile';
import { addStep } from './logEdits';
import { openUpJsonSchema } from './openUpJsonSchema';
import { EMPTY_LOG, firstFault } from './openUpLog';

test('a log goes into a file and comes back, unknown fields and all', () => {
  const log = takeOne(addStep(EMPTY_LOG, 'Base cover off 😀'), 'step1', 'A', 'base', null);
  const more = { ...log, ours: { x: 1 }, screws: log.screws.map((s) => ({ ...s, torque: 0.2 })) };
  expect(readLogFile(logFileText(more))).toEqual(more);
});

test('an older file gets what the format has gained since', () => {
  const old = readLogFile(
    '{"format":"zugluft-openup","formatVersion":1,"steps":[{"id":"a","name":"b"}]}',
  );
  expect(old).toMatchObject({ strips: [], acknowledged: [], steps: [{ stamps: [], back: false }] });
});

test.each([
  ['{', 'well-formed'],
  ['[]', 'no log'],
  ['{"format":"zugluft-record"}', 'no log'],
  [
    '{"format":"zugluft-openup","formatVersion":1,"groups":[{"id":"a","letter":"AB"}]}',
    'groups.0.letter is one letter',
  ],
  [`${'['.repeat(50)}${']'.repeat(50)}`, '32 levels'],
  [' '.repeat(1024 * 1024 + 1), 'larger than 1 MB'],
])('%.40s is refused in words', (text, words) => {
  expect(() => readLogFile(text)).toThrow(words);
});

test('the first fault is said with its place; a full list is one', () => {
  expect(firstFault(EMPTY_LOG)).toBeNull();
  let log = addStep(EMPTY_LOG, 'Base cover off');
  for (let k = 0; k < 300; k++) log = takeOne(log, k < 200 ? 'step1' : 'none', 'A', 'base', null);
  expect(firstFault(log)).toBeNull();
  expect(firstFault(takeOne(log, 'none', 'B', 'base', null))).toBe('screws at most 300');
  expect(firstFault(takeOne(log, 'step1', 'B', 'base', null))).toMatch(/at most/);
});

test('docs/format/openup.schema.json is what the Zod schema says (npm run docs)', () => {
  const file = join(__dirname, '../../docs/format/openup.schema.json');
  expect(readFileSync(file, 'utf8')).toBe(openUpJsonSchema());
  const schema = JSON.parse(openUpJsonSchema());
  expect(schema.properties.screws.maxItems).toBe(300);
  expect(schema.additionalProperties).not.toBe(false);
});
