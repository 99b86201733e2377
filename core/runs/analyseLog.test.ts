import { logOfCsv } from '../test-support/logOfCsv';
import {
  csvOf,
  generatedLog,
  type GeneratedLevel,
  type GeneratedOptions,
} from '../test-support/generatedLog';
import { analyseLog, type AnalyseOptions } from './analyseLog';
import type { RunLimits } from './events';

const analyse = (
  levels: readonly GeneratedLevel[],
  made: GeneratedOptions = {},
  options: AnalyseOptions = {},
) => analyseLog(logOfCsv(csvOf(generatedLog(levels, made))), options);

const IDLE = { forS: 30, cpuW: 6, gpuW: 4 };
const SHORT = { forS: 28, cpuW: 94, gpuW: 72 };
const HELD = { forS: 900, cpuW: 54, gpuW: 72 };
const kinds = (a: { segments: { kind: string }[] }) => a.segments.map((s) => s.kind);

describe('a run with a short-term limit', () => {
  const a = analyse([IDLE, SHORT, HELD, { ...IDLE, forS: 120 }]);

  test('is cut where the powers change, to a sample', () => {
    expect(kinds(a)).toEqual(['idle', 'short', 'sustained', 'cool-down']);
    expect(a.segments.map((s) => s.fromS)).toEqual([0, 30, 58, 958]);
    expect(a.segments[3]!.toS).toBe(1077.5);
    expect(a.segments[1]!.means['cpuPowerW']!.mean).toBeCloseTo(94, 0);
    expect(a.segments[1]!.means['cpuPowerW']!.sd).toBeCloseTo(0.5, 1);
  });

  // common practice, no source: the sustained limit cuts in after about 28 s
  test('the end of the short-term limit is told, and nothing else', () => {
    expect(a.events).toEqual([{ atS: 58, kind: 'short-limit-ends', part: 'cpu' }]);
  });

  test('settles, and says what it sustains with its error', () => {
    expect(a.settled).toBe(true);
    expect(a.whyNot).toBeNull();
    const [s] = a.steady;
    expect(s!.toS).toBe(957.5);
    // the way to 1 K takes about five of its time constants of 90 s after the short limit
    expect(s!.fromS).toBeGreaterThan(150);
    expect(s!.fromS).toBeLessThan(600);
    expect(s!.means['cpuPowerW']!.mean).toBeCloseTo(54, 1);
    expect(s!.means['cpuPowerW']!.se).toBeLessThan(0.1);
    expect(s!.means['cpuPowerW']!.plusMinus).toBeCloseTo(0.54, 1);
    expect(s!.means['gpuC']!.mean).toBeCloseTo(23 + 0.7 * 72 + 0.15 * 54, 0);
    expect(s!.settledShare).toBe(1);
  });

  test('time constants are those of the lags', () => {
    for (const die of ['cpuC', 'gpuC']) {
      const [fast, slow] = a.timeConstantsS[die]!;
      expect(Math.abs(fast! / 4 - 1)).toBeLessThan(0.15);
      expect(Math.abs(slow! / 90 - 1)).toBeLessThan(0.1);
    }
  });
});

test('one lag gives one time constant, after which a step has gone 63.2 % of its way', () => {
  const ways = [{ own: 0.5, other: 0.1, timeConstantS: 40 }];
  const levels = [IDLE, { ...HELD, forS: 400 }];
  const { timeConstantsS } = analyse(levels, { ways, noiseK: 0.05 });
  expect(timeConstantsS['cpuC']).toHaveLength(1);
  expect(timeConstantsS['cpuC']![0]!).toBeCloseTo(40, -0.5);
  const { cpuC } = generatedLog(levels, { ways, noiseK: 0, noiseW: 0, quantumK: 1e-6 });
  const share = (cpuC[60 + 80]! - cpuC[60]!) / (23 + 0.5 * 54 + 0.1 * 72 - cpuC[60]!);
  expect(share).toBeCloseTo(0.632, 3);
});

// common practice, no source: one firmware drops the CPU to 30 W after five to seven minutes
test('a firmware that drops later: two steady states, and when', () => {
  const a = analyse([IDLE, SHORT, { ...HELD, forS: 420 }, { ...HELD, cpuW: 30, forS: 600 }]);
  expect(kinds(a)).toEqual(['idle', 'short', 'sustained', 'later']);
  expect(a.events.map((e) => [e.kind, e.atS])).toEqual([
    ['short-limit-ends', 58],
    ['later-limit', 478],
  ]);
  expect(a.steady.map((s) => Math.round(s.means['cpuPowerW']!.mean))).toEqual([54, 30]);
});

