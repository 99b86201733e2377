import { settleAt } from '../envelope/pointReadout';
import { buildModel } from '../network/machineModel';
import type { MachineModel } from '../network/networkModel';
import { createState, exhaustC, fanPower, junctionC, nodeC } from '../network/steadyState';
import type { OpenCase } from '../case/openCase';
import { resolveCase } from '../record/resolveCase';
import { machineLevelDbA } from '../sound/machineLevel';
import { ADAPTER_EFFICIENCY, POWER_GAIN } from './multipliers';
import type { Reading, SteadyRun } from './steadyRun';

/** A hundredth of what a thermometer tells. */
const STILL_K = 1e-3;
const FLOW_TOLERANCE = 1e-5;

/** A set of runs whose readings are foretold over and over. */
export interface Predictor {
  /** Foretells every reading at given values of multipliers, by path. */
  (values: ReadonlyMap<string, number>): Float64Array;
}

/**
 * Prepares to foretell readings: the machine as the values make it, settled at each run's watts, speeds and room.
 *
 * @param open the case
 * @param runs the runs; watts are taken times the power gain
 * @param readings what is to be foretold, by run and part
 * @throws Error where a reading names a die or stack that the record does not have
 */
export function predictorOf(
  { record, labDefaults: lab, model: first, request }: OpenCase,
  runs: readonly SteadyRun[],
  readings: readonly Reading[],
): Predictor {
  const { overrides } = request;
  const place = readings.map((r) => placeOf(first, r));
  const rpms = runs.map((r) => first.data.fans.map((f) => r.rpm[f.id] ?? 0));
  const states = runs.map(() => {
    const state = createState(first);
    state.flows.tolerance = FLOW_TOLERANCE;
    return state;
  });
  return (values) => {
    const all = overrides ? new Map([...values, ...overrides]) : values;
    const data = resolveCase(record, all, { lab, silent: true });
    const whole = buildModel(data, first);
    const gain = values.get(POWER_GAIN) ?? 1;
    const efficiency = values.get(ADAPTER_EFFICIENCY) ?? 0.88;
    const out = new Float64Array(readings.length);
    runs.forEach((run, k) => {
      const here: MachineModel = {
        ...whole,
        data: { ...data, room: { ...data.room, temperatureC: run.ambientC } },
      };
      const cpuW = gain * run.cpuW;
      const gpuW = gain * run.gpuW;
      const state = settleAt(here, rpms[k]!, cpuW, gpuW, states[k], STILL_K);
      readings.forEach((r, i) => {
        if (r.run !== k) return;
        out[i] =
          r.kind === 'junction'
            ? junctionC(here, state, place[i]!, cpuW, gpuW)
            : r.kind === 'exhaust'
              ? exhaustC(here, state, place[i]!, cpuW, gpuW)
              : r.kind === 'skin'
                ? Math.max(...here.skinNode.map((n) => nodeC(here, state, n, cpuW, gpuW)))
                : r.kind === 'level'
                  ? (machineLevelDbA(data, rpms[k]!) ?? 0)
                  : (cpuW * here.drawPerCpuW +
                      gpuW * here.drawPerGpuW +
                      data.power.restW +
                      fanPower(here, rpms[k]!)) /
                    efficiency;
      });
    });
    return out;
  };
}

function placeOf({ data }: MachineModel, r: Reading): number {
  const parts = r.kind === 'junction' ? data.dies : r.kind === 'exhaust' ? data.stacks : null;
  if (!parts) return 0;
  const at = parts.findIndex((p) => p.id === r.part);
  if (at < 0) throw new Error(`there is no part called “${r.part}”`);
  return at;
}
