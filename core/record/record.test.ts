import { exampleRecord } from '../test-support/exampleRecord';
import { DEFAULTS, type DefaultKey } from './defaults';
import { parseRecord } from './parseRecord';
import { resolveCase } from './resolveCase';

// eslint-disable-next-line @typescript-eslint/no-explicit-any
type Loose = any;
const two = () => structuredClone(exampleRecord('two-fan-shared-pipes')) as Loose;

/** The first issue after a change to a good record. */
function firstIssue(change: (r: Loose) => void): string {
  const record = two();
  change(record);
  const { issues } = parseRecord(record);
  return issues.length ? `${issues[0]!.path}: ${issues[0]!.message}` : 'none';
}

test.each<[string, (r: Loose) => void, string]>([
  ['negative', (r) => (r.finStacks[0].depthMm = -1), 'finStacks.0.depthMm: must be more than 0 mm'],
  [
    'text',
    (r) => (r.finStacks[0].depthMm = '24 mm'),
    'finStacks.0.depthMm: “24 mm” is not a number',
  ],
  ['empty', (r) => (r.finStacks[0].depthMm = ''), 'finStacks.0.depthMm: needs a number'],
  [
    'absent but needed',
    (r) => delete r.finStacks[0].depthMm,
    'finStacks.0.depthMm: needs a number',
  ],
  ['null', (r) => (r.finStacks[0].depthMm = null), 'finStacks.0.depthMm: needs a number'],
  ['NaN', (r) => (r.finStacks[0].depthMm = NaN), 'finStacks.0.depthMm: must be a finite number'],
  [
    'too large',
    (r) => (r.finStacks[0].depthMm = 201),
    'finStacks.0.depthMm: must be at most 200 mm',
  ],
  [
    'half a fin',
    (r) => (r.finStacks[0].finCount = 60.5),
    'finStacks.0.finCount: must be a whole number',
  ],
  [
    'bad figure inside',
    (r) => (r.fans[1].maxRpm = { value: -5 }),
    'fans.1.maxRpm: must be at least 200 rpm',
  ],
  [
    'negative ±',
    (r) => (r.fans[1].maxRpm = { value: 5000, plusMinus: -1 }),
    'fans.1.maxRpm: ± must be at least 0',
  ],
  [
    'unknown origin',
    (r) => (r.fans[1].maxRpm = { value: 5000, origin: 'guess' }),
    'fans.1.maxRpm: origin must be one of measured, label, photo, estimated, assumed',
  ],
  [
    'pressed over diameter',
    (r) => (r.heatPipes[0].flattenedMm = 9),
    'heatPipes.0.flattenedMm: pressed to 9 mm, thicker than its diameter of 8 mm',
  ],
  [
    'fins over pitch',
    (r) => (r.finStacks[1].finThicknessMm = 1.2),
    'finStacks.1.finThicknessMm: fins of 1.2 mm do not fit a pitch of 1.09 mm',
  ],
  [
    'stack without fan',
    (r) => (r.finStacks[0].fans = []),
    'finStacks.0.fans: no fan blows through the fin stack “fins-left”',
  ],
  [
    'die without plate',
    (r) => (r.plates[0].dies = []),
    'dies.0: the die “cpu” lies under no plate',
  ],
  [
    'unknown part',
    (r) => (r.heatPipes[0].along[1].part = 'x'),
    'heatPipes.0.along.1.part: there is no plate or fin stack called “x”',
  ],
  [
    'unknown fan',
    (r) => (r.finStacks[0].fans = ['nobody']),
    'finStacks.0.fans.0: there is no fan called “nobody”',
  ],
  [
    'pipe to nowhere',
    (r) =>
      r.heatPipes.push({ id: 'p2', diameterMm: 6, along: [{ part: 'fins-left' }], count: 1 }) &&
      (r.heatPipes[0].along = [{ part: 'plate-cpu' }, { part: 'plate-gpu' }]),
    'plates.0: no way leads from “plate-cpu” to a fin stack',
  ],
  [
    'pipe touching nothing',
    (r) => r.heatPipes.push({ id: 'p2', diameterMm: 6, along: [] }),
    'heatPipes.1.along: the heat pipe “p2” touches no part',
  ],
  [
    'lonely stack',
    (r) => r.finStacks.push({ ...r.finStacks[0], id: 'fins-3' }),
    'finStacks.2: no pipe and no plate brings heat to “fins-3”',
  ],
  [
    'lonely fan',
    (r) => r.fans.push({ id: 'fan-3', impellerDiameterMm: 50 }),
    'fans.2: the fan “fan-3” blows through no fin stack',
  ],
  [
    'same name twice',
    (r) => (r.fans[1].id = 'fan-left'),
    'fans.1.id: the name “fan-left” is taken already',
  ],
  [
    'die under two plates',
    (r) => (r.plates[1].dies = ['gpu', 'cpu']),
    'plates.1.dies.1: the die “cpu” already lies under “plate-cpu”',
  ],
  [
    'die larger than plate',
    (r) => Object.assign(r.plates[0], { widthMm: 10, lengthMm: 10 }),
    'plates.0.widthMm: the plate is smaller than the dies under it',
  ],
  [
    'least over greatest speed',
    (r) => (r.fans[0].minRpm = 6000),
    'fans.0.minRpm: least speed is above the greatest, 5000 rpm',
  ],
  [
    'part beyond the pipe',
    (r) => (r.heatPipes[0].along[3].toMm = 310),
    'heatPipes.0.along.3.toMm: lies beyond the pipe’s end at 300 mm',
  ],
  [
    'part ends before it begins',
    (r) => (r.heatPipes[0].along[3].toMm = 220),
    'heatPipes.0.along.3.toMm: ends at 220 mm, before it begins at 230 mm',
  ],
  [
    'wrong kind',
    (r) => (r.plates[0].kind = 'wood'),
    'plates.0.kind: must be one of copper-plate, aluminium-plate, vapor-chamber, none',
  ],
  [
    'long name',
    (r) => (r.identity.maker = 'x'.repeat(10_000)),
    'identity.maker: must be at most 200 characters',
  ],
  [
    'too many parts',
    (r) => (r.fans = Array.from({ length: 13 }, (_, i) => ({ id: `f${i}` }))),
    'fans: must have at most 12 entries',
  ],
  ['wrong format', (r) => (r.format = 'other'), 'format: must be "zugluft-record"'],
])('%s is refused with path and reason', (_, change, expected) => {
  expect(firstIssue(change)).toBe(expected);
});

