import { fitMultipliers } from '../calibration/fitMultipliers';
import { sustainedAfterFit } from '../calibration/holdout';
import { multipliersOf, valuesAt } from '../calibration/multipliers';
import type { SteadyRun } from '../calibration/steadyRun';
import { openCase } from '../case/openCase';
import { sustainedTogether } from '../case/sustainedTogether';
import { simulatedLogs, type SimulatedRunOptions } from '../instruments/simulatedLogs';
import { readLog, type Log } from '../logs/readLog';
import type { CaseRecord } from '../record/recordSchema';
import { joinLogs, placeLogs } from '../runs/alignLogs';
import { analyseLog } from '../runs/analyseLog';
import { partIdsOf, withPartIds } from '../runs/partIds';
import { steadyRunOf } from '../runs/steadyRunOf';
import { normalQuantile } from '../uncertainty/normal';
import { planDraws } from '../uncertainty/drawPlan';
import { roomForDraws, runDraws, COLUMNS } from '../uncertainty/draws';
import { quantileOfSorted } from '../uncertainty/quantile';
import { randomStream } from '../uncertainty/random';

/** One machine of the study: what was true, and the band that was foretold of it after so many runs. */
export interface StudiedMachine {
  trueW: number;
  /** By how many runs were made: none, one, three. */
  bands: { runs: number; low: number; high: number }[];
}

/** Level at which no run was made. */
export const STUDY_CAP = 38;
const RUNS_MADE = [0, 1, 3] as const;
const DRAWS = 400;
/** How long a reviewer waits, s. */
const LOAD_S = 1800;
const BACKGROUND_DBA = 19;

/** The runs that a reviewer makes one after the other: both dies; CPU alone; both, quieter. */
const PLAN: readonly Omit<SimulatedRunOptions, 'seed'>[] = [
  { cap: 'full' },
  { cap: 'full', gpuLoadW: 0 },
  { cap: 41 },
];

/**
 * One machine of a blind study: its figures are drawn from what the record leaves open, and hidden; simulated instruments log its
 * runs, the program reads the logs, finds what was sustained, fits, and foretells the watts at a level that was not run.
 *
 * @param record as a reviewer recorded it
 * @param seed of all that is drawn
 * @param counts of runs after which the watts are foretold
 */
export function studyMachine(
  record: CaseRecord,
  seed: number,
  counts: readonly number[] = RUNS_MADE,
): StudiedMachine {
  const open = openCase({ record });
  const parameters = multipliersOf(open);
  const next = randomStream(seed);
  const values = valuesAt(
    parameters,
    parameters.map(() => normalQuantile(next())),
  );
  const truth = openCase({ record, overrides: values });
  const [trueW] = sustainedTogether(truth, [STUDY_CAP]);
  const before = bandBefore(record);
  const runs = PLAN.slice(0, Math.max(...counts)).map((plan, r) => {
    const logs = simulatedLogs(truth, {
      ...plan,
      loadS: LOAD_S,
      seed: 1000 * seed + r,
      backgroundDbA: BACKGROUND_DBA,
    });
    return steadyRunFrom(logs, record, `run-${r}`);
  });
  const bands = counts.map((count) => {
    const read = runs.slice(0, count).filter((r) => r !== null);
    // a run that never settled teaches nothing
    if (read.length === 0) return { runs: count, ...before };
    const fit = fitMultipliers(open, read, { draws: DRAWS, suspicions: false });
    const [held] = sustainedAfterFit(open, fit, [STUDY_CAP]);
    return { runs: count, low: held!.low, high: held!.high };
  });
  return { trueW: trueW!, bands };
}

