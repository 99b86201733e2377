import { possibleValues } from '../calibration/possibleValues';
import { predictorOf } from '../calibration/predictReadings';
import { readingsOf, type SteadyRun } from '../calibration/steadyRun';
import type { CapEstimate } from '../case/answer';
import { estimate } from '../case/estimate';
import { capsOf } from '../case/laboratory';
import { openCase, type CaseRequest, type OpenCase } from '../case/openCase';
import { sustainedTogether } from '../case/sustainedTogether';
import type { Cap } from '../envelope/fanStates';
import { IDLE_W } from './idleWatts';
import { halfBandAfter, type ReadingColumn } from '../uncertainty/afterReadings';
import { sustainedBands } from '../uncertainty/sustainedBands';
import { SHOWN_DRAWS, SHOWN_SEED } from '../uncertainty/wattsBand';
import type { RunForetold } from './foretell';
import { coolsDownInS, settledAfterS } from './runTimes';

/** A run that is worth making. */
export interface PlannedRun {
  on: RunForetold['on'];
  cap: Cap;
  /** Where the fans cannot be set: held at these watts they turn about as fast. */
  cpuW: number;
  gpuW: number;
  /** From the start of the load until nothing moves any more, and with the window over which it is read. */
  settleS: number;
  lastsS: number;
  /** Until it idles again. */
  coolsS: number;
  /** Half the band of both dies at the cap in the middle: now, after this run alone, and after it beside the first one. */
  nowW: number;
  thenW: number;
  besideFirstW: number;
}

const DRAWS = 400;
/** Over which a settled run is read, s: five minutes (common practice, no source). */
const READ_S = 300;
/** What settles must not throttle: share of what is carried (common practice, no source). */
const LOAD_SHARE = 0.95;

/**
 * The runs that a machine's estimate would learn most from, each with what it would leave of the band: loads of one die, of both and
 * of none, at the fan states there are.
 *
 * @param request record, setting, laboratory; a calibration is what is known already
 * @returns the one that narrows most first
 */
export function planRuns(request: CaseRequest): PlannedRun[] {
  const open = openCase(request);
  const caps = capsOf(open.lab);
  const answer = estimate(open, { caps, envelopes: false });
  const numbers = answer.caps.filter((c) => typeof c.cap === 'number' && !c.note);
  const middle = numbers[Math.floor(numbers.length / 2)] ?? answer.caps[answer.caps.length - 1]!;
  const candidates = candidatesOf(open, answer.caps, numbers);
  const sets = possibleValues(open, DRAWS);
  const plain = openCase({ ...request, calibration: null });
  const output = Float64Array.from(
    sets,
    (overrides) =>
      sustainedTogether(openCase({ ...plain.request, overrides }), [middle.cap])[0] ?? 0,
  );
  // the band that is shown everywhere is that of other draws: what a run leaves is a share of it
  const [band] = sustainedBands(open, {
    caps: [middle.cap],
    draws: SHOWN_DRAWS,
    seed: SHOWN_SEED,
  });
  const nowW = 0.5 * (band!.p95 - band!.p05);
  const scale = nowW / Math.max(1e-9, halfBandAfter(output, []));
  const told = candidates.map(({ run, ...rest }) => {
    const columns = columnsOf(plain, run, sets);
    return { ...rest, run, columns, thenW: scale * halfBandAfter(output, columns) };
  });
  told.sort((a, b) => a.thenW - b.thenW);
  const [first] = told;
  return told.map(({ run, columns, on, cap, thenW }, k) => {
    const settleS = settledAfterS(open, on, cap);
    return {
      on,
      cap,
      cpuW: run.cpuW,
      gpuW: run.gpuW,
      settleS,
      lastsS: settleS + READ_S,
      coolsS: coolsDownInS(open, on, cap),
      nowW,
      thenW,
      besideFirstW:
        k === 0 ? thenW : scale * halfBandAfter(output, [...first!.columns, ...columns]),
    };
  });
}

interface Candidate {
  on: RunForetold['on'];
  cap: Cap;
  run: SteadyRun;
}

function candidatesOf(
  open: OpenCase,
  caps: readonly CapEstimate[],
  numbers: readonly CapEstimate[],
): Candidate[] {
  const full = caps[caps.length - 1]!;
  const quiet = numbers[0];
  const middle = numbers[Math.floor(numbers.length / 2)];
  const out: Candidate[] = [];
  const add = (on: RunForetold['on'], at: CapEstimate | undefined) => {
    const run = at && runOf(open, on, at);
    if (run && !out.some((c) => c.on === on && c.cap === at.cap))
      out.push({ on, cap: at.cap, run });
  };
  const { hasCpu, hasGpu } = open.model;
  if (hasCpu && hasGpu) {
    for (const at of [full, middle, quiet]) add('both', at);
    add('cpu', full);
    add('gpu', full);
  } else for (const at of [full, middle, quiet]) add(hasCpu ? 'cpu' : 'gpu', at);
  add('none', quiet ?? full);
  return out;
}

function runOf(open: OpenCase, on: RunForetold['on'], at: CapEstimate): SteadyRun | null {
  const { configured } = at;
  const readout =
    on === 'cpu' ? configured.cpuAlone : on === 'gpu' ? configured.gpuAlone : configured.together;
  if (!readout) return null;
  const idle = {
    cpu: open.model.hasCpu ? IDLE_W.cpu : 0,
    gpu: open.model.hasGpu ? IDLE_W.gpu : 0,
  };
  const { together } = configured;
  const load = {
    cpu: on === 'cpu' ? readout.watts : on === 'both' ? together.cpuWatts : 0,
    gpu: on === 'gpu' ? readout.watts : on === 'both' ? together.gpuWatts : 0,
  };
  return {
    id: 'planned',
    ambientC: open.data.room.temperatureC,
    rpm: Object.fromEntries(readout.fans.map((f) => [f.id, f.rpm])),
    cpuW: Math.max(idle.cpu, LOAD_SHARE * load.cpu),
    gpuW: Math.max(idle.gpu, LOAD_SHARE * load.gpu),
    junctionC: Object.fromEntries(open.data.dies.map((d) => [d.id, 0])),
    ...(readout.fans.some((f) => f.rpm > 0) ? { levelDbA: 0 } : {}),
  };
}

function columnsOf(
  plain: OpenCase,
  run: SteadyRun,
  sets: readonly ReadonlyMap<string, number>[],
): ReadingColumn[] {
  const readings = readingsOf([run]);
  const predict = predictorOf(plain, [run], readings);
  const columns = readings.map((r) => ({
    values: new Float64Array(sets.length),
    plusMinus: r.plusMinus,
  }));
  sets.forEach((values, k) => {
    const told = predict(values);
    columns.forEach((c, i) => (c.values[k] = told[i]!));
  });
  return columns;
}
