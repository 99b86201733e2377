import { openCase } from '@zugluft/core/case/openCase';
import { readFileSync, writeFileSync } from 'node:fs';
import { Bench } from 'tinybench';
import { LuDecomposition } from 'ml-matrix';
import { fitMultipliers } from '@zugluft/core/calibration/fitMultipliers';
import { runsToMake } from '@zugluft/core/method/evidence';
import { estimate } from '@zugluft/core/case/estimate';
import { fanState } from '@zugluft/core/envelope/fanStates';
import { drawMachine, gainsOfChange } from '@zugluft/core/levers/leverGains';
import { possibleLevers } from '@zugluft/core/levers/possibleLevers';
import { buildModel } from '@zugluft/core/network/machineModel';
import { solveInto, solveLinear } from '@zugluft/core/network/steadyState';
import { parseRecord } from '@zugluft/core/record/parseRecord';
import { resolveCase } from '@zugluft/core/record/resolveCase';
import { simulateFirmware } from '@zugluft/core/transient/simulateFirmware';
import { planDraws } from '@zugluft/core/uncertainty/drawPlan';
import { roomForDraws, runDraws } from '@zugluft/core/uncertainty/draws';
import { SHOWN_DRAWS } from '@zugluft/core/uncertainty/wattsBand';
import { benchChart } from './chart';
import { benchLibrary } from './library';
import { benchLogs, studyOfLogs } from './logs';
import { benchPage } from './page';
import { benchPhoto } from './photo';
import { benchPhotoPage } from './photoPage';
import { benchPublish } from './publish';
import { benchStalls } from './stalls';
import { uncondensed } from './uncondensed';

const load = (name: string) =>
  parseRecord(JSON.parse(readFileSync(`examples/${name}.json`, 'utf8'))).record!;
const two = load('two-fan-shared-pipes');
const four = load('four-fan-eight-pipes');
const caps = [28, 32, 36, 40, 45];

const model = buildModel(resolveCase(four));
const { rpms } = fanState(model.data, 0.9);
const state = solveLinear(model, rpms);
const whole = uncondensed(model, state);
const junction = new LuDecomposition(whole.matrix).solve(whole.heat).get(whole.junction, 0);
const die = model.data.dies.findIndex((d) => d.role === 'cpu');
const condensed = state.perCpuW[model.dieNode[die]!]! + model.dieBeyondCpuKPerW[die]!;
if (Math.abs(junction / condensed - 1) > 1e-6) {
  throw new Error(`the two networks differ: ${junction} and ${condensed} K/W`);
}

const DRAWS = 500;
const plan = planDraws(openCase({ record: two }), { draws: DRAWS, caps });
const drawn = roomForDraws(plan, DRAWS);

const apart = structuredClone(two);
for (const fan of apart.fans!) fan.control = 'own';
const apartPlan = planDraws(openCase({ record: apart }), { draws: DRAWS, caps });
const apartDrawn = roomForDraws(apartPlan, DRAWS);

const bands = planDraws(openCase({ record: two }), { draws: SHOWN_DRAWS });
const bandsDrawn = roomForDraws(bands, SHOWN_DRAWS);

const fiveRuns = runsToMake(openCase({ record: two }), 5);

const sixLevers = possibleLevers(two)
  .filter((l) => l.change.length > 0)
  .slice(0, 6);

const leverOptions = { caps, draws: SHOWN_DRAWS };
const beforeLevers = drawMachine({ record: two }, leverOptions);

