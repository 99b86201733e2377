import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import fc from 'fast-check';
import { airwayFaults } from '../airway/airwayFaults';
import { estimate } from '../case/estimate';
import { openCase } from '../case/openCase';
import { parseRecord } from '../record/parseRecord';
import { spreadOf } from '../uncertainty/spread';
import { COUNT_FIELD_NAMES } from './countFields';
import { countOfRow, isCountHeader } from './countRow';
import { parseCount } from './parseCount';

const example = JSON.parse(
  readFileSync(join(__dirname, '../../examples/count-two-fans.json'), 'utf8'),
);
const LEAST = {
  format: 'zugluft-count',
  formatVersion: 1,
  fans: 2,
  fanDiameterMm: 58,
  stackWidthMm: 70,
  stackDepthMm: 24,
};
const recordOf = (count: unknown) => {
  const { record, issues } = parseCount(count);
  if (!record) throw new Error(JSON.stringify(issues));
  const parsed = parseRecord(JSON.parse(JSON.stringify(record)));
  expect(parsed.issues).toEqual([]);
  return parsed.record!;
};

test('the example of the format becomes a complete record: every pipe through both plates, fins at both ends', () => {
  const record = recordOf(example);
  expect(record.heatPipes!.map((p) => p.along!.map((a) => a.part))).toEqual([
    ['fins-left', 'plate-cpu', 'plate-gpu', 'fins-right'],
    ['fins-left', 'plate-cpu', 'plate-gpu', 'fins-right'],
  ]);
  expect(record.fans![0]!.impellerDiameterMm).toEqual({
    value: 58,
    origin: 'estimated',
    note: 'quick count',
  });
  expect(record.finStacks![1]!.fans).toEqual(['fan-right']);
  expect(record.vents!.map((v) => v.fans ?? v.finStacks)).toEqual([
    ['fan-left'],
    ['fan-right'],
    ['fins-left'],
    ['fins-right'],
  ]);
  expect(record.settings![0]).toMatchObject({
    cpuSustainedW: { value: 45 },
    gpuSustainedW: { value: 90 },
  });
  // in the mean what physics.md says of such a machine, dies of about 150 and 285 mm²
  const area = (i: number) =>
    (record.dies![i]!.widthMm as { value: number }).value *
    (record.dies![i]!.lengthMm as { value: number }).value;
  expect(area(0)).toBeCloseTo(150, -1);
  expect(area(1)).toBeCloseTo(285, -1);
  // kept beside the record, so that counting may go on
  expect(record['count']).toMatchObject({ fans: 2, finCount: 64 });
});

test('what nobody counted is assumed, what was counted without a ± is estimated, nothing is measured', () => {
  const origins = new Set<string>();
  const look = (x: unknown): void => {
    if (Array.isArray(x)) x.forEach(look);
    else if (typeof x === 'object' && x !== null) {
      if ('value' in x) origins.add(String((x as Record<string, unknown>)['origin']));
      else Object.values(x).forEach(look);
    }
  };
  for (const count of [example, LEAST]) {
    const { count: _, ...record } = recordOf(count);
    look(record);
  }
  expect([...origins].sort()).toEqual(['assumed', 'estimated']);
  // a ± or an origin that was given stands
  const sure = recordOf({
    ...LEAST,
    fanDiameterMm: { value: 58, plusMinus: 0.2, origin: 'measured' },
    stackDepthMm: { value: 24, plusMinus: 0.5 },
  });
  expect(sure.fans![0]!.impellerDiameterMm).toMatchObject({ plusMinus: 0.2, origin: 'measured' });
  expect(sure.finStacks![0]!.depthMm).toEqual({
    value: 24,
    plusMinus: 0.5,
    note: 'quick count',
  });
});

test('an assumed figure is as wide as its default: 5–95 % of a die’s area', () => {
  const { inputs } = openCase({ record: recordOf(LEAST) }).data;
  const side = inputs.find((i) => i.path === 'dies.cpu.widthMm')!;
  const { relative } = spreadOf(side)!;
  // both sides are drawn: the area is √2 as wide; 95 to 240 mm² about 150
  expect(relative * Math.SQRT2).toBeCloseTo((240 - 95) / (2 * 1.645) / 150, 1);
});

test.each<[string, object, [string, RegExp][]]>([
  [
    'a chamber without size or pipes',
    { chamber: true, pipesShared: 0 },
    [['chamberWidthMm', /without pipes needs/]],
  ],
  [
    'pipes to a GPU of 0 W',
    { gpuClassW: 0, pipesCpu: 1, pipesGpu: 2 },
    [['pipesGpu', /GPU of 0 W/]],
  ],
  [
    'shared pipes and a GPU of 0 W',
    { gpuClassW: 0, pipesShared: 2 },
    [['pipesShared', /GPU has 0 W/]],
  ],
  ['300 fins on 70 mm', { finCount: 300 }, [['finCount', /pitch of only 0.23 mm/]]],
  [
    'a CPU that nothing leads away from',
    { pipesGpu: 2 },
    [['pipesCpu', /leads away from the CPU/]],
  ],
  [
    'a GPU that nothing leads away from',
    { pipesCpu: 2, gpuClassW: 80 },
    [['pipesGpu', /leads away from the GPU/]],
  ],
  [
    'a pipe thicker than its diameter',
    { pipeDiameterMm: 6, pipePressedMm: 8 },
    [['pipePressedMm', /thicker/]],
  ],
  [
    'a stack higher than the machine',
    { stackHeightMm: 30, thicknessMm: 20 },
    [['stackHeightMm', /higher/]],
  ],
  [
    'an area that the sizes do not make',
    { finAreaCm2: 100, finCount: 64, stackHeightMm: 8.5 },
    [['finAreaCm2', /make 522 cm²/]],
  ],
  ['nine fans', { fans: 9 }, [['fans', /at most 8/]]],
  ['half a fan', { fans: 1.5 }, [['fans', /whole/]]],
  ['no fan', { fans: null }, [['fans', /needs a number/]]],
  [
    'no fins',
    { stackWidthMm: null, stackDepthMm: null },
    [
      ['stackWidthMm', /needs/],
      ['stackDepthMm', /needs/],
    ],
  ],
  ['a word', { fanDiameterMm: 'big' }, [['fanDiameterMm', /“big” is not a number/]]],
  ['a chamber that is neither', { chamber: 'perhaps' }, [['chamber', /true or false/]]],
  ['another format', { format: 'zugluft-record' }, [['format', /zugluft-count/]]],
])('refused by name: %s', (_, change, expected) => {
  const { record, issues } = parseCount({ ...LEAST, ...change });
  expect(record).toBeNull();
  expect(issues.map((i) => i.path)).toEqual(expected.map(([path]) => path));
  expected.forEach(([, words], i) => expect(issues[i]!.message).toMatch(words));
});

