import type { OpenCase } from '../case/openCase';
import { pipeReadouts, settleAt } from '../envelope/pointReadout';
import { fillModel } from '../network/fillModel';
import { buildModel } from '../network/machineModel';
import type { MachineModel } from '../network/networkModel';
import {
  createState,
  exhaustC,
  fanPower,
  junctionC,
  nodeC,
  type LinearState,
} from '../network/steadyState';
import { resolveBy } from '../record/resolveCase';
import { createResolver, type ValuesInOrder } from '../record/resolver';
import { machineLevelDbA } from '../sound/machineLevel';
import { ADAPTER_EFFICIENCY, USUAL_EFFICIENCY, type Multiplier } from './multipliers';
import type { Reading, ReadingKind, SteadyRun } from './steadyRun';

/** A hundredth of what a thermometer tells. */
const STILL_K = 1e-3;
const FLOW_TOLERANCE = 1e-5;

/** A set of runs whose readings are foretold over and over. */
export interface Predictor {
  /** Foretells every reading at given values of multipliers, by path; the array is the same each time. */
  (values: ReadonlyMap<string, number>): Float64Array;
  /** The same at places of multipliers in their priors, without looking each figure up. */
  of(parameters: readonly Multiplier[]): (z: ArrayLike<number>) => Float64Array;
}

/**
 * Prepares to foretell readings: the machine as the values make it, settled at each run's watts, speeds and room.
 *
 * @param open the case; what it overrides stands over the values
 * @param runs the runs; watts as reported
 * @param readings what is to be foretold, by run and part
 * @throws Error where a reading names a part that the record does not have
 */
export function predictorOf(
  { record, labDefaults: lab, model: first, data: { order, inputs }, request }: OpenCase,
  runs: readonly SteadyRun[],
  readings: readonly Reading[],
): Predictor {
  const { overrides } = request;
  const part = readings.map((r) => partOf(first, r));
  const byRun = runs.map((_, k) => readings.flatMap((r, i) => (r.run === k ? [i] : [])));
  const rpms = runs.map((r) => first.data.fans.map((f) => r.rpm[f.id] ?? 0));
  const states = runs.map(() => {
    const state = createState(first);
    state.flows.tolerance = FLOW_TOLERANCE;
    return state;
  });
  const places = new Map<string, number[]>();
  order.forEach((path, k) => {
    const at = places.get(path);
    if (at) at.push(k);
    else places.set(path, [k]);
  });
  const figures: ValuesInOrder = { drawn: new Float64Array(order.length).fill(NaN), next: 0 };
  const set = (path: string, value: number) => {
    for (const k of places.get(path) ?? []) figures.drawn[k] = value;
  };
  const given = inputs.flatMap(({ path, key }) => {
    const value = overrides?.get(path) ?? (key === null ? undefined : overrides?.get(key));
    return value === undefined ? [] : [[path, value] as const];
  });
  const out = new Float64Array(readings.length);
  const resolver = createResolver(figures, lab, true);
  const whole = buildModel(first.data, first);
  const solve = (efficiency: number) => {
    for (const [path, value] of given) set(path, value);
    figures.next = 0;
    const data = resolveBy(record, resolver);
    fillModel(whole, data);
    runs.forEach((run, k) => {
      const room = { ...data.room, temperatureC: run.ambientC };
      const model: MachineModel = { ...whole, data: { ...data, room } };
      const state = settleAt(model, rpms[k]!, run.cpuW, run.gpuW, states[k], STILL_K);
      for (const i of byRun[k]!) {
        const { kind } = readings[i]!;
        out[i] = READ[kind]({ model, state, rpms: rpms[k]!, run, efficiency }, part[i]!);
      }
    });
    return out;
  };
  const predict = (values: ReadonlyMap<string, number>) => {
    for (const [path, value] of values) set(path, value);
    return solve(values.get(ADAPTER_EFFICIENCY) ?? USUAL_EFFICIENCY);
  };
  return Object.assign(predict, {
    of: (parameters: readonly Multiplier[]) => {
      const found = parameters.map((p) =>
        p.figures.map((f) => ({ at: f.at, places: places.get(f.path) ?? [] })),
      );
      const bench = parameters.findIndex((p) => p.name === ADAPTER_EFFICIENCY);
      return (z: ArrayLike<number>) => {
        for (let i = 0; i < found.length; i++) {
          for (const { at, places: own } of found[i]!) {
            const value = at(z[i]!);
            for (const k of own) figures.drawn[k] = value;
          }
        }
        return solve(bench < 0 ? USUAL_EFFICIENCY : parameters[bench]!.figures[0]!.at(z[bench]!));
      };
    },
  });
}

/** A run settled on a machine. */
interface Settled {
  model: MachineModel;
  state: LinearState;
  rpms: readonly number[];
  run: SteadyRun;
  efficiency: number;
}

const atNode = ({ model, state, run }: Settled, node: number) =>
  nodeC(model, state, node, run.cpuW, run.gpuW);

/** What each kind of instrument would show. */
const READ: Readonly<Record<ReadingKind, (at: Settled, part: number) => number>> = {
  junction: ({ model, state, run }, die) => junctionC(model, state, die, run.cpuW, run.gpuW),
  exhaust: ({ model, state, run }, stack) => exhaustC(model, state, stack, run.cpuW, run.gpuW),
  fin: (at, stack) =>
    at.model.segments[stack]!.reduce((sum, s) => sum + s.share * atNode(at, s.node), 0),
  pipe: (at, pipe) => atNode(at, at.model.pipeNode[pipe]!),
  skin: (at) => Math.max(...at.model.skinNode.map((node) => atNode(at, node))),
  level: ({ model, rpms }) => machineLevelDbA(model.data, rpms) ?? 0,
  wall: ({ model, run, rpms, efficiency }) =>
    (run.cpuW * model.drawPerCpuW +
      run.gpuW * model.drawPerGpuW +
      model.data.power.restW +
      fanPower(model, rpms)) /
    efficiency,
  flow: ({ state }, stack) => state.flows.stackM3s[stack]! * 1e3,
  freeDelivery: ({ model, rpms }, fan) => {
    const { flowM3s, referenceRpm } = model.air.curves[fan]!;
    return ((flowM3s[flowM3s.length - 1]! * rpms[fan]!) / referenceRpm) * 1e3;
  },
  held: ({ model, state, run }) =>
    pipeReadouts(model, state, run.cpuW, run.gpuW).reduce(
      (most, p) => Math.max(most, p.shareOfLimit),
      0,
    ),
};

function partOf({ data }: MachineModel, { kind, part }: Reading): number {
  const parts =
    kind === 'junction'
      ? data.dies
      : kind === 'exhaust' || kind === 'fin' || kind === 'flow'
        ? data.stacks
        : kind === 'pipe'
          ? data.pipes
          : kind === 'freeDelivery'
            ? data.fans
            : null;
  if (!parts) return 0;
  const at = parts.findIndex((p) => p.id === part);
  if (at < 0) throw new Error(`there is no part called “${part}”`);
  return at;
}
