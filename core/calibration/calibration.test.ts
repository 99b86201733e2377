import { openCase } from '../case/openCase';
import { DEFAULTS } from '../record/defaults';
import { exampleRecord } from '../test-support/exampleRecord';
import { measured } from '../test-support/simulatedBench';
import { normalProbability, normalQuantile } from '../uncertainty/normal';
import { randomStream } from '../uncertainty/random';
import { chiSquare, fitMultipliers } from './fitMultipliers';
import { predictRuns } from './holdout';
import { multipliersOf, valuesAt } from './multipliers';
import { predictorOf } from './predictReadings';
import { readingsOf, type SteadyRun } from './steadyRun';

// fits of a hundred causes, with both cores busy
jest.setTimeout(300_000);

interface Fitter {
  levenbergMarquardt(
    data: { x: number[]; y: number[] },
    f: (p: number[]) => (x: number) => number,
    options: object,
  ): { parameterValues: number[] };
}

// the package ships no types
const { jStat } = jest.requireActual<{
  jStat: {
    normal: { cdf(x: number, mean: number, sd: number): number };
    chisquare: { inv(p: number, k: number): number };
  };
}>('jstat');

const two = exampleRecord('two-fan-shared-pipes');
/** What a bench is expected to tell of this machine. */
const ONLY = [
  'dies.cpu.interface.conductivity',
  'dies.gpu.interface.conductivity',
  'finStacks.uaFactor',
  'dies.hotSpotFactor',
  'fans.psi',
  'fans.phi',
  'fans.recirculation',
  'heatPipes.solder',
  'noise.reference',
  'shell.evenness',
  'dies.sensorGain',
];
const BLANK = { junctionC: { cpu: 0, gpu: 0 }, exhaustC: { 'fins-left': 0, 'fins-right': 0 } };
const PLAN: SteadyRun[] = [
  [5000, 40, 60],
  [5000, 60, 0],
  [5000, 0, 70],
  [3400, 30, 40],
  [3400, 45, 0],
  [2500, 25, 25],
].map(([rpm, cpuW, gpuW], i) => ({
  id: `run-${i}`,
  ambientC: 22 + 0.2 * i,
  rpm: { 'fan-left': rpm!, 'fan-right': rpm! },
  cpuW: cpuW!,
  gpuW: gpuW!,
  ...BLANK,
  levelDbA: 0,
}));

const truth = (seed: number, only = ONLY) => {
  const next = randomStream(seed);
  const parameters = multipliersOf(openCase({ record: two }), only);
  const z = Float64Array.from(parameters, () => normalQuantile(next()));
  return { next, parameters, z, values: valuesAt(parameters, z) };
};

test('the normal distribution there and back, against jstat', () => {
  for (const z of [-8, -4.2, -1.645, -0.3, 0, 0.7, 2.5, 6]) {
    expect(normalProbability(z)).toBeCloseTo(jStat.normal.cdf(z, 0, 1), 10);
  }
  for (const z of [-4, -1, 0.2, 3]) {
    expect(normalQuantile(normalProbability(z))).toBeCloseTo(z, 8);
  }
});

test('upper 1 % of chi-square, against jstat', () => {
  for (const k of [4, 10, 30, 100]) {
    expect(chiSquare(k, 2.3263478740408408) / jStat.chisquare.inv(0.99, k)).toBeCloseTo(1, 2);
  }
});

test('figures that share a cause are one multiplier, exact ones none', () => {
  const names = multipliersOf(openCase({ record: two })).map((m) => m.name);
  expect(names.filter((n) => n === 'fans.psi')).toHaveLength(1);
  expect(names.some((n) => n.endsWith('finCount') || n.startsWith('room.temperature'))).toBe(false);
  // the median of the default's distribution
  const [[path, value]] = [
    ...valuesAt(multipliersOf(openCase({ record: two }), ['finStacks.uaFactor']), [0]),
  ] as [[string, number]];
  const { value: middle, low, high } = DEFAULTS['finStacks.uaFactor'];
  expect(path).toBe('finStacks.uaFactor');
  expect(Math.abs(value - middle)).toBeLessThan((high - low) / 4);
});

test('the mode agrees with ml-levenberg-marquardt', () => {
  const { next, parameters, values } = truth(11);
  const runs = measured(two, values, PLAN, next);
  const fit = fitMultipliers(openCase({ record: two }), runs, { only: ONLY });
  const readings = readingsOf(runs);
  const predict = predictorOf(openCase({ record: two }), runs, readings);
  const m = readings.length;
  // the priors are so many readings more: z itself, read as 0 ± 1
  const { levenbergMarquardt } = jest.requireActual<Fitter>('ml-levenberg-marquardt');
  const reference = levenbergMarquardt(
    {
      x: Array.from({ length: m + parameters.length }, (_, i) => i),
      y: [...readings.map((r) => r.value / r.plusMinus), ...parameters.map(() => 0)],
    },
    (p) => {
      const predicted = predict(valuesAt(parameters, p)).slice();
      return (i) => (i < m ? predicted[i]! / readings[i]!.plusMinus : p[i - m]!);
    },
    {
      initialValues: parameters.map(() => 0),
      gradientDifference: 0.05,
      centralDifference: true,
      damping: 0.01,
      maxIterations: 30,
      errorTolerance: 1e-9,
    },
  );
  const cost = (z: ArrayLike<number>) => {
    const predicted = predict(valuesAt(parameters, z));
    return (
      readings.reduce((s, r, i) => s + ((r.value - predicted[i]!) / r.plusMinus) ** 2, 0) +
      Array.from(z).reduce((s, x) => s + x * x, 0)
    );
  };
  const ratio = cost(fit.z) / cost(reference.parameterValues);
  expect(ratio).toBeLessThan(1.005);
  // where two act on the same kelvins the valley is flat: what is foretold agrees
  const theirs = predict(valuesAt(parameters, reference.parameterValues)).slice();
  const ours = predict(valuesAt(parameters, fit.z));
  readings.forEach((r, i) => {
    expect(Math.abs(theirs[i]! - ours[i]!)).toBeLessThan(0.2 * r.plusMinus);
  });
});

