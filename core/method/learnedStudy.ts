import { fitMultipliers } from '../calibration/fitMultipliers';
import { multipliersOf, valuesAt } from '../calibration/multipliers';
import { READING_ERROR, type SteadyRun } from '../calibration/steadyRun';
import { openCase } from '../case/openCase';
import { sustainedTogether } from '../case/sustainedTogether';
import { factorEvidence, learnedKey } from '../learned/factorEvidence';
import type { LeftOut } from '../learned/leaveOneOut';
import { foretelling, offeredBy } from '../learned/learnFrom';
import type { Foretelling } from '../library/learnedAnswer';
import { BETWEEN_SHARE, fitPopulation } from '../learned/populationFit';
import type { CaseRecord } from '../record/recordSchema';
import { normalQuantile } from '../uncertainty/normal';
import { randomStream } from '../uncertainty/random';
import { runsToMake, type Read } from './evidence';
import { STUDY_CAP } from './study';

const RUNS = 3;

/** A machine of a laboratory: what was true, and what was foretold of it as built in and by what the others taught. */
export interface LearnedMachineStudied extends LeftOut {
  trueW: number;
}

/**
 * A laboratory whose machines share how their parts are built in: factors lie about a middle of the laboratory's own, which nobody knows.
 * Each machine is run three times; each is then foretold by what the others taught, as if it had not been measured.
 *
 * @param records as recorded; each machine's truth is drawn and hidden
 * @param seed of all that is drawn
 * @param read what each run reads beside junctions and level
 */
export function studyLaboratory(
  records: readonly CaseRecord[],
  seed: number,
  read: Read,
  progress: (words: string) => void = () => undefined,
): LearnedMachineStudied[] {
  const next = randomStream(seed);
  const normal = () => normalQuantile(next());
  const shared = new Map<string, { mu: number; tau: number }>();
  const sharedOf = (key: string) => {
    const known = shared.get(key) ?? {
      mu: Math.sqrt(1 - BETWEEN_SHARE) * normal(),
      tau: Math.sqrt(BETWEEN_SHARE),
    };
    shared.set(key, known);
    return known;
  };
  const machines = records.map((record, i) => {
    const open = openCase({ record });
    const parameters = multipliersOf(open);
    const z = parameters.map(({ name }) => {
      const key = learnedKey(name);
      const { mu, tau } = key ? sharedOf(key) : { mu: 0, tau: 1 };
      return mu + tau * normal();
    });
    const truth = openCase({ record, overrides: valuesAt(parameters, z) });
    const [trueW] = sustainedTogether(truth, [STUDY_CAP]);
    const runs = runsToMake(truth, RUNS, read).map((run) => readWithError(run, normal));
    const evidence = factorEvidence(fitMultipliers(open, runs, { suspicions: false }));
    progress(`machine ${i + 1} of ${records.length} fitted`);
    return { trueW: trueW!, request: { record }, evidence, cap: STUDY_CAP };
  });
  const population = fitPopulation(machines.map((m) => m.evidence));
  const { machines: left } = offeredBy(population, machines, [STUDY_CAP], {
    progress: (done, of) => progress(`machine ${done} of ${of} foretold`),
  });
  return left.map((l, i) => ({ ...l, trueW: machines[i]!.trueW }));
}

/** Readings as instruments give them: each off by its own ±. */
function readWithError(run: SteadyRun, normal: () => number): SteadyRun {
  const read = (of: Readonly<Record<string, number>>, error: number) =>
    Object.fromEntries(Object.entries(of).map(([id, x]) => [id, x + error * normal()]));
  return {
    ...run,
    junctionC: read(run.junctionC ?? {}, READING_ERROR.junction),
    exhaustC: read(run.exhaustC ?? {}, READING_ERROR.exhaust),
    levelDbA: run.levelDbA! + READING_ERROR.level * normal(),
    ...(run.skinC === undefined ? {} : { skinC: run.skinC + READING_ERROR.skin * normal() }),
  };
}

/** How well the truth was foretold. */
export const learnedResult = (
  machines: readonly LearnedMachineStudied[],
  which: 'before' | 'after',
): Foretelling => foretelling(machines.map((m) => ({ measuredW: m.trueW, band: m[which] })));

/** What was read in the runs of a laboratory. */
export const STUDIED_READINGS: readonly { words: string; read: Read }[] = [
  { words: 'junctions, level and the air that leaves', read: ['exhaust'] },
  { words: 'and the warmest skin', read: ['exhaust', 'skin'] },
];

const percent = (x: number) => `${(100 * x).toFixed(0)} %`;

/** What laboratories learned, as a Markdown document. */
export function learnedStudyDocument(
  laboratories: readonly {
    reading: number;
    seed: number;
    machines: readonly LearnedMachineStudied[];
  }[],
): string {
  const cells = (machines: readonly LearnedMachineStudied[]) =>
    (['before', 'after'] as const).map((which) => {
      const { offShare, halfBand, inside } = learnedResult(machines, which);
      return `${percent(offShare)}, ±${percent(halfBand)}, ${inside} of ${machines.length}`;
    });
  return [
    '# What a laboratory’s machines teach about the next one',
    '',
    'Made by `npm run study:learned`. Each simulated laboratory has its own way in which parts are built in and behave: the factors of its',
    `machines lie about a middle that nobody knows, ${percent(BETWEEN_SHARE)} of the variance of each built-in default between its machines and`,
    'the rest between laboratories; sizes are each machine’s own. Half of the machines have two dies, half one. Each is run three times, read',
    'with the errors of instruments, and fitted; then it is foretold at 38 dB(A) from what the other machines taught, as if it had never been',
    'run. In each cell: how far the median typically is from the true watts (root mean square), half the 5–95 % band over its middle, machines',
    'inside the band. Where no skin is read, the board may lead more heat to the shell than the runs can tell from fins that carry more, and',
    'what the shell does then stays as open as before: one thermometer on the warmest skin of each run settles it.',
    '',
    '| what was read | laboratory | as built in | by what the others taught |',
    '|---|---|---|---|',
    ...STUDIED_READINGS.flatMap(({ words }, reading) => {
      const own = laboratories.filter((l) => l.reading === reading);
      if (own.length === 0) return [];
      const rows = own.map((l) => [words, String(l.seed), ...cells(l.machines)]);
      rows.push([words, 'all', ...cells(own.flatMap((l) => l.machines))]);
      return rows.map((r) => `| ${r.join(' | ')} |`);
    }),
    '',
  ].join('\n');
}
