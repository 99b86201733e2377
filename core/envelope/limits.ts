import { chamberCapillaryW } from '../pipes/chamberLimit';
import { axialIntegral, type AxialHeat } from '../pipes/axialProfile';
import { capillaryReach } from '../pipes/capillaryLimit';
import { water } from '../fluids/water';
import { CHAMBER_WICK, type MachineModel } from '../network/machineModel';
import type { Conditions, LinearState } from '../network/steadyState';

export const LIMITS = [
  'junction',
  'pipe',
  'chamber',
  'skin',
  'exhaust-air',
  'firmware',
  'adapter',
] as const;

/** What binds: the kind of limit, the id of the part, and for pipes and chambers how they fail. */
export interface Binding {
  limit: (typeof LIMITS)[number];
  part: string;
  kind?: 'capillary' | 'boiling' | 'entrainment' | 'sonic' | 'viscous';
}

/** A limit as a half-plane: `cpu · P_cpu + gpu · P_gpu ≤ room`. */
export interface HalfPlane {
  cpu: number;
  gpu: number;
  room: number;
  binding: Binding;
}

/** Direction in the (CPU, GPU) plane, both ≥ 0, sum 1. */
export interface Ray {
  cpu: number;
  gpu: number;
}

/** Limits of a setting and the adapter, on top of what the cooling can carry. */
export interface Configuration {
  cpuW: number | null;
  gpuW: number | null;
  adapterW: number | null;
  cpuPart: string;
  gpuPart: string;
}

/**
 * Every limit of a solved state as half-planes in the (CPU, GPU) plane: junctions, skin, exhaust air, chambers, pipes, and
 * where a configuration is given firmware and adapter.
 *
 * @param model the machine
 * @param state the network at fixed properties
 * @param at the properties' conditions; pipe and chamber limits are taken there
 * @param config firmware and adapter limits, or null for what the cooling can carry
 * @param ray where given, a pipe adds only the half-plane that this ray meets first; else all of its half-planes
 */
export function limitPlanes(
  model: MachineModel,
  state: LinearState,
  at: Conditions,
  config: Configuration | null,
  ray?: Ray,
): HalfPlane[] {
  const { data } = model;
  const room = data.room.temperatureC;
  const planes: HalfPlane[] = [];
  const temperature = (node: number, limitC: number, binding: Binding) =>
    planes.push({
      cpu: state.perCpuW[node]!,
      gpu: state.perGpuW[node]!,
      room: limitC - room - state.base[node]!,
      binding,
    });
  data.dies.forEach((d, i) => {
    const node = model.dieNode[i]!;
    const own = model.dieResistanceKW[i]! * d.roleShare * d.insideShare;
    planes.push({
      cpu: state.perCpuW[node]! + (d.role === 'cpu' ? own : 0),
      gpu: state.perGpuW[node]! + (d.role === 'gpu' ? own : 0),
      room: d.maxJunctionC - room - state.base[node]!,
      binding: { limit: 'junction', part: d.id },
    });
  });
  model.skinNode.forEach((node, i) =>
    temperature(node, data.shell.skinLimitC, { limit: 'skin', part: data.plates[i]!.id }),
  );
  model.stackNode.forEach((node, i) => {
    const e = state.effectiveness[i]!;
    if (!(e > 0)) return;
    const k = model.intakeNode;
    const mix = (x: Float64Array) => x[k]! + e * (x[node]! - x[k]!);
    planes.push({
      cpu: mix(state.perCpuW),
      gpu: mix(state.perGpuW),
      room: data.shell.exhaustLimitC - room - mix(state.base),
      binding: { limit: 'exhaust-air', part: data.stacks[i]!.id },
    });
  });
  chamberPlanes(model, at, planes);
  pipePlanes(model, state, at, planes, ray);
  if (config) {
    if (config.cpuW !== null) {
      planes.push({
        cpu: 1,
        gpu: 0,
        room: config.cpuW,
        binding: { limit: 'firmware', part: config.cpuPart },
      });
    }
    if (config.gpuW !== null) {
      planes.push({
        cpu: 0,
        gpu: 1,
        room: config.gpuW,
        binding: { limit: 'firmware', part: config.gpuPart },
      });
    }
    if (config.adapterW !== null) {
      planes.push({
        cpu: model.drawPerCpuW,
        gpu: model.drawPerGpuW,
        room: config.adapterW - data.power.restW - state.fanPowerW,
        binding: { limit: 'adapter', part: 'adapter' },
      });
    }
  }
  return planes;
}