/** How many lie inside their band, and the median of half its width over its middle, after so many runs. */
export function studyResult(
  machines: readonly StudiedMachine[],
  runs: number,
): { inside: number; halfBand: number } {
  const own = machines.map(({ trueW, bands }) => ({
    trueW,
    ...bands.find((b) => b.runs === runs)!,
  }));
  const halves = own.map(({ low, high }) => (high - low) / (high + low)).sort((a, b) => a - b);
  return {
    inside: own.filter(({ trueW, low, high }) => trueW >= low && trueW <= high).length,
    halfBand: quantileOfSorted(Float64Array.from(halves), 0.5),
  };
}

/** docs/study.md, by kind of machine and over all. */
export function studyDocument(
  kinds: readonly { name: string; machines: readonly StudiedMachine[] }[],
): string {
  const all = { name: 'all', machines: kinds.flatMap((k) => k.machines) };
  const percent = (x: number) => `±${(100 * x).toFixed(1)} %`;
  const cells = (machines: readonly StudiedMachine[]) =>
    RUNS_MADE.map((runs) => {
      const { inside, halfBand } = studyResult(machines, runs);
      return `${inside} of ${machines.length}, ${percent(halfBand)}`;
    });
  return [
    '# Blind study',
    '',
    'Made by `npm run study`. Each machine’s true figures are drawn from what its record leaves open, and hidden. Simulated instruments',
    `log its runs (both dies at full speed; CPU alone; both at 41 dB(A); ${LOAD_S / 60} minutes each); the program alone reads the logs, finds what was`,
    `sustained, fits, and foretells the watts of both dies at ${STUDY_CAP} dB(A), which no run was made at. Inside: the true watts lie in the 90 % band`,
    '(of 40 machines 33 to 39 are to be expected); then the median of half that band, as a share of its middle.',
    '',
    '| record | before any run | after one run | after three runs |',
    '|---|---|---|---|',
    ...[...kinds, all].map((k) => `| ${[k.name, ...cells(k.machines)].join(' | ')} |`),
    '',
    '## Machines',
    '',
    '| record | true W | before any run | after one run | after three runs |',
    '|---|---|---|---|---|',
    ...kinds.flatMap(({ name, machines }) =>
      machines.map(({ trueW, bands }) => {
        const shown = bands.map(
          (b) =>
            `${b.low.toFixed(0)}–${b.high.toFixed(0)}${trueW < b.low || trueW > b.high ? ' (outside)' : ''}`,
        );
        return `| ${[name, trueW.toFixed(1), ...shown].join(' | ')} |`;
      }),
    ),
    '',
  ].join('\n');
}

function bandBefore(record: CaseRecord): { low: number; high: number } {
  const plan = planDraws(openCase({ record }), {
    caps: [STUDY_CAP],
    draws: DRAWS,
    togetherOnly: true,
  });
  const drawn = roomForDraws(plan, DRAWS);
  runDraws(plan, 0, DRAWS, drawn);
  const both = plan.rays[2] !== null ? 2 : plan.rays[0] ? 0 : 1;
  const watts = Float64Array.from(
    { length: DRAWS },
    (_, i) => drawn.watts[i * COLUMNS + both]!,
  ).sort();
  return { low: quantileOfSorted(watts, 0.05), high: quantileOfSorted(watts, 0.95) };
}

const rows = (text: string) =>
  text
    .trimEnd()
    .split('\n')
    .map((l) => l.split(','));

/** What a reviewer gets out of the logs of one run; null where it never settled. */
function steadyRunFrom(
  { load, level }: { load: string; level: string },
  record: CaseRecord,
  id: string,
): SteadyRun | null {
  const logs = [load, level].map((text) => (readLog(rows(text), {}, true) as { log: Log }).log);
  const places = placeLogs(logs);
  if (!Array.isArray(places)) return null;
  const open = openCase({ record });
  const joined = joinLogs(logs, places);
  const log = { ...joined, columns: withPartIds(joined.columns, partIdsOf(open)) };
  const { steady } = analyseLog(log, { backgroundDbA: BACKGROUND_DBA });
  const last = steady[steady.length - 1];
  if (!last) return null;
  const run = steadyRunOf({ id }, last, open);
  return 'message' in run ? null : run;
}
