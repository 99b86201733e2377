import type { OpenCase } from '../case/openCase';
import { aloneRay } from '../case/setTogether';
import { controlGroups } from '../envelope/fanStates';
import { codeOf } from '../envelope/limitNames';
import { ADAPTER, FIRMWARE } from '../envelope/limitVisit';
import type { Ray } from '../envelope/limitTypes';
import type { MachineModel } from '../network/networkModel';
import { alikeSplits } from './centralSplits';
import { createRowCarry, type RowWatts, type RowWork } from './rowCarry';

/** What firmware and adapter leave of a row's watts along a ray, by cap. */
export interface ConfiguredRow {
  watts: Float64Array;
  held: Uint16Array;
  /**
   * @param model of the row
   * @param ray of the readout
   * @param bothLoaded where the firmware stops one die the other goes on alone
   * @param carried what the cooling carries along the ray
   * @param factor on what the cooling carries
   */
  set(model: MachineModel, ray: Ray, bothLoaded: boolean, carried: RowWatts, factor: number): void;
}

/** Watts from a start, and what stops there. */
interface Stop {
  watts: number;
  held: number;
}

/**
 * Cuts the watts of rows by firmware and adapter, as `setTogether` does for one case.
 *
 * @param open the case
 * @param duties of groups of fans controlled apart over the common duty that are best at the central values, by cap and readout
 * @param work as for `createRowCarry`
 */
export function createConfiguredRow(
  { config, model: central }: OpenCase,
  duties: readonly (readonly (readonly number[])[])[],
  work: RowWork,
): ConfiguredRow {
  const { cpuW, gpuW, adapterW } = config;
  const caps = duties.length;
  const watts = new Float64Array(caps);
  const held = new Uint16Array(caps);
  const further: RowWatts = {
    watts: new Float64Array(caps),
    held: new Uint16Array(caps),
    fanW: new Float64Array(caps),
  };
  const stop: Stop = { watts: 0, held: 0 };
  const groups = controlGroups(central.data).length;
  /** What the other die carries further where the firmware stops one. */
  const onAlone: ((model: MachineModel) => void)[] = [];
  const goOn = (die: number): ((model: MachineModel) => void) => {
    const known = onAlone[die];
    if (known) return known;
    const rays = [null, null, aloneRay(config, die === 0 ? 'cpu' : 'gpu')];
    const sets = duties.map((of) => (groups > 1 ? alikeSplits(of, rays, groups) : []));
    const out = [further, further, further];
    return (onAlone[die] = createRowCarry(central, rays, sets, null, work, out));
  };
  const cut = (at: number, code: number): void => {
    if (at >= stop.watts) return;
    stop.watts = Math.max(0, at);
    stop.held = code;
  };
  /** Firmware and adapter along a ray, from its start. */
  const cutAlong = (model: MachineModel, ray: Ray, fanW: number): void => {
    const fromCpuW = ray.fromCpuW ?? 0;
    const fromGpuW = ray.fromGpuW ?? 0;
    if (cpuW !== null && ray.cpu > 0) cut((cpuW - fromCpuW) / ray.cpu, codeOf(FIRMWARE, 0));
    if (gpuW !== null && ray.gpu > 0) cut((gpuW - fromGpuW) / ray.gpu, codeOf(FIRMWARE, 1));
    if (adapterW === null) return;
    const { drawPerCpuW, drawPerGpuW, data } = model;
    const left =
      adapterW - data.power.restW - fanW - drawPerCpuW * fromCpuW - drawPerGpuW * fromGpuW;
    cut(left / (drawPerCpuW * ray.cpu + drawPerGpuW * ray.gpu), codeOf(ADAPTER, 0));
  };
  return {
    watts,
    held,
    set(model, ray, bothLoaded, carried, factor) {
      let solvedFor = -1;
      for (let c = 0; c < caps; c++) {
        stop.watts = factor * carried.watts[c]!;
        stop.held = carried.held[c]!;
        cutAlong(model, ray, carried.fanW[c]!);
        watts[c] = stop.watts;
        held[c] = stop.held;
        const die =
          stop.held === codeOf(FIRMWARE, 0) ? 0 : stop.held === codeOf(FIRMWARE, 1) ? 1 : -1;
        if (!bothLoaded || die < 0) continue;
        const alone = aloneRay(config, die === 0 ? 'cpu' : 'gpu');
        const own = die === 0 ? cpuW! : gpuW!;
        const other = stop.watts - own;
        const otherLimitW = die === 0 ? gpuW : cpuW;
        if (otherLimitW !== null && other >= otherLimitW * (1 - 1e-9)) continue;
        if (solvedFor !== die) {
          goOn(die)(model);
          solvedFor = die;
        }
        stop.watts = factor * further.watts[c]!;
        stop.held = further.held[c]!;
        cutAlong(model, alone, further.fanW[c]!);
        if (stop.watts <= other) continue;
        watts[c] = own + stop.watts;
        held[c] = stop.held;
      }
    },
  };
}