test('fin area alone is enough, and makes that area', () => {
  const record = recordOf({
    format: 'zugluft-count',
    formatVersion: 1,
    fans: 1,
    fanDiameterMm: 50,
    finAreaCm2: 150,
    pipesCpu: 1,
  });
  const [s] = record.finStacks!;
  const v = (x: unknown) => (x as { value: number }).value;
  const made = (v(s!.finCount) * 2 * v(s!.depthMm) * v(s!.heightMm)) / 100;
  expect(made / 150).toBeCloseTo(1, 1);
  expect(record.dies).toHaveLength(1);
});

test('any count that is not refused can be estimated, is wholly connected, and carries something', () => {
  const some = (min: number, max: number) =>
    fc.option(fc.integer({ min, max }), { nil: undefined });
  let made = 0;
  fc.assert(
    fc.property(
      fc.record({
        fans: fc.integer({ min: 1, max: 4 }),
        stacks: some(1, 5),
        pipesShared: some(0, 4),
        pipesCpu: some(0, 3),
        pipesGpu: some(0, 4),
        gpuClassW: some(0, 150),
        cpuClassW: some(10, 65),
        ventsOpen: some(0, 4),
        ventsCovered: some(0, 2),
        finCount: some(20, 120),
        chamber: fc.option(fc.boolean(), { nil: undefined }),
        chamberWidthMm: some(80, 250),
        chamberDepthMm: some(60, 150),
      }),
      (counted) => {
        const { record, issues } = parseCount({ ...LEAST, ...counted });
        if (!record) {
          expect(issues.every((i) => i.kind === 'impossible')).toBe(true);
          return;
        }
        made++;
        const parsed = parseRecord(JSON.parse(JSON.stringify(record)));
        expect(parsed.issues).toEqual([]);
        const open = openCase({ record: parsed.record! });
        const [c] = estimate(open, { caps: ['full'], envelopes: false }).caps;
        expect(c!.together.watts).toBeGreaterThan(3);
        // none at all is what somebody saw
        const none = (counted.ventsOpen ?? counted.ventsCovered) !== undefined;
        const seen = (counted.ventsOpen ?? 0) + (counted.ventsCovered ?? 0);
        if (none && seen === 0) return;
        expect(airwayFaults(parsed.record!, parsed.issues)).toEqual([]);
      },
    ),
    { numRuns: 150, seed: 8 },
  );
  expect(made).toBeGreaterThan(50);
});

describe('tables of counts', () => {
  test('a row reads as people type; blank is absent', () => {
    const count = countOfRow({
      maker: 'Brackenfold',
      fans: '2',
      fanDiameterMm: '5,8 cm',
      stackWidthMm: '70 ± 0.5',
      stackDepthMm: '~24',
      chamber: 'no',
      finCount: '',
      year: '2026',
    });
    expect(count).toEqual({
      format: 'zugluft-count',
      formatVersion: 1,
      maker: 'Brackenfold',
      fans: 2,
      fanDiameterMm: 58,
      stackWidthMm: { value: 70, plusMinus: 0.5 },
      stackDepthMm: { value: 24, origin: 'estimated' },
      chamber: false,
      year: 2026,
    });
    expect(recordOf(count).identity).toEqual({ maker: 'Brackenfold', year: 2026 });
  });

  test('what cannot be read is refused by its field', () => {
    const { issues } = parseCount(countOfRow({ ...textOf(LEAST), fans: 'two', chamber: 'maybe' }));
    expect(issues.map((i) => i.path).sort()).toEqual(['chamber', 'fans']);
  });

  test('a header with fans and their diameter is that of counts', () => {
    expect(isCountHeader(['model', 'fans', ' fanDiameterMm'])).toBe(true);
    expect(isCountHeader(['id', 'identity.maker', 'fans'])).toBe(false);
  });

  test('every field of the format has a column that comes back', () => {
    const { count } = parseCount(countOfRow(textOf(example)));
    for (const name of COUNT_FIELD_NAMES) {
      expect([name, count![name] ?? null]).toEqual([name, example[name] ?? null]);
    }
  });
});

const textOf = (count: object) =>
  Object.fromEntries(
    Object.entries(count).map(([k, v]) => [k, v === null || v === undefined ? '' : String(v)]),
  );
