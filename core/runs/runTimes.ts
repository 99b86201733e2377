import type { OpenCase } from '../case/openCase';
import type { Cap } from '../envelope/fanStates';
import { simulateFirmware, type Simulation } from '../transient/simulateFirmware';
import type { RunForetold } from './foretell';
import { IDLE_W } from './idleWatts';

const SIMULATED_S = 3000;
const STEP_S = 1;
const COOLING_S = 2400;
/** Nearer than this to where they end junctions, K, and watts have settled, or nearer than this share. */
const NEAR_K = 0.7;
const NEAR_W = 0.5;
const NEAR_SHARE = 0.01;
/** A machine this near to where it idles has cooled down, K (common practice, no source). */
const COOL_K = 3;

const loadsOf = (on: RunForetold['on']) => ({
  ...(on === 'gpu' || on === 'none' ? { cpuLoadW: IDLE_W.cpu } : {}),
  ...(on === 'cpu' || on === 'none' ? { gpuLoadW: IDLE_W.gpu } : {}),
});

/** When the junctions stand where they end, as the firmware would run it, s. */
export function settledAfterS(open: OpenCase, on: RunForetold['on'], cap: Cap): number {
  const run = simulateFirmware(open, {
    cap,
    stepS: STEP_S,
    durationS: SIMULATED_S,
    ...loadsOf(on),
  });
  let last = 0;
  const leavesEnd = (values: Float64Array, near: number) => {
    const end = meanOfEnd(values);
    let k = run.steps - 1;
    while (k > last && Math.abs(values[k]! - end) <= Math.max(near, NEAR_SHARE * end)) k--;
    last = Math.max(last, k);
  };
  for (const { temperatureC } of run.junctionC) leavesEnd(temperatureC, NEAR_K);
  // a die held at its limit gives watts away for as long as the rest warms up
  leavesEnd(run.cpuW, NEAR_W);
  leavesEnd(run.gpuW, NEAR_W);
  return Math.min(SIMULATED_S, (last + 1) * STEP_S);
}

/** Firmware goes up and down a little for ever. */
function meanOfEnd(values: Float64Array): number {
  const end = values.subarray(values.length - 120);
  return end.reduce((a, b) => a + b, 0) / end.length;
}

/**
 * How long a machine takes to come down to where it idles after a load, s.
 *
 * @param open the case
 * @param on what was loaded
 * @param cap what the fans were held at
 */
export function coolsDownInS(open: OpenCase, on: RunForetold['on'], cap: Cap): number {
  if (on === 'none') return 0;
  const loadS = 600;
  const loaded = loadsOf(on);
  const run = simulateFirmware(open, {
    cap,
    stepS: STEP_S,
    durationS: loadS + COOLING_S,
    loadAt: (atS) =>
      atS < loadS
        ? { cpuW: loaded.cpuLoadW ?? Infinity, gpuW: loaded.gpuLoadW ?? Infinity }
        : { cpuW: IDLE_W.cpu, gpuW: IDLE_W.gpu },
  });
  const from = loadS / STEP_S;
  return (warmUntil(run, from) - from) * STEP_S;
}

/** The last step at which a junction or the skin is still warmer than where it ends. */
function warmUntil(run: Simulation, from: number): number {
  let last = from;
  for (const values of [...run.junctionC.map((j) => j.temperatureC), run.skinC]) {
    const end = meanOfEnd(values);
    let k = run.steps - 1;
    while (k > last && values[k]! - end <= COOL_K) k--;
    last = Math.max(last, k);
  }
  return last;
}
