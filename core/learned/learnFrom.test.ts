import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { caseCalibration } from '../calibration/caseCalibration';
import { fitMultipliers } from '../calibration/fitMultipliers';
import { openCase } from '../case/openCase';
import { runsToMake } from '../method/evidence';
import type { DefaultKey } from '../record/defaults';
import { parseRecord } from '../record/parseRecord';
import type { LabDefaults } from '../record/resolver';
import { estimateWithDraws } from '../uncertainty/estimateWithDraws';
import type { FactorEvidence } from './factorEvidence';
import { factorSlopes } from './factorSlopes';
import { foretelling, learnFrom, offeredBy } from './learnFrom';
import { leaveOneOut, type TaughtBy } from './leaveOneOut';
import { fitPopulation } from './populationFit';

const record = (() => {
  const text = readFileSync(join(__dirname, '../../examples/one-die.json'), 'utf8');
  const { settings: _, ...rest } = JSON.parse(text) as Record<string, unknown>;
  return parseRecord(rest).record!;
})();

const FINS: DefaultKey = 'finStacks.uaFactor';
const BOARD: DefaultKey = 'shell.boardWK';

/** Runs that told so much of each factor, in prior deviations. */
function told(at: Partial<Record<DefaultKey, number>>, deviation = 0.2): FactorEvidence {
  const keys = Object.keys(at) as DefaultKey[];
  const n = keys.length;
  const information = new Float64Array(n * n);
  keys.forEach((_, k) => (information[k * n + k] = 1 / deviation ** 2));
  const weighted = Float64Array.from(keys, (key) => at[key]! / deviation ** 2);
  return { keys, information, weighted };
}
const machine = (at: Partial<Record<DefaultKey, number>>): TaughtBy => ({
  request: { record },
  evidence: told(at),
  cap: 38,
});
const draws = 80;

test('slopes are those of the watts, in deviations of the built-in default', () => {
  const [row] = factorSlopes({ record }, [FINS, BOARD], [0, 0], [38]);
  // fins that carry more, and a board that leads more away, hold more
  expect(row![0]).toBeGreaterThan(0.01);
  expect(row![1]).toBeGreaterThan(0.01);
  // where each is taken matters: fins that carry much already add less
  const [far] = factorSlopes({ record }, [FINS, BOARD], [2.5, 0], [38]);
  expect(far![0]).toBeLessThan(row![0]!);
  // a cap at which nothing is carried has none; one row for each of the others
  expect(factorSlopes({ record }, [FINS], [0], ['off', 38, 'full'])).toHaveLength(3);
});

test('what the others taught moves and narrows what a machine is foretold', () => {
  const machines = [-1.5, -1.3, -1.6, -1.4, -1.5, -1.2].map((z) => machine({ [FINS]: z }));
  const population = fitPopulation(machines.map((m) => m.evidence));
  const { offered, machines: left } = offeredBy(population, machines, [38], { draws });
  expect(Object.keys(offered)).toEqual([FINS]);
  expect(left).toHaveLength(6);
  for (const { before, after } of left) {
    expect(after.p50).toBeLessThan(0.97 * before.p50);
    expect(after.p95 - after.p05).toBeLessThan(0.97 * (before.p95 - before.p05));
    // as built in: of a record alone, the same for each
    expect(before).toEqual(left[0]!.before);
  }
});

test('a machine is foretold without its own runs', () => {
  const machines = [1.5, -1.5, -1.4, -1.6].map((z) => machine({ [FINS]: z }));
  const keys = [FINS];
  const slopes = machines.map((m) => factorSlopes(m.request, keys, [0], [38]));
  const left = leaveOneOut(machines, keys, slopes, { draws });
  // its own lie the other way: left out, the others pull it down furthest
  const [odd, ...others] = left;
  for (const other of others) expect(odd!.after.p50).toBeLessThan(other.after.p50);
  // a factor that only the one left out has is none of the others'
  const alone = [machine({ [FINS]: -1.5, [BOARD]: 3 }), ...machines.slice(1)];
  const both = leaveOneOut(
    alone,
    [FINS, BOARD],
    alone.map((m) => factorSlopes(m.request, [FINS, BOARD], [0, 0], [38])),
    { draws },
  );
  expect(both[0]!.after.p50).toBeCloseTo(odd!.after.p50, 6);
});

