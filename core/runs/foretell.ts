import { possibleValues } from '../calibration/possibleValues';
import { predictorOf } from '../calibration/predictReadings';
import { readingsOf, type SteadyRun } from '../calibration/steadyRun';
import { openCase, type CaseRequest, type OpenCase } from '../case/openCase';
import type { Cap } from '../envelope/fanStates';
import { estimateWithDraws } from '../uncertainty/estimateWithDraws';
import { IDLE_W } from './idleWatts';
import { quantileOfSorted } from '../uncertainty/quantile';
import { SHOWN_DRAWS, SHOWN_SEED } from '../uncertainty/wattsBand';
import type { LOADED_DIES } from './runDocument';

/** Median and 5–95 %. */
export type Foretold = { p05: number; p50: number; p95: number };

/** What a run will show if the estimate is right. */
export interface RunForetold {
  cap: Cap;
  on: (typeof LOADED_DIES)[number];
  /** Watts of the loaded dies, as the setting lets them. */
  watts: Foretold;
  /** How they are split at the median. */
  cpuW: number;
  gpuW: number;
  levelDbA: Foretold | null;
  /** By die, at the median watts. */
  junctionC: Record<string, Foretold>;
}

/** What an idle machine's dies draw lies within this share of the usual (common practice, no source). */
const IDLE_SPREAD = 1;
const READ_DRAWS = 200;

/**
 * Foretells a run before it is made: watts of the loaded dies in the setting, level and junctions, each with its band.
 *
 * @param request record, setting, laboratory, calibration
 * @param on what will be loaded
 * @param cap the fans stay at or below it; `full` leaves them to the firmware
 * @returns null where the machine has no such die
 */
export function foretell(
  request: CaseRequest,
  on: RunForetold['on'],
  cap: Cap,
): RunForetold | null {
  const open = openCase(request);
  const { estimate } = estimateWithDraws(open, {
    caps: [cap],
    draws: SHOWN_DRAWS,
    seed: SHOWN_SEED,
    envelopes: false,
  });
  const told = estimate.caps[0]!.configured;
  const idle = {
    cpuW: open.model.hasCpu ? IDLE_W.cpu : 0,
    gpuW: open.model.hasGpu ? IDLE_W.gpu : 0,
  };
  const readout =
    on === 'cpu'
      ? told.cpuAlone
      : on === 'gpu'
        ? told.gpuAlone
        : on === 'both'
          ? told.together
          : null;
  if (on !== 'none' && !readout) return null;
  const watts = readout
    ? { p05: readout.p05 ?? NaN, p50: readout.p50 ?? readout.watts, p95: readout.p95 ?? NaN }
    : {
        p05: (1 - IDLE_SPREAD) * (idle.cpuW + idle.gpuW),
        p50: idle.cpuW + idle.gpuW,
        p95: (1 + IDLE_SPREAD) * (idle.cpuW + idle.gpuW),
      };
  if (!Number.isFinite(watts.p05 + watts.p95)) return null;
  const split = () => {
    if (on === 'cpu') return { cpuW: watts.p50, gpuW: idle.gpuW };
    if (on === 'gpu') return { cpuW: idle.cpuW, gpuW: watts.p50 };
    if (on === 'none') return idle;
    const { cpuWatts, gpuWatts } = told.together;
    const sum = cpuWatts + gpuWatts || 1;
    return { cpuW: (watts.p50 * cpuWatts) / sum, gpuW: (watts.p50 * gpuWatts) / sum };
  };
  const { cpuW, gpuW } = split();
  const rpm = Object.fromEntries(
    open.data.fans.map((f) => [f.id, readout?.fans.find((x) => x.id === f.id)?.rpm ?? 0]),
  );
  const read = readingsForetold(open, {
    id: 'planned',
    ambientC: open.data.room.temperatureC,
    rpm,
    cpuW,
    gpuW,
    junctionC: Object.fromEntries(open.data.dies.map((d) => [d.id, 0])),
    ...(open.data.fans.some((f) => rpm[f.id]! > 0) ? { levelDbA: 0 } : {}),
  });
  const level = read.find((r) => r.kind === 'level')?.band ?? null;
  return {
    cap,
    on,
    watts,
    cpuW,
    gpuW,
    levelDbA: level,
    junctionC: Object.fromEntries(
      read.filter((r) => r.kind === 'junction').map((r) => [r.part, r.band]),
    ),
  };
}

/** What a steady run would read, over everything that is still possible: median and 5–95 % of each reading. */
function readingsForetold(open: OpenCase, run: SteadyRun) {
  const readings = readingsOf([run]);
  const sets = possibleValues(open, READ_DRAWS);
  const columns = readings.map(() => new Float64Array(sets.length));
  // what a calibration moved is given by each set, not by the fit
  const plain = openCase({ ...open.request, calibration: null });
  const predict = predictorOf(plain, [run], readings);
  sets.forEach((values, k) => {
    const told = predict(values);
    columns.forEach((c, i) => (c[k] = told[i]!));
  });
  return readings.map(({ kind, part }, i) => {
    const own = columns[i]!.sort();
    const at = (p: number) => quantileOfSorted(own, p);
    return { kind, part, band: { p05: at(0.05), p50: at(0.5), p95: at(0.95) } };
  });
}
