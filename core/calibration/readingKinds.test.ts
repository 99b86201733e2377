import { openCase } from '../case/openCase';
import { readPoint } from '../case/readPoint';
import { figureValue } from '../record/figure';
import { exampleRecord } from '../test-support/exampleRecord';
import { measured } from '../test-support/simulatedBench';
import { randomStream } from '../uncertainty/random';
import { fitMultipliers } from './fitMultipliers';
import { predictRuns } from './holdout';
import { predictorOf } from './predictReadings';
import { deviationOf, readingsOf, type SteadyRun } from './steadyRun';

// fits of a hundred causes, with both cores busy
jest.setTimeout(300_000);

const two = exampleRecord('two-fan-shared-pipes');
const open = openCase({ record: two });
const RUN: SteadyRun = {
  id: 'run-1',
  ambientC: open.data.room.temperatureC,
  rpm: { 'fan-left': 5000, 'fan-right': 5000 },
  cpuW: 40,
  gpuW: 60,
};
const BASE: SteadyRun = { ...RUN, junctionC: { cpu: 0, gpu: 0 }, levelDbA: 0 };

test('every kind of reading is foretold as the point reading shows it', () => {
  const run: SteadyRun = {
    ...BASE,
    exhaustC: { 'fins-left': 0 },
    finC: { 'fins-left': 0 },
    pipeC: { pipe: 0 },
    skinC: 0,
    wallW: 100,
    exhaustFlowLps: { 'fins-left': 1 },
    freeDeliveryLps: { 'fan-left': 1 },
    heldS: 600,
  };
  const readings = readingsOf([run]);
  const predicted = predictorOf(open, [run], readings)(new Map());
  const of = (kind: string, part = '') =>
    predicted[readings.findIndex((r) => r.kind === kind && r.part === part)]!;
  const p = readPoint(open, 'full', 40, 60);
  expect(of('junction', 'cpu')).toBeCloseTo(p.junctions[0]!.temperatureC, 1);
  expect(of('exhaust', 'fins-left')).toBeCloseTo(p.exhaust[0]!.temperatureC, 1);
  expect(of('skin')).toBeCloseTo(Math.max(...p.skin.map((s) => s.temperatureC)), 1);
  expect(of('level')).toBeCloseTo(p.levelDbA!, 6);
  expect(of('pipe', 'pipe')).toBeCloseTo(p.pipes[0]!.vaporC, 1);
  expect(of('held')).toBeCloseTo(Math.max(...p.pipes.map((x) => x.shareOfLimit)), 2);
  // the fins are cooler than the pipe on them and warmer than the air that leaves them
  expect(of('fin', 'fins-left')).toBeLessThan(of('pipe', 'pipe'));
  expect(of('fin', 'fins-left')).toBeGreaterThan(of('exhaust', 'fins-left'));
  // less passes the fins than a fan blows freely
  expect(of('flow', 'fins-left')).toBeLessThan(of('freeDelivery', 'fan-left'));
  expect(of('flow', 'fins-left')).toBeLessThanOrEqual(p.fans[0]!.flowLps + 1e-6);
  // reported watts, what stands beside them, the rest and the fans, over the adapter's efficiency
  const fanW = 2 * open.data.power.fanW;
  const drawn = 40 * open.model.drawPerCpuW + 60 * open.model.drawPerGpuW;
  expect(of('wall')).toBeCloseTo((drawn + open.data.power.restW + fanW) / 0.88, 6);
});

test('a free delivery follows the flow coefficient: φ π D b U', () => {
  const run = { ...RUN, freeDeliveryLps: { 'fan-left': 1 }, rpm: { 'fan-left': 3000 } };
  const [free] = predictorOf(open, [run], readingsOf([run]))(new Map([['fans.phi', 0.08]]));
  const { diameterM: d, bladeHeightM: b } = open.data.fans[0]!;
  const tip = (Math.PI * d * 3000) / 60;
  expect(free!).toBeCloseTo(0.08 * Math.PI * d * b * tip * 1e3, 6);
});

/** Deviation of a multiplier after a run with some readings more. */
function after(name: string, more: Partial<SteadyRun>): number {
  const plan = [{ ...BASE, ...more }];
  const runs = measured(two, new Map(), plan, null);
  const fit = fitMultipliers(open, runs, { draws: 150, suspicions: false });
  return fit.multipliers.find((m) => m.name === name)!.deviation;
}