test.each([null, 7, 'x', []])('%p is no record', (input) => {
  const parsed = parseRecord(input);
  expect(parsed.record).toBeNull();
  expect(parsed.issues[0]!.path).toBe('');
});

test('gaps may be kept, impossible figures may not', () => {
  const gap = two();
  delete gap.finStacks[0].depthMm;
  expect(parseRecord(gap)).toMatchObject({ keepable: true, complete: false });
  const impossible = two();
  impossible.heatPipes[0].flattenedMm = 9;
  expect(parseRecord(impossible)).toMatchObject({ keepable: false, complete: false });
});

test('unknown fields survive, at the top, in parts and in figures', () => {
  const record = two();
  record.mood = { a: [1] };
  record.fans[0].colour = 'black';
  record.fans[0].maxRpm = { value: 5000, calliper: 'B7' };
  expect(parseRecord(record).record).toEqual(record);
});

test('a figure with ± and origin counts as its value', () => {
  const record = two();
  record.finStacks[0].depthMm = { value: 24, plusMinus: 0.1, origin: 'measured', note: 'calliper' };
  expect(resolveCase(parseRecord(record).record!).stacks[0]!.fin.depthM).toBeCloseTo(0.024, 12);
});

test('every default lies inside its own range, and only what limits follow from has none', () => {
  const none = Object.keys(DEFAULTS).filter(
    (k) => DEFAULTS[k as DefaultKey].low === DEFAULTS[k as DefaultKey].high,
  );
  expect(none.every((k) => /^heatPipes\.(permeability|poreUm)\./.test(k))).toBe(true);
  for (const [key, d] of Object.entries(DEFAULTS)) {
    // a convention has no range
    const fixed = d.low === d.value && d.value === d.high;
    const sound = d.low <= d.value && d.value <= d.high && d.low < d.high;
    expect([key, sound || fixed]).toEqual([key, true]);
  }
});
