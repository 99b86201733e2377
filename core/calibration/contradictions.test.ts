import { openCase } from '../case/openCase';
import { exampleRecord } from '../test-support/exampleRecord';
import { measured } from '../test-support/simulatedBench';
import { randomStream } from '../uncertainty/random';
import { normalQuantile } from '../uncertainty/normal';
import { fitMultipliers } from './fitMultipliers';
import { multipliersOf, valuesAt } from './multipliers';
import { sustainedAfterFit } from './holdout';
import type { SteadyRun } from './steadyRun';

// fits of a hundred causes, with both cores busy
jest.setTimeout(300_000);

const two = exampleRecord('two-fan-shared-pipes');
const open = openCase({ record: two });
const PLAN: SteadyRun[] = [
  [5000, 40, 60],
  [5000, 60, 0],
  [5000, 0, 70],
  [3400, 30, 40],
].map(([rpm, cpuW, gpuW], i) => ({
  id: `run-${i + 1}`,
  ambientC: 23,
  rpm: { 'fan-left': rpm!, 'fan-right': rpm! },
  cpuW: cpuW!,
  gpuW: gpuW!,
  junctionC: { cpu: 0, gpu: 0 },
  levelDbA: 0,
}));
/** Enough for what is asked here; the whole list only takes longer. */
const OPTIONS = {
  draws: 200,
  only: [
    'dies.cpu.interface',
    'dies.gpu.interface',
    'dies.hotSpotFactor',
    'dies.sensorGain',
    'finStacks.uaFactor',
    'fans.phi',
    'fans.psi',
    'fans.recirculation',
    'noise.reference',
    'heatPipes.wickWmK',
    'shell.boardWK',
  ],
};
const none = new Map<string, number>();
/** A machine like others, drawn from what may be. */
const usual = () => {
  const next = randomStream(12);
  const parameters = multipliersOf(open, OPTIONS.only);
  return valuesAt(
    parameters,
    parameters.map(() => normalQuantile(next())),
  );
};

test('honest runs contradict nothing, and nothing is suspected', () => {
  const fit = fitMultipliers(open, measured(two, none, PLAN, randomStream(3)), OPTIONS);
  expect(fit.contradictions).toEqual([]);
  expect(fit.suspicions).toEqual([]);
  expect(fit.unexplained).toBe(false);
});

test('a run in which a fan stood still is named, with the fan, and drags the others nowhere', () => {
  const still = (run: SteadyRun, k: number) =>
    k === 1 ? { ...run, rpm: { ...run.rpm, 'fan-left': 0 } } : run;
  const runs = measured(two, usual(), PLAN, randomStream(3), still);
  const fit = fitMultipliers(open, runs, OPTIONS);
  expect(fit.contradictions.map((c) => [c.run, c.reading])).toEqual([[1, null]]);
  expect(fit.suspicions[0]).toMatchObject({ kind: 'fan-still', run: 1 });
  expect(fit.suspicions.map((s) => s.text)).toContain(
    'the fan fan-left may not be turning in run run-2',
  );
  const [held] = sustainedAfterFit(open, fit, ['full']);
  // as good as without that run
  const without = fitMultipliers(
    open,
    runs.filter((_, k) => k !== 1),
    OPTIONS,
  );
  const [best] = sustainedAfterFit(open, without, ['full']);
  expect(Math.abs(held!.value / best!.value - 1)).toBeLessThan(0.02);
});

test('one instrument that was misplaced is named alone, its run is kept', () => {
  const runs = measured(two, none, PLAN, randomStream(4));
  const loud = runs.map((r, k) => (k === 3 ? { ...r, levelDbA: r.levelDbA! + 9 } : r));
  const fit = fitMultipliers(open, loud, OPTIONS);
  expect(fit.contradictions).toHaveLength(1);
  const { run, reading } = fit.contradictions[0]!;
  expect(run).toBe(3);
  expect(fit.residuals[reading!]!.kind).toBe('level');
});

test('a fan that never turned, a sensor that reads low, another interface: said in words', () => {
  const stopped = (run: SteadyRun) => ({ ...run, rpm: { ...run.rpm, 'fan-right': 0 } });
  const cold = fitMultipliers(open, measured(two, none, PLAN, randomStream(5), stopped), OPTIONS);
  expect(cold.suspicions.map((s) => s.text)).toContain('the fan fan-right may not be turning');

  const low = new Map([['dies.sensorGain.cpu', 1 / 0.7]]);
  const sensor = fitMultipliers(open, measured(two, low, PLAN, randomStream(6)), OPTIONS);
  expect(sensor.suspicions[0]!.text).toMatch(
    /^the power sensor of the CPU may read (2|3)\d % low$/,
  );

  const dry = new Map([['dies.gpu.interface.conductivityWmK', 0.6]]);
  const paste = fitMultipliers(open, measured(two, dry, PLAN, randomStream(7)), OPTIONS);
  expect(paste.suspicions.map((s) => s.text).join('\n')).toMatch(
    /the interface of gpu conducts \d+\.\d times worse than recorded|the interface conducts worse than what was recorded/,
  );
});

test('a single run that the record contradicts leaves the band wide rather than wrong', () => {
  const hot = measured(two, none, PLAN.slice(0, 1), randomStream(8)).map((r) => ({
    ...r,
    junctionC: { cpu: r.junctionC!['cpu']! + 70, gpu: r.junctionC!['gpu']! - 25 },
  }));
  const fit = fitMultipliers(open, hot, OPTIONS);
  expect(fit.contradictions.length + Number(fit.unexplained)).toBeGreaterThan(0);
  const honest = fitMultipliers(
    open,
    measured(two, none, PLAN.slice(0, 1), randomStream(8)),
    OPTIONS,
  );
  const width = (f: typeof fit) => {
    const [w] = sustainedAfterFit(open, f, ['full']);
    return (w!.high - w!.low) / w!.value;
  };
  expect(width(fit)).toBeGreaterThan(1.5 * width(honest));
});

test('what cannot be a reading is named and leaves everything as it was; what cannot be a run is refused', () => {
  const absurd = measured(two, none, PLAN.slice(0, 1), randomStream(9)).map((r) => ({
    ...r,
    junctionC: { cpu: 5000, gpu: -200 },
  }));
  const fit = fitMultipliers(open, absurd, OPTIONS);
  expect(fit.contradictions).toHaveLength(1);
  expect(fit.effectiveDraws).toBeGreaterThan(100);
  expect(fit.suspicions).toEqual([]);
  const ua = fit.multipliers.find((m) => m.name === 'finStacks.uaFactor')!;
  expect(Math.abs(ua.z)).toBeLessThan(0.5);
  expect(ua.deviation).toBeGreaterThan(0.8);
  const refused = (change: Partial<SteadyRun>) => () =>
    fitMultipliers(open, [{ ...PLAN[0]!, ...change }], OPTIONS);
  expect(refused({ cpuW: -1 })).toThrow('run run-1: CPU watts is no number from 0 on');
  expect(refused({ gpuW: NaN })).toThrow('GPU watts');
  expect(refused({ rpm: { 'fan-left': -5 } })).toThrow('speed of fan-left');
  expect(refused({ ambientC: 500 })).toThrow('the room is not within -20');
});
