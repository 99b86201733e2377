import { emptyWater } from '../fluids/water';
import { waterFromTable } from '../fluids/waterTable';
import type { MachineModel } from '../network/networkModel';
import { nodeC, outletOf, type LinearState } from '../network/steadyState';
import { chamberCapillaryW } from '../pipes/chamberLimit';
import type { Configuration, Ray } from './limitTypes';
import {
  ADAPTER,
  CHAMBER,
  EXHAUST,
  FIRMWARE,
  JUNCTION,
  NO_FAILURE,
  SKIN,
  type Visit,
} from './limitVisit';

/** Junctions, skin and exhaust air. */
export function visitTemperatures(model: MachineModel, state: LinearState, visit: Visit): void {
  const { data } = model;
  const { base, perCpuW: cpu, perGpuW: gpu } = state;
  const ambientC = data.room.temperatureC;
  for (let i = 0; i < data.dies.length; i++) {
    const node = model.dieNode[i]!;
    visit(
      cpu[node]! + model.dieBeyondCpuKPerW[i]!,
      gpu[node]! + model.dieBeyondGpuKPerW[i]!,
      data.dies[i]!.maxJunctionC - ambientC - base[node]!,
      JUNCTION,
      i,
      NO_FAILURE,
    );
  }
  for (let i = 0; i < model.skinNode.length; i++) {
    const node = model.skinNode[i]!;
    visit(
      cpu[node]!,
      gpu[node]!,
      data.shell.skinLimitC - ambientC - base[node]!,
      SKIN,
      i,
      NO_FAILURE,
    );
  }
  for (let s = 0; s < data.stacks.length; s++) {
    if (!(state.effectiveness[s]! > 0)) continue;
    visit(
      outletOf(model, state, s, cpu),
      outletOf(model, state, s, gpu),
      data.shell.exhaustLimitC - ambientC - outletOf(model, state, s, base),
      EXHAUST,
      s,
      NO_FAILURE,
    );
  }
}

/** Firmware and adapter. */
export function visitConfigured(
  model: MachineModel,
  state: LinearState,
  config: Configuration | null,
  visit: Visit,
): void {
  if (!config) return;
  if (config.cpuW !== null) visit(1, 0, config.cpuW, FIRMWARE, 0, NO_FAILURE);
  if (config.gpuW !== null) visit(0, 1, config.gpuW, FIRMWARE, 1, NO_FAILURE);
  if (config.adapterW !== null) {
    const left = config.adapterW - model.data.power.restW - state.fanPowerW;
    visit(model.drawPerCpuW, model.drawPerGpuW, left, ADAPTER, 0, NO_FAILURE);
  }
}

/** Chambers under their dies. */
export function visitChambers(model: MachineModel, state: LinearState, visit: Visit): void {
  for (let i = 0; i < model.dieEvaporatorM2.length; i++) {
    const area = model.dieEvaporatorM2[i]!;
    if (area > 0) visitChamber(model, state, i, area, visit);
  }
}

/** Gives pipes and chambers the vapor they have at some watts along a ray. */
export function warmUp(model: MachineModel, state: LinearState, ray: Ray, watts: number): void {
  const { pipeC, plateC } = state.at;
  const cpuW = (ray.fromCpuW ?? 0) + watts * ray.cpu;
  const gpuW = (ray.fromGpuW ?? 0) + watts * ray.gpu;
  for (let k = 0; k < pipeC.length; k++) {
    pipeC[k] = nodeC(model, state, model.pipeNode[k]!, cpuW, gpuW);
  }
  for (let k = 0; k < plateC.length; k++) {
    plateC[k] = nodeC(model, state, model.plateNode[k]!, cpuW, gpuW);
  }
}

const saturated = emptyWater();

function visitChamber(
  model: MachineModel,
  state: LinearState,
  die: number,
  areaM2: number,
  visit: Visit,
): void {
  const d = model.data.dies[die]!;
  const index = model.diePlate[die]!;
  const plate = model.data.plates[index]!;
  const { shape, perCpu, perGpu } = model.dieDemand[die]!;
  const boiling = plate.chamberFluxWm2 * areaM2;
  const capillary =
    plate.chamberLimitFactor *
    chamberCapillaryW(
      shape,
      plate.wickM,
      plate.vaporGapM,
      plate.wick!,
      waterFromTable(state.at.plateC[index]!, saturated),
    );
  if (boiling < capillary) {
    const share = d.roleShare * d.insideShare;
    visit(d.role === 'cpu' ? share : 0, d.role === 'gpu' ? share : 0, boiling, CHAMBER, index, 1);
    // by its own flow it boils first, but others may take its liquid away
    if (plate.dies.length < 2 || capillary === Infinity) return;
  }
  for (let c = 0; c < perCpu.length; c++) {
    visit(perCpu[c]!, perGpu[c]!, capillary, CHAMBER, index, 0);
  }
}