test('each reading narrows its own part', () => {
  const wall = { wallW: 150 };
  const adapter = 'bench.adapterEfficiency';
  expect(after(adapter, wall)).toBeLessThan(0.9 * after(adapter, {}));
  const free = { freeDeliveryLps: { 'fan-left': 4 } };
  expect(after('fans.phi', free)).toBeLessThan(0.8 * after('fans.phi', {}));
  const flow = { exhaustFlowLps: { 'fins-left': 1.5, 'fins-right': 1.5 } };
  expect(after('fans.phi', flow)).toBeLessThan(0.9 * after('fans.phi', {}));
});

test('surfaces of pipe and fins tell what those of another run will be', () => {
  const other: SteadyRun = {
    ...RUN,
    id: 'run-2',
    cpuW: 20,
    gpuW: 30,
    finC: { 'fins-left': 0 },
    pipeC: { pipe: 0 },
    plusMinus: { fin: 0.1, pipe: 0.1 },
  };
  const widths = (more: Partial<SteadyRun>) => {
    const runs = measured(two, new Map(), [{ ...BASE, ...more }], null);
    const fit = fitMultipliers(open, runs, { draws: 200, suspicions: false });
    return predictRuns(open, fit, [other]).map((r) => r.predicted.high - r.predicted.low);
  };
  const without = widths({});
  const told = widths({ finC: { 'fins-left': 0, 'fins-right': 0 }, pipeC: { pipe: 0 } });
  told.forEach((w, i) => expect(w).toBeLessThan(0.8 * without[i]!));
});

test('a run that held moves the pipe’s limit up and nothing down; a short one tells nothing', () => {
  const one = exampleRecord('one-die');
  const limit = 'heatPipes.limitFactor.sintered';
  const rpm = Object.fromEntries(one.fans!.map((f) => [f.id, figureValue(f.maxRpm)!]));
  // by the middle of the figures its pipe would just dry out
  const run = { id: 'run-1', ambientC: 23, rpm, cpuW: 25, gpuW: 0, levelDbA: 40 };
  const fit = (heldS: number) =>
    fitMultipliers(openCase({ record: one }), [{ ...run, heldS }], {
      suspicions: false,
    }).multipliers.find((m) => m.name === limit)!;
  const held = fit(1200);
  const short = fit(60);
  expect(Math.abs(short.z)).toBeLessThan(0.1);
  expect(held.z).toBeGreaterThan(0.4);
  expect(held.low).toBeGreaterThan(short.low);
  expect(Math.abs(held.high / short.high - 1)).toBeLessThan(0.15);
});

test('a level over a near background is only an upper bound', () => {
  const [bound] = readingsOf([{ ...RUN, levelDbA: 40, levelIsUpperBound: true }]);
  expect(deviationOf(bound!, 30)).toBe(0);
  expect(deviationOf(bound!, 41)).toBeCloseTo(-2, 12);
  const [plain] = readingsOf([{ ...RUN, levelDbA: 40 }]);
  expect(deviationOf(plain!, 30)).toBeCloseTo(20, 12);
});

test('one whole run: two hundred draws’ worth, and what it does not touch has the spread it had', () => {
  const runs = measured(two, new Map(), [BASE], randomStream(2));
  const fit = fitMultipliers(open, runs);
  expect(fit.effectiveDraws).toBeGreaterThanOrEqual(200);
  // neither watts nor level hang on these
  const untouched = [
    'shell.skinLimitC',
    'shell.exhaustLimitC',
    'dies.maxJunctionC',
    'fans.fan-left.minRpm',
  ];
  const found = fit.multipliers.filter((m) => untouched.some((u) => m.name.startsWith(u)));
  expect(found.length).toBeGreaterThanOrEqual(1);
  for (const m of found) {
    expect(m.determined).toBe(false);
    expect(m.deviation).toBeGreaterThan(0.9);
    expect(m.deviation).toBeLessThan(1.1);
    expect(Math.abs(m.z)).toBeLessThan(0.1);
  }
  const wide = fit.multipliers.filter((m) => m.deviation > 1.2);
  expect(wide).toEqual([]);
});