test('never settled: what still drifts and when it would have', () => {
  const ways = [{ own: 0.8, other: 0.2, timeConstantS: 300 }];
  const a = analyse([IDLE, { ...HELD, forS: 420 }], { ways });
  expect(a.settled).toBe(false);
  expect(a.steady).toEqual([]);
  expect(a.whyNot).toMatch(
    /^CPU Temperature still rises by .* had 1[0-9] K to go; it would have settled 1[1-4] min later/,
  );
});

test('a load of less than two minutes cannot settle', () => {
  expect(analyse([IDLE, { ...HELD, forS: 90 }]).whyNot).toBe(
    'the load lasts less than two minutes',
  );
});

test('watts that swing are not sustained', () => {
  const swings = Array.from({ length: 30 }, (_, k) => ({
    forS: 20,
    cpuW: k % 2 ? 40 : 70,
    gpuW: 60,
  }));
  const a = analyse([IDLE, ...swings]);
  expect(a.settled).toBe(false);
});

test('a ramp is one of at most ten seconds; a longer way is none', () => {
  const way = (forS: number) => [IDLE, { forS, cpuW: 30, gpuW: 40 }, { ...HELD, forS: 300 }];
  expect(kinds(analyse(way(6)))).toEqual(['idle', 'ramp', 'sustained']);
  expect(kinds(analyse(way(30)))).toEqual(['idle', 'sustained', 'sustained']);
});

test('noise of single samples is no swing, however few there are', () => {
  const a = analyse([IDLE, { ...HELD, forS: 700 }], { stepS: 2, noiseW: 4 });
  expect(a.whyNot).toBeNull();
  expect(a.steady[0]!.means['cpuPowerW']!.mean).toBeCloseTo(54, 0);
});

test('a fall in several steps at the beginning is one end of the short-term limit', () => {
  const way = [94, 85, 76].map((cpuW) => ({ forS: 20, cpuW, gpuW: 72 }));
  const { events } = analyse([IDLE, ...way, HELD]);
  expect(events).toEqual([{ atS: 50, kind: 'short-limit-ends', part: 'cpu' }]);
});

test('one spike is no level of its own', () => {
  const log = generatedLog([IDLE, HELD]);
  log.cpuPowerW[1000] = 0;
  log.cpuPowerW[1001] = 0;
  const a = analyseLog(logOfCsv(csvOf(log)));
  expect(kinds(a)).toEqual(['idle', 'sustained']);
});

test('two loads in one log are judged each from its own beginning', () => {
  const a = analyse([
    IDLE,
    SHORT,
    { ...HELD, forS: 300 },
    { ...IDLE, forS: 200 },
    SHORT,
    { ...HELD, forS: 300 },
  ]);
  expect(kinds(a)).toEqual(['idle', 'short', 'sustained', 'cool-down', 'short', 'sustained']);
  expect(a.events.filter((e) => e.kind === 'short-limit-ends')).toHaveLength(2);
});

describe('throttling', () => {
  /** A die held at 95 °C gives way slowly. */
  const throttled = () => {
    const log = generatedLog([IDLE, { forS: 600, cpuW: 80, gpuW: 5 }], { noiseW: 0.2 });
    log.timeS.forEach((t, i) => {
      if (t < 30) return;
      const since = t - 30;
      const warm = 40 + 70 * (1 - Math.exp(-since / 12));
      log.cpuC[i] = Math.min(95, warm);
      if (warm > 95) log.cpuPowerW[i]! -= 30 * (1 - Math.exp(-(since - 18) / 60));
    });
    return logOfCsv(csvOf(log));
  };
  const limits: RunLimits = {
    junctionC: { cpu: 95 },
    sustainedW: {},
    skinC: null,
    adapterW: null,
    fanRpm: {},
  };

  test('with a record its cause is the junction, and since when', () => {
    const { events } = analyseLog(throttled(), { limits });
    expect(events.map((e) => e.kind)).toContain('throttle-junction');
    const at = events.find((e) => e.kind === 'throttle-junction')!.atS;
    expect(at).toBeGreaterThan(45);
    expect(at).toBeLessThan(52);
    expect(events.map((e) => e.kind)).not.toContain('short-limit-ends');
  });

  test('without one it is unknown', () => {
    const kindsOf = analyseLog(throttled()).events.map((e) => e.kind);
    expect(kindsOf).toContain('throttle-unknown');
    expect(kindsOf).not.toContain('throttle-junction');
    expect(kindsOf).not.toContain('short-limit-ends');
  });

  test('watts at a setting’s limit are held by it; fans at full speed are told', () => {
    const log = logOfCsv(csvOf(generatedLog([IDLE, { ...HELD, forS: 300 }])));
    const rpm = log.timeS.map((t) => Math.min(5000, 2000 + 40 * t));
    log.columns.push({ column: 'fan', is: 'fanRpm.a', unit: 'rpm', values: rpm });
    const { events } = analyseLog(log, {
      limits: { ...limits, sustainedW: { cpu: 54.5, gpu: 100 }, fanRpm: { a: 5000 } },
    });
    expect(events).toEqual([
      { atS: 30, kind: 'throttle-power', part: 'cpu' },
      { atS: 71.5, kind: 'fans', part: 'a' },
    ]);
  });
});

