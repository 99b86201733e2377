import { estimate } from '../case/estimate';
import { openCase } from '../case/openCase';
import { exampleRecord, twoLoopRecord } from '../test-support/exampleRecord';
import { questionsOf } from './questions';
import { setAt, type Path } from './plainJson';
import type { CaseRecord } from './recordSchema';

const base = (): CaseRecord => ({
  ...twoLoopRecord(),
  shell: { widthMm: 355, depthMm: 245, thicknessMm: 21 },
});
const asked = (...changes: [Path, unknown][]) =>
  questionsOf(changes.reduce<CaseRecord>((r, [path, x]) => setAt(r, path, x), base()));

test('a machine that fits its shell raises no question', () => {
  expect(questionsOf(base())).toEqual([]);
  expect(questionsOf({ format: 'zugluft-record', formatVersion: 1 })).toEqual([]);
});

test.each<[Path, unknown, string]>([
  [['finStacks', 0, 'heightMm'], 40, '40 mm high in a machine 21 mm thick: is it so?'],
  [['finStacks', 0, 'heightMm'], { value: 20, origin: 'photo' }, '20 mm high in a machine 21 mm'],
  [['fans', 0, 'bladeHeightMm'], 30, '30 mm high'],
  [['finStacks', 0, 'widthMm'], 400, '400 mm in a machine of 355 × 245 mm'],
  [['heatPipes', 0, 'lengthMm'], 900, '900 mm long'],
  [['vents', 0, 'widthMm'], 500, '500 mm on a face of'],
])('%j as %j', (path, value, words) => {
  expect(asked([path, value])).toEqual([
    { path: path.join('.'), message: expect.stringContaining(words) as string },
  ]);
});

test('just within the shell nothing is asked', () => {
  expect(asked([['finStacks', 0, 'heightMm'], 19])).toEqual([]);
  expect(asked([['finStacks', 0, 'widthMm'], 355])).toEqual([]);
});

test('a vent that is linked to nothing is named, also with the answer; a passive one is not', () => {
  const record = base();
  const vents = [
    { id: 'new-in', flow: 'intake' as const, widthMm: 60, lengthMm: 40 },
    { id: 'new-out', flow: 'exhaust' as const, widthMm: 60, lengthMm: 10, finStacks: [] },
    { id: 'still', flow: 'passive' as const, widthMm: 60, lengthMm: 10 },
  ];
  const words = [
    '“new-in” feeds no fan, so that it is not in the answer',
    '“new-out” lets out no fin stack, so that it is not in the answer',
  ];
  expect(questionsOf({ ...record, vents }).map((q) => q.message)).toEqual(words);
  const answer = (r: CaseRecord) => estimate(openCase({ record: r }), { caps: ['full'] });
  const more = { ...record, vents: [...(record.vents ?? []), ...vents] };
  const { notes, caps } = answer(more);
  expect(notes).toEqual([
    { path: 'vents.new-in.fans', message: words[0] },
    { path: 'vents.new-out.finStacks', message: words[1] },
  ]);
  // and it is so: the watts are those without them
  expect(caps[0]!.together.watts).toBe(answer(record).caps[0]!.together.watts);
});

test('no example is asked about', () => {
  for (const name of ['two-fan-shared-pipes', 'one-die'] as const) {
    expect(questionsOf(exampleRecord(name))).toEqual([]);
  }
});

test('a level hardly above its background is an upper bound, and says so', () => {
  const record = structuredClone(exampleRecord('two-fan-shared-pipes'));
  record.noise = {
    backgroundDbA: 30,
    sweep: [
      { rpm: { 'fan-left': 2000 }, dbA: 34 },
      { rpm: { 'fan-left': 4000 }, dbA: 36 },
    ],
  };
  expect(questionsOf(record)).toEqual([
    { path: 'noise.sweep.0.dbA', message: expect.stringMatching(/upper bound/) },
  ]);
});