test('what the runs do not touch stays at its prior', () => {
  const { next, values } = truth(3);
  const silent = PLAN.map(({ levelDbA: _, ...r }) => r);
  const fit = fitMultipliers(openCase({ record: two }), measured(two, values, silent, next), {
    only: ONLY,
  });
  const noise = fit.multipliers.find((m) => m.name === 'noise.referenceDbA')!;
  expect(noise.z).toBeCloseTo(0, 1);
  expect(Math.abs(noise.deviation - 1)).toBeLessThan(0.02);
  expect(noise.determined).toBe(false);
  expect(Math.abs(noise.value - noise.prior)).toBeLessThan(0.1);
});

test('more runs tell more, and what cannot be told apart is told together', () => {
  const { next, values } = truth(5);
  const runs = measured(two, values, PLAN, next);
  const few = fitMultipliers(openCase({ record: two }), runs.slice(0, 2), { only: ONLY });
  const all = fitMultipliers(openCase({ record: two }), runs, { only: ONLY });
  const noise = (fit: typeof all) =>
    fit.multipliers.find((m) => m.name === 'noise.referenceDbA')!.deviation;
  expect(noise(all)).toBeLessThan(noise(few));
  const untold = (fit: typeof all) =>
    fit.multipliers.reduce((sum, m) => sum + Math.log(m.deviation), 0);
  expect(untold(all)).toBeLessThan(untold(few));
  all.multipliers.forEach((m) => expect(m.low).toBeLessThan(m.high));
  // what acts on the same kelvins is told as a combination, better than either part
  const combined = all.directions[0]!;
  expect(combined.parts.length).toBeGreaterThan(1);
  for (const part of combined.parts) {
    const alone = all.multipliers.find((m) => m.name === part.name)!;
    expect(alone.determined).toBe(false);
    expect(combined.deviation).toBeLessThan(alone.deviation);
  }
  expect(all.residuals).toHaveLength(readingsOf(runs).length);
});

test('held-back runs are foretold with a band', () => {
  const { next, values } = truth(9);
  const runs = measured(two, values, PLAN, next);
  const fit = fitMultipliers(openCase({ record: two }), runs.slice(1), { only: ONLY });
  const held = predictRuns(openCase({ record: two }), fit, runs.slice(0, 1));
  expect(held).toHaveLength(5);
  expect(held.filter((h) => h.inside).length).toBeGreaterThanOrEqual(4);
  const wide = predictRuns(
    openCase({ record: two }),
    fitMultipliers(openCase({ record: two }), runs.slice(4), { only: ONLY }),
    runs.slice(0, 1),
  );
  const width = (x: (typeof held)[number]) => x.predicted.high - x.predicted.low;
  expect(width(held[0]!)).toBeLessThan(width(wide[0]!));
});

test('a machine that is not the one recorded is found out, and its bands widen', () => {
  // the GPU's paste has dried out, which none of the three multipliers can stand for
  const other = structuredClone(two);
  other.dies![1]!.interface = { kind: 'paste', conductivityWmK: 1, bondLineUm: 150 };
  const next = randomStream(21);
  const runs = measured(other, new Map(), PLAN, next);
  const narrow = ['fans.psi', 'finStacks.uaFactor', 'dies.hotSpotFactor'];
  const fit = fitMultipliers(openCase({ record: two }), runs, { only: narrow });
  expect(fit.unexplained).toBe(true);
  expect(fit.misfit).toBeGreaterThan(1.5);
  const right = fitMultipliers(openCase({ record: two }), measured(two, new Map(), PLAN, next), {
    only: narrow,
  });
  expect(right.unexplained).toBe(false);
  fit.multipliers.forEach((m, i) => {
    expect(m.deviation).toBeGreaterThan(right.multipliers[i]!.deviation);
  });
});

test('too little to fit, unknown parts and numbers that are none are refused', () => {
  expect(() => fitMultipliers(openCase({ record: two }), [])).toThrow(RangeError);
  const nothing = PLAN.map(({ id, ambientC, rpm, cpuW, gpuW }) => ({
    id,
    ambientC,
    rpm,
    cpuW,
    gpuW,
  }));
  expect(() => fitMultipliers(openCase({ record: two }), nothing)).toThrow(/one reading/);
  const unknown = PLAN.map((r) => ({ ...r, junctionC: { npu: 50 } }));
  expect(() => fitMultipliers(openCase({ record: two }), unknown, { only: ONLY })).toThrow(/“npu”/);
  const broken = PLAN.map((r) => ({ ...r, levelDbA: NaN }));
  expect(() => fitMultipliers(openCase({ record: two }), broken, { only: ONLY })).toThrow(
    /not a number/,
  );
});
