import type { MachineModel } from '../network/networkModel';
import { junctionC, moveConditions, solveInto, type LinearState } from '../network/steadyState';
import { machineLevelDbA } from '../sound/machineLevel';

/** A steady run that may be made: both dies loaded, fans at full speed. */
export interface RunToMake {
  cpuW: number;
  gpuW: number;
}

/** Share of what full speed carries at which a run is made: what settles must not throttle. */
const LOAD_SHARE = 0.85;
/** Properties are taken at the run's own temperatures after so many solves. */
const ROUNDS = 2;

/** The run that a reviewer would make of a machine that carries these watts at full speed. */
export const runAt = (cpuW: number, gpuW: number): RunToMake => ({
  cpuW: LOAD_SHARE * cpuW,
  gpuW: LOAD_SHARE * gpuW,
});

/** How many numbers a run reads: each junction, then the level. */
export const runReadings = (model: MachineModel): number => model.data.dies.length + 1;

/**
 * What a run would read of one draw: the junctions of all dies, °C, and the level, dB(A).
 *
 * @param model of the draw
 * @param run what is loaded
 * @param state fans on; overwritten
 * @param out receives the numbers from `at` on
 */
export function readRun(
  model: MachineModel,
  run: RunToMake,
  state: LinearState,
  out: Float64Array,
  at: number,
): void {
  const { data } = model;
  const rpms = data.fans.map((f) => f.maxRpm);
  let rpmSum = 0;
  for (let i = 0; i < rpms.length; i++) rpmSum += rpms[i]!;
  // what was solved last may be this draw at full speed already, at other watts
  const known = state.solved && state.flows.rpmSum === rpmSum;
  for (let k = known ? 1 : 0; k < ROUNDS; k++) {
    if (k > 0) moveConditions(model, state, run.cpuW, run.gpuW);
    solveInto(model, rpms, state);
  }
  for (let i = 0; i < data.dies.length; i++) {
    out[at + i] = junctionC(model, state, i, run.cpuW, run.gpuW);
  }
  out[at + data.dies.length] = machineLevelDbA(data, rpms) ?? 0;
}
