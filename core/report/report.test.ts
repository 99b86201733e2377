import { toString } from 'mdast-util-to-string';
import { exampleRecord } from '../test-support/exampleRecord';
import { verdictOf, type Verdict } from '../verdict/verdict';
import { NO_ARTICLE } from './article';
import { readerRows } from './readerRows';
import { PEERS_CHART, reportOf, WATTS_CHART, type ReportSource } from './report';
import { figuresCsv } from './reportFigures';
import { conditionsOf } from './conditions';
import { openCase } from '../case/openCase';

const record = exampleRecord('two-fan-shared-pipes');
let verdict: Verdict;
let source: ReportSource;
beforeAll(() => {
  verdict = verdictOf({ record }, { caps: [28, 36, 45], draws: 40 });
  source = {
    request: { record },
    verdict,
    trace: {
      record: 'revision 12',
      program: '0.4',
      draws: 40,
      seed: 1,
      day: '2026-11-14',
      edition: '2',
    },
  };
});

test('headline, every cap, conditions and what it goes back to are there to be read', () => {
  const { tree, name } = reportOf(source);
  const text = toString(tree);
  expect(name).toBe('Brackenfold Heron 16 Studio');
  expect(text).toContain(verdict.headline);
  for (const c of verdict.at) expect(text).toContain(`${c.cap} dB(A)`);
  expect(text).toContain(
    'Edition 2, 2026-11-14, record revision 12, no run, not calibrated, program 0.4, seed 1.',
  );
  expect(text).toContain('computed from the record before any run');
  expect(text).toMatch(/Lithium battery/);
  expect(text).toContain('23 °C');
});

test.each([
  ['metric', '2.1 kg', '19.9 mm'],
  ['imperial', '4.63 lb', '0.78 in'],
  ['both', '2.1 kg (4.63 lb)', '19.9 mm (0.78 in)'],
] as const)('in %s units the mass reads %s and the thickness %s', (units, mass, thickness) => {
  const text = toString(reportOf({ ...source, units }).tree);
  expect(text).toContain(mass);
  expect(text).toContain(thickness);
});

test('the reviewer’s words stand in their places, and in the data as they were typed', () => {
  const article = {
    ...NO_ARTICLE,
    lead: 'We lived with it *for a month*.',
    impressions: 'The left fan ticks.',
    closing: '',
  };
  const { tree, document } = reportOf({ ...source, article });
  const texts = tree.children.map((n) => toString(n));
  const at = (words: string) => texts.indexOf(words);
  expect(at('We lived with it for a month.')).toBe(at(verdict.reasons.join(' ')) + 1);
  expect(at('The left fan ticks.')).toBe(at('Impressions') + 1);
  expect(at('Impressions')).toBeLessThan(at('For the reader'));
  // nothing written, no heading
  expect(at('In short')).toBe(-1);
  expect((document as { article: unknown }).article).toEqual(article);
  expect(reportOf(source).document).not.toHaveProperty('article');
});

test('runs, peers and calibration each have their place where there are some', () => {
  const plain = reportOf(source);
  expect(Object.keys(plain.charts)).toEqual([WATTS_CHART]);
  const full = reportOf({
    ...source,
    verdict: { ...verdict, isCalibrated: true },
    measured: [
      {
        run: 'night',
        cpuW: 34,
        gpuW: 58.4,
        levelDbA: 36.2,
        roomC: 22.6,
        done: { load: 'forest scene', score: 9240, framesPerS: null },
        usual: [
          {
            unit: 'points',
            usual: { refused: false, machines: 7, p05: 8100, p50: 8500, p95: 8950.4 },
          },
        ],
      },
      { run: 'no meter', cpuW: 30, gpuW: 50, levelDbA: null, roomC: null },
    ],
    peers: [
      { name: 'Tarnwick Ledger 15', watts: { p05: 130, p50: 148, p95: 160 } },
      { name: 'Brackenfold Heron 16', watts: verdict.at[1]!.watts, isOwn: true },
    ],
    peerWords: 'Second of 2.',
  });
  const text = toString(full.tree);
  expect(text).toContain('narrowed by runs');
  expect(text).toContain('not read');
  expect(text).toContain('22.6 °C');
  expect(text).toContain('2 steady states, calibrated');
  // what the watts did, only where a run told it
  expect(text).toContain(
    'forest scene, night92.49,240 points1008,100 to 8,950, more than usual; 7 machines',
  );
  expect(toString(plain.tree)).not.toContain('What was done');
  expect(full.figures.filter((f) => f.figure.includes('score'))).toMatchObject([
    { figure: 'run night: score', unit: 'points', value: 9240, from: 'measured' },
    { figure: 'run night: score for each watt', unit: 'points/W', value: 100 },
    { figure: 'run night: usual score at such watts', p05: 8100, value: 8500, from: 'usual' },
  ]);
  expect(Object.keys(full.charts)).toEqual([WATTS_CHART, PEERS_CHART]);
  // one mark for the run with a level
  expect(full.charts[WATTS_CHART]!.marks.filter((m) => m.kind === 'diamond')).toHaveLength(1);
  expect(full.charts[PEERS_CHART]!.alt).toContain('Tarnwick Ledger 15 148 W, 130 to 160');
  expect(full.figures.find((f) => f.figure === 'run night: level')).toMatchObject({
    value: 36.2,
    from: 'measured',
  });
});

test.each([
  [null, null, 'are held for longer than ten minutes from idle'],
  [0, 'adapter', 'are not held at all: the adapter gives less'],
  [0.5, 'junction', 'are not held at all: a junction is at its limit at once'],
  [50, 'junction', 'are held for 50 s from idle'],
  [200, 'skin', 'are held for 3 min 20 s from idle'],
  [120, 'skin', 'are held for 2 min from idle'],
] as const)('a burst of %j s, ended by %s, reads: %s', (seconds, heldBy, words) => {
  const burst = { cpuW: 40, gpuW: 60, seconds, heldBy };
  const row = readerRows({ ...verdict, burst }).find(([what]) => what === 'A short burst')!;
  expect(row[1]).toBe(`100 W ${words}`);
});

test('every figure says where it comes from; as a table nothing of it is run', () => {
  const { figures, document } = reportOf(source);
  const sustained = figures.filter((f) => f.figure === 'sustained');
  expect(sustained.map((f) => [f.cap, f.value, f.from])).toEqual(
    verdict.at.map((a) => [String(a.cap), Number(a.watts.p50.toPrecision(6)), 'computed']),
  );
  expect(document).toMatchObject({ format: 'zugluft-report', formatVersion: 1, figures });
  expect(JSON.stringify(document)).not.toMatch(/NaN|Infinity/);
  const csv = figuresCsv([
    {
      figure: '=HYPERLINK("x")',
      cap: '36',
      unit: 'W',
      p05: null,
      value: -1.5,
      p95: 2,
      from: 'usual',
    },
  ]);
  expect(csv).toBe(
    'figure,cap,unit,p05,value,p95,from\r\n"\'=HYPERLINK(""x"")",36,W,,-1.5,2,usual\r\n',
  );
});

test('what is not recorded is said to be assumed or not recorded', () => {
  const bare = { ...record, identity: {}, room: {}, noise: {}, power: {} };
  const values = conditionsOf(openCase({ record: bare }), 'metric').map((c) => c.value);
  expect(values[0]).toBe('temperature assumed');
  expect(values.join()).toContain('desk assumed, lid open assumed');
  expect(values.join()).toContain('microphone distance not recorded, background not recorded');
});