function chamberPlanes(model: MachineModel, at: Conditions, planes: HalfPlane[]): void {
  model.data.dies.forEach((d, i) => {
    const plateIndex = model.data.plates.findIndex((p) => p.dies.includes(i));
    const plate = model.data.plates[plateIndex]!;
    const area = model.dieEvaporatorM2[i]!;
    if (!(area > 0)) return;
    const perW = d.roleShare * d.insideShare;
    const watts = {
      boiling: plate.chamberFluxWm2 * area,
      capillary: chamberCapillaryW(
        area,
        plate.widthM * plate.lengthM,
        plate.wickM,
        CHAMBER_WICK,
        water(at.chamberC[plateIndex]!),
      ),
    };
    const kind = watts.boiling < watts.capillary ? 'boiling' : 'capillary';
    planes.push({
      cpu: d.role === 'cpu' ? perW : 0,
      gpu: d.role === 'gpu' ? perW : 0,
      room: watts[kind],
      binding: { limit: 'chamber', part: plate.id, kind },
    });
  });
}

/**
 * A pipe's capillary limit: the range of the axial integral is a maximum over pairs of places, each linear in the watts, so
 * each pair is a half-plane of its own and the region they leave is convex.
 */
function pipePlanes(
  model: MachineModel,
  state: LinearState,
  at: Conditions,
  planes: HalfPlane[],
  ray: Ray | undefined,
): void {
  model.data.pipes.forEach((pipe, k) => {
    const reach = capillaryReach(pipe, water(at.pipeC[k]!));
    const places = model.pipePlaces[k]!;
    const integrals = (temps: Float64Array) => {
      const heat = pipeHeat(model, k, temps);
      return places.map((x) => axialIntegral(heat, x));
    };
    const base = integrals(state.base);
    const cpu = integrals(state.perCpuW);
    const gpu = integrals(state.perGpuW);
    const binding: Binding = { limit: 'pipe', part: pipe.id, kind: 'capillary' };
    const plane = (i: number, j: number): HalfPlane => ({
      cpu: cpu[i]! - cpu[j]!,
      gpu: gpu[i]! - gpu[j]!,
      room: reach - (base[i]! - base[j]!),
      binding,
    });
    if (ray) {
      const pair = firstPair(base, cpu, gpu, reach, ray);
      if (pair) planes.push(plane(pair.i, pair.j));
      return;
    }
    for (let i = 0; i < places.length; i++) {
      for (let j = 0; j < places.length; j++) {
        const p = plane(i, j);
        // a pair that neither die can drive up binds only through the base, seen by its mirror pair
        if (p.cpu > 0 || p.gpu > 0) planes.push(p);
      }
    }
  });
}

/**
 * The pair of places whose difference first reaches a pipe's limit along a ray. The range is convex in the watts, so Newton
 * steps from far outside come down on it without overshooting.
 */
function firstPair(
  base: readonly number[],
  cpu: readonly number[],
  gpu: readonly number[],
  reach: number,
  ray: Ray,
): { i: number; j: number } | null {
  let watts = 1e5;
  let pair: { i: number; j: number } | null = null;
  for (let round = 0; round < 50; round++) {
    let i = 0;
    let j = 0;
    let high = -Infinity;
    let low = Infinity;
    for (let k = 0; k < base.length; k++) {
      const value = base[k]! + watts * (cpu[k]! * ray.cpu + gpu[k]! * ray.gpu);
      if (value > high) {
        high = value;
        i = k;
      }
      if (value < low) {
        low = value;
        j = k;
      }
    }
    const slope = (cpu[i]! - cpu[j]!) * ray.cpu + (gpu[i]! - gpu[j]!) * ray.gpu;
    if (slope <= 0) return pair;
    pair = { i, j };
    const next = (reach - (base[i]! - base[j]!)) / slope;
    if (next >= watts * (1 - 1e-12) || next <= 0) return pair;
    watts = next;
  }
  return pair;
}

/** Heat into one of `count` alike pipes along its contacts, W, from a vector of node temperatures. */
export function pipeHeat(model: MachineModel, pipe: number, temps: Float64Array): AxialHeat[] {
  const count = model.data.pipes[pipe]!.count;
  return model.pipeContacts[pipe]!.map((c) => {
    let watts = 0;
    for (const l of c.links) watts += l.conductanceWK * (temps[l.a]! - temps[l.b]!);
    return { fromM: c.fromM, toM: c.toM, watts: watts / count };
  });
}