describe('the window of a person', () => {
  test('rules, and says which share of the channels is steady over it', () => {
    const a = analyse([IDLE, SHORT, HELD], {}, { window: { fromS: 60, toS: 120 } });
    expect(a.steady).toHaveLength(1);
    expect(a.steady[0]).toMatchObject({
      fromS: 60,
      toS: 120,
      chosenBy: 'person',
      kind: 'sustained',
    });
    expect(a.steady[0]!.settledShare).toBeLessThan(1);
    expect(
      analyse([IDLE, SHORT, HELD], {}, { window: { fromS: 700 } }).steady[0]!.settledShare,
    ).toBe(1);
  });
});

describe('levels', () => {
  test('energy mean of 40 and 50 dB over equal times is 47.4 dB', () => {
    const a = analyse(
      [HELD],
      { levelDbA: (t) => (t < 450 ? 40 : 50) },
      { window: { fromS: 0, toS: 900 } },
    );
    expect(a.steady[0]!.means['levelDbA']!.mean).toBeCloseTo(47.4, 1);
  });

  test('the background is taken off; near it the level is an upper bound', () => {
    const level = (backgroundDbA: number) =>
      analyse([IDLE, HELD], {}, { backgroundDbA }).steady[0]!.means['levelDbA']!;
    expect(level(34).mean).toBeCloseTo(38.74, 1);
    expect(level(34).upperBound).toBe(false);
    expect(level(37)).toMatchObject({ upperBound: true });
    expect(level(37).mean).toBeCloseTo(38.7, 1);
  });
});

test('a log that only idles is steady as idle', () => {
  const a = analyse([{ ...IDLE, forS: 400 }]);
  expect(kinds(a)).toEqual(['idle']);
  expect(a.settled).toBe(true);
  expect(a.steady[0]!.kind).toBe('idle');
});

test('gaps and clock jumps are events; a log without powers is one sustained segment', () => {
  const log = logOfCsv(csvOf(generatedLog([HELD])));
  const a = analyseLog({
    ...log,
    columns: log.columns.filter((c) => c.is === 'levelDbA'),
    gaps: [{ fromS: 402, toS: 417 }],
    clockJumps: [{ atS: 500, byS: 3600 }],
  });
  expect(a.events).toEqual([
    { atS: 402, kind: 'log-gap', part: 'log' },
    { atS: 500, kind: 'clock-jump', part: 'log' },
  ]);
  expect(kinds(a)).toEqual(['sustained']);
  expect(a.settled).toBe(true);
});

// known truth over noise, whole digits and dropouts; the whole study is in docs/bench.md
test.each<[string, GeneratedOptions]>([
  ['noise of 3 W', { noiseW: 3, noiseK: 1 }],
  ['whole watts and kelvins', { quantumW: 1, quantumK: 1 }],
  ['a tenth of the cells missing', { missing: 0.1 }],
  ['a sample each two seconds', { stepS: 2 }],
])('%s: levels and their times are found', (_, made) => {
  const a = analyse([IDLE, SHORT, { ...HELD, forS: 360 }, { ...HELD, cpuW: 40, forS: 500 }], made);
  expect(kinds(a)).toEqual(['idle', 'short', 'sustained', 'later']);
  a.segments.slice(1).forEach((s, k) => {
    expect(Math.abs(s.fromS - [30, 58, 418][k]!)).toBeLessThanOrEqual(made.stepS ?? 1);
  });
  expect(a.settled).toBe(true);
});

test('a thin machine that bursts to twice its sustained watts and idles at a third of them', () => {
  const a = analyse(
    [
      { forS: 30, cpuW: 5, gpuW: 0 },
      { forS: 14, cpuW: 26, gpuW: 0 },
      { forS: 600, cpuW: 11.5, gpuW: 0 },
      { forS: 60, cpuW: 5, gpuW: 0 },
    ],
    { noiseW: 0.3 },
  );
  expect(kinds(a)).toEqual(['idle', 'short', 'sustained', 'cool-down']);
  expect(a.steady[a.steady.length - 1]!.means['cpuPowerW']!.mean).toBeCloseTo(11.5, 0);
});

test('a log that never reaches a dozen watts is idle, however they go up and down', () => {
  const a = analyse([
    { forS: 200, cpuW: 4, gpuW: 0 },
    { forS: 100, cpuW: 9, gpuW: 0 },
    { forS: 200, cpuW: 4, gpuW: 0 },
  ]);
  expect(a.segments.every((s) => s.kind === 'idle' || s.kind === 'cool-down')).toBe(true);
});