test('it is ended by who looks, with those that are done', () => {
  const machines = [-1, -1.2, -1.4].map((z) => machine({ [FINS]: z }));
  const seen: [number, number][] = [];
  const left = leaveOneOut(machines, [FINS], [[], [], []], {
    draws,
    progress: (done, of) => {
      seen.push([done, of]);
      return done < 2;
    },
  });
  expect(left).toHaveLength(2);
  expect(seen).toEqual([
    [1, 3],
    [2, 3],
  ]);
});

test('with many machines several are left out at once, and none teaches itself', () => {
  // 26 in 24 parts: the first and the 25th go together
  const machines = Array.from({ length: 26 }, (_, i) =>
    machine({ [FINS]: i === 0 || i === 24 ? 4 : -1.5 }),
  );
  const left = leaveOneOut(
    machines,
    [FINS],
    machines.map(() => []),
    { draws: 40 },
  );
  expect(left).toHaveLength(26);
  expect(left[24]).toEqual(left[0]);
  expect(left[0]!.after.p50).toBeLessThan(left[1]!.after.p50);
});

test('all together: factors with what is offered of them, each machine, and how well it was foretold', () => {
  const teachers = [-1.5, -1.3, -1.6].map((z) => ({ ...machine({ [FINS]: z }), measuredW: 18 }));
  const learned = learnFrom(teachers, [38]);
  expect(learned.machines).toHaveLength(3);
  const [fins] = learned.factors;
  expect(fins).toMatchObject({ key: FINS, machines: 3 });
  expect(fins!.mean).toBeLessThan(-0.8);
  expect(fins!.offered!.value).toBeLessThan(0.7);
  expect(learned.after.offShare).toBeLessThan(learned.before.offShare);
});

test('a machine that stands on its own runs is foretold by them, whatever the others taught', () => {
  const open = openCase({ record });
  const fit = fitMultipliers(open, runsToMake(open, 2, ['exhaust']), { suspicions: false });
  const calibration = caseCalibration(fit);
  const band = (lab: LabDefaults) => {
    const options = { draws: 60, seed: 1, caps: [38], envelopes: false };
    const calibrated = openCase({ record, calibration, lab: { defaults: lab } });
    const { p05, p50, p95 } = estimateWithDraws(calibrated, options).estimate.caps[0]!.together;
    return [p05, p50, p95];
  };
  const learned = { value: 0.55, low: 0.52, high: 0.58, learned: true as const };
  expect(band({ [FINS]: learned })).toEqual(band({}));
});

test('how well watts were foretold, by hand', () => {
  const told = foretelling([
    // inside; off by ln 1.1; half band 0.2
    { measuredW: 110, band: { p05: 80, p50: 100, p95: 120 } },
    // at the edge counts as inside; half band 0.1
    { measuredW: 90, band: { p05: 90, p50: 100, p95: 110 } },
    // below its band; half band 0.2
    { measuredW: 40, band: { p05: 80, p50: 100, p95: 120 } },
    // above it; half band 0.5
    { measuredW: 200, band: { p05: 50, p50: 100, p95: 150 } },
  ]);
  expect(told.inside).toBe(2);
  expect(told.halfBand).toBeCloseTo(0.2, 12);
  const square =
    (Math.log(1.1) ** 2 + Math.log(0.9) ** 2 + Math.log(2) ** 2 + Math.log(0.4) ** 2) / 4;
  expect(told.offShare).toBeCloseTo(Math.sqrt(square), 12);
});