interface Row {
  name: string;
  run: () => void;
  /** Bound of engineering.md, ms, and how often the run counts towards it. */
  bound?: number;
  times?: number;
}
const CONDENSED = `steady solve with air paths, four-fan example, ${model.nodeCount} unknowns`;
const UNCONDENSED = `factor and solve uncondensed by ml-matrix’s LU, ${whole.matrix.rows} unknowns`;
const rows: Row[] = [
  {
    name: 'what a keystroke waits for: three readouts at seven caps, two-fan example',
    run: () => void estimate(openCase({ record: two }), { envelopes: false }),
    bound: 100,
  },
  {
    name: 'five-cap envelope, two-fan example',
    run: () => void estimate(openCase({ record: two }), { caps }),
    bound: 5,
  },
  {
    name: 'five-cap envelope, four-fan example',
    run: () => void estimate(openCase({ record: four }), { caps }),
    bound: 5,
  },
  {
    name: '10 000 draws × 5 caps × 3 readouts, two-fan example (from 500)',
    run: () => runDraws(plan, 0, DRAWS, drawn),
    bound: 2500,
    times: 10_000 / DRAWS,
  },
  {
    name: '10 000 draws × 5 caps × 3 readouts, the same with its fans controlled apart (from 500)',
    run: () => runDraws(apartPlan, 0, DRAWS, apartDrawn),
    bound: 2500,
    times: 10_000 / DRAWS,
  },
  {
    name: 'bands after a keystroke: 400 draws × 7 caps × 3 readouts, two-fan example',
    run: () => runDraws(bands, 0, SHOWN_DRAWS, bandsDrawn),
    bound: 150,
  },
  {
    name: 'calibration of five runs, two-fan example',
    run: () => void fitMultipliers(openCase({ record: two }), fiveRuns),
    bound: 3000,
  },
  {
    name: '30 levers × 5 caps × 400 draws, two-fan example (from 6)',
    run: () => {
      for (const lever of sixLevers) gainsOfChange(beforeLevers, lever, leverOptions);
    },
    bound: 2000,
    times: 30 / sixLevers.length,
  },
  {
    name: '30 minutes of firmware behaviour in steps of 0.5 s, two-fan example',
    run: () => void simulateFirmware(openCase({ record: two })),
    bound: 50,
  },
  {
    name: CONDENSED,
    run: () => solveInto(model, rpms, state),
  },
  {
    name: UNCONDENSED,
    run: () => void new LuDecomposition(whole.matrix).solve(whole.heat),
  },
];

const bench = new Bench({ time: 2000, warmupTime: 500 });
for (const r of rows) bench.add(r.name, r.run);
await bench.run();
const median = bench.tasks.map((t) =>
  t.result.state === 'completed' ? t.result.latency.p50 : NaN,
);
const medianOf = (name: string) => median[rows.findIndex((r) => r.name === name)]!;
const logs = await benchLogs();
const library = [
  ...benchPhoto(),
  ...(await benchPublish(two)),
  ...(await benchLibrary(two)),
  ...(await benchPage(two)),
  ...(await benchChart(two)),
  ...(await benchPhotoPage(two)),
  ...(await benchStalls(two, four)),
];
const lines = [
  '# Bench',
  '',
  'Medians of one run of `npm run bench` on a shared two-core machine; ratios hold, milliseconds drift. Under 1 is within the',
  'bound.',
  '',
  '| what | median ms | over its bound |',
  '|---|---|---|',
  ...rows.map((r, i) => {
    const ms = median[i]! * (r.times ?? 1);
    const over = r.bound === undefined ? '' : `${(ms / r.bound).toFixed(2)} of ${r.bound} ms`;
    return `| ${r.name} | ${ms.toPrecision(3)} | ${over} |`;
  }),
  ...logs.map(
    ({ name, ms, bound, unit }) =>
      `| ${name} | ${ms.toPrecision(3)} ${unit === 'ms' ? '' : unit} | ${(ms / bound).toFixed(2)} of ${Number(bound.toPrecision(4))} ${unit} |`,
  ),
  ...library.map(
    ({ name, ms, bound, unit = 'ms' }) =>
      `| ${name} | ${ms.toPrecision(3)} ${unit === 'ms' ? '' : unit} | ${(ms / bound).toFixed(2)} of ${Number(bound.toPrecision(4))} ${unit} |`,
  ),
  '',
  `Uncondensed through ml-matrix over one whole steady solve, air paths included: ${(medianOf(UNCONDENSED) / medianOf(CONDENSED)).toFixed(1)} (bound: at least 10).`,
  ...studyOfLogs(),
  '',
];
console.log(lines.join('\n'));
writeFileSync('docs/bench.md', lines.join('\n'));
