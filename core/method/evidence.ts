import { caseCalibration } from '../calibration/caseCalibration';
import { fitMultipliers } from '../calibration/fitMultipliers';
import { predictorOf } from '../calibration/predictReadings';
import { readingsOf, type Reading, type SteadyRun } from '../calibration/steadyRun';
import { openCase, type OpenCase } from '../case/openCase';
import { sustainedTogether } from '../case/sustainedTogether';
import type { Cap } from '../envelope/fanStates';
import type { CaseRecord } from '../record/recordSchema';
import { estimateWithDraws } from '../uncertainty/estimateWithDraws';
import { SHOWN_SEED } from '../uncertainty/wattsBand';

export const EVIDENCE_CAPS: readonly Cap[] = [36, 'full'];
const DRAWS = 400;
/** Share of what full speed carries at which runs are made: what settles must not throttle. */
const LOAD = 0.85;
const SLOWER = 0.65;

/** What a run reads beside junctions and level. */
export type Read = readonly ('exhaust' | 'surfaces' | 'wall' | 'skin' | 'flow')[];

/** What is done at the bench, in the order of the table; each reads junctions and level. */
export const ACTS: readonly { words: string; runs: number; read: Read }[] = [
  { words: 'nothing', runs: 0, read: [] },
  { words: 'one run, both loaded, full speed', runs: 1, read: [] },
  { words: 'and the air that leaves', runs: 1, read: ['exhaust'] },
  { words: 'and fin blocks and pipes', runs: 1, read: ['exhaust', 'surfaces'] },
  {
    words: 'and skin, wall and flow',
    runs: 1,
    read: ['exhaust', 'surfaces', 'skin', 'wall', 'flow'],
  },
  { words: 'a slower run beside it', runs: 2, read: [] },
  { words: 'three: and one die alone', runs: 3, read: [] },
  { words: 'five: and the other, and idle', runs: 5, read: [] },
];

/**
 * Half the 5–95 % band over the median, both dies together, after an act of the bench on a machine that is in the middle of
 * what its record allows, its readings without error.
 *
 * @param record the machine
 * @param act index into {@link ACTS}
 * @returns one per cap
 */
export function halfBandsAfter(record: CaseRecord, act: number): number[] {
  const open = openCase({ record });
  const { runs, read } = ACTS[act]!;
  const made = runsOf(open)
    .slice(0, runs)
    .map((run) => withReadings(open, run, read));
  const calibration =
    runs > 0 ? caseCalibration(fitMultipliers(open, made, { suspicions: false })) : null;
  const options = { draws: DRAWS, seed: SHOWN_SEED, caps: EVIDENCE_CAPS, envelopes: false };
  const { estimate } = estimateWithDraws(openCase({ record, calibration }), options);
  return estimate.caps.map(({ together: t }) => (t.p95! - t.p05!) / 2 / t.p50!);
}

/**
 * The runs a reviewer would make first, read without error on a machine in the middle of what its record allows.
 *
 * @param count 1 to 5
 * @param read what is read beside junctions and level
 */
export function runsToMake(open: OpenCase, count: number, read: Read = []): SteadyRun[] {
  return runsOf(open)
    .slice(0, count)
    .map((run) => withReadings(open, run, read));
}

/** Both dies loaded first, then what tells them apart. */
function runsOf({ data, model, ratio }: OpenCase): SteadyRun[] {
  const [watts] = sustainedTogether({ model, ratio }, ['full']);
  const cpuW = LOAD * watts! * ratio.cpu;
  const gpuW = LOAD * watts! * ratio.gpu;
  const rpm = (duty: number) =>
    Object.fromEntries(data.fans.map((f) => [f.id, Math.max(f.minRpm, duty * f.maxRpm)]));
  const run = (id: string, duty: number, cpu: number, gpu: number): SteadyRun => ({
    id,
    ambientC: data.room.temperatureC,
    rpm: rpm(duty),
    cpuW: cpu * cpuW,
    gpuW: gpu * gpuW,
  });
  return [
    run('both', 1, 1, 1),
    run('both, slower', SLOWER, 0.8, 0.8),
    run('cpu', 1, 1, model.hasGpu ? 0 : 0.5),
    run('gpu', 1, model.hasGpu ? 0 : 0.7, 1),
    run('idle', 0.5, 0.1, 0.1),
  ];
}

function withReadings(open: OpenCase, run: SteadyRun, read: Read): SteadyRun {
  const { dies, stacks, pipes } = open.data;
  const blank = (parts: readonly { id: string }[]) =>
    Object.fromEntries(parts.map((p) => [p.id, 1]));
  const plan: SteadyRun = {
    ...run,
    junctionC: blank(dies),
    levelDbA: 0,
    ...(read.includes('exhaust') ? { exhaustC: blank(stacks) } : {}),
    ...(read.includes('surfaces') ? { finC: blank(stacks), pipeC: blank(pipes) } : {}),
    ...(read.includes('skin') ? { skinC: 0 } : {}),
    ...(read.includes('wall') ? { wallW: 1 } : {}),
    ...(read.includes('flow') ? { exhaustFlowLps: blank(stacks) } : {}),
  };
  const readings = readingsOf([plan]);
  const values = predictorOf(open, [plan], readings)(new Map());
  const of = (kind: Reading['kind']) =>
    Object.fromEntries(readings.flatMap((r, i) => (r.kind === kind ? [[r.part, values[i]!]] : [])));
  const one = (kind: Reading['kind']) => of(kind)['']!;
  return {
    ...plan,
    junctionC: of('junction'),
    levelDbA: one('level'),
    ...(plan.exhaustC ? { exhaustC: of('exhaust') } : {}),
    ...(plan.finC ? { finC: of('fin'), pipeC: of('pipe') } : {}),
    ...(plan.skinC === undefined ? {} : { skinC: one('skin') }),
    ...(plan.wallW === undefined ? {} : { wallW: one('wall') }),
    ...(plan.exhaustFlowLps ? { exhaustFlowLps: of('flow') } : {}),
  };
}

const percent = (x: number) => `±${(100 * x).toFixed(0)} %`;

/** One cell of the table: at the caps in turn. */
export const evidenceCell = (halves: readonly number[]) => halves.map(percent).join(' / ');

/** What each act of the bench leaves of the bands of some records, as a Markdown document. */
export function evidenceDocument(records: readonly { name: string; record: CaseRecord }[]): string {
  return [
    '# Evidence',
    '',
    'What acts of the bench leave of the band: half of 5–95 % over the median, both dies together, at 36 dB(A) and at full speed.',
    'Each machine is in the middle of what its record allows, its readings are without error; a real one lies to one side, and',
    'its band is then a little wider or narrower. Junctions are read to 1 K, the level to 0.5 dB, exhaust air and surfaces to',
    '1.5 K, skin to 2 K, the wall to 1.5 %, flow to 10 % (common practice, no source). Made by `npm run docs:evidence`; a test',
    'makes some of it again.',
    '',
    `| after | ${records.map((r) => r.name).join(' | ')} |`,
    `|---|${records.map(() => '---|').join('')}`,
    ...ACTS.map(
      ({ words }, act) =>
        `| ${words} | ${records.map((r) => evidenceCell(halfBandsAfter(r.record, act))).join(' | ')} |`,
    ),
    '',
    'Where a band stops shrinking at 36 dB(A), the level at other speeds is what is missing: a second run at the cap itself, or',
    'a sweep over fan speed, settles it.',
    '',
  ].join('\n');
}
