import { emptyWater } from '../fluids/water';
import { waterFromTable } from '../fluids/waterTable';
import type { MachineModel, PipeContact, PipeProfile } from '../network/machineModel';
import { nodeC, outletOf, type LinearState } from '../network/steadyState';
import { capillaryReach } from '../pipes/capillaryLimit';
import { chamberCapillaryW } from '../pipes/chamberLimit';
import { boilingFlux, entrainmentW, sonicW, viscousReach } from '../pipes/pipeLimits';

export const LIMITS = [
  'junction',
  'pipe',
  'chamber',
  'skin',
  'exhaust-air',
  'firmware',
  'adapter',
] as const;

export const FAILURES = ['capillary', 'boiling', 'entrainment', 'sonic', 'viscous'] as const;

/** What binds: the kind of limit, the id of the part, and for pipes and chambers how they fail. */
export interface Binding {
  limit: (typeof LIMITS)[number];
  part: string;
  kind?: (typeof FAILURES)[number];
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

/** Takes one half-plane; limit, part and failure as numbers, so that looking costs nothing. */
type Visit = (
  cpu: number,
  gpu: number,
  room: number,
  limit: number,
  part: number,
  kind: number,
) => void;

const JUNCTION = 0;
const PIPE = 1;
const CHAMBER = 2;
const SKIN = 3;
const EXHAUST = 4;
const FIRMWARE = 5;
const ADAPTER = 6;
const NO_FAILURE = -1;

function partId(
  { data }: MachineModel,
  config: Configuration | null,
  limit: number,
  part: number,
): string {
  switch (limit) {
    case JUNCTION:
      return data.dies[part]!.id;
    case PIPE:
      return data.pipes[part]!.id;
    case CHAMBER:
    case SKIN:
      return data.plates[part]!.id;
    case EXHAUST:
      return data.stacks[part]!.id;
    case FIRMWARE:
      return part === 0 ? config!.cpuPart : config!.gpuPart;
    default:
      return 'adapter';
  }
}

function bindingOf(
  model: MachineModel,
  config: Configuration | null,
  limit: number,
  part: number,
  kind: number,
): Binding {
  const id = partId(model, config, limit, part);
  const binding: Binding = { limit: LIMITS[limit]!, part: id };
  return kind === NO_FAILURE ? binding : { ...binding, kind: FAILURES[kind]! };
}

/** Junctions, skin and exhaust air. */
function visitTemperatures(model: MachineModel, state: LinearState, visit: Visit): void {
  const { data } = model;
  const { base, perCpuW: cpu, perGpuW: gpu } = state;
  const room = data.room.temperatureC;
  for (let i = 0; i < data.dies.length; i++) {
    const node = model.dieNode[i]!;
    visit(
      cpu[node]! + model.dieBeyondCpuKW[i]!,
      gpu[node]! + model.dieBeyondGpuKW[i]!,
      data.dies[i]!.maxJunctionC - room - base[node]!,
      JUNCTION,
      i,
      NO_FAILURE,
    );
  }
  for (let i = 0; i < model.skinNode.length; i++) {
    const node = model.skinNode[i]!;
    visit(cpu[node]!, gpu[node]!, data.shell.skinLimitC - room - base[node]!, SKIN, i, NO_FAILURE);
  }
  for (let s = 0; s < data.stacks.length; s++) {
    if (!(state.effectiveness[s]! > 0)) continue;
    visit(
      outletOf(model, state, s, cpu),
      outletOf(model, state, s, gpu),
      data.shell.exhaustLimitC - room - outletOf(model, state, s, base),
      EXHAUST,
      s,
      NO_FAILURE,
    );
  }
}

/** Firmware and adapter. */
function visitConfigured(
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
function visitChambers(model: MachineModel, state: LinearState, visit: Visit): void {
  for (let i = 0; i < model.dieEvaporatorM2.length; i++) {
    const area = model.dieEvaporatorM2[i]!;
    if (area > 0) visitChamber(model, state, i, area, visit);
  }
}

/**
 * Takes the limits of pipes and chambers at the vapor they have once the first temperature limit is reached along a ray. A
 * pipe whose cold, thin vapor carries little stalls, warms up and then carries more, until a junction or the skin is at its
 * limit: only what it still cannot carry then is a dry-out.
 */
function warmUp(model: MachineModel, state: LinearState, ray: Ray, watts: number): void {
  const { pipeC, plateC } = state.at;
  const cpuW = watts * ray.cpu;
  const gpuW = watts * ray.gpu;
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
  const share = d.roleShare * d.insideShare;
  const boiling = plate.chamberFluxWm2 * areaM2;
  const capillary = chamberCapillaryW(
    areaM2,
    plate.widthM * plate.lengthM,
    plate.wickM,
    plate.wick!,
    waterFromTable(state.at.plateC[index]!, saturated),
  );
  visit(
    d.role === 'cpu' ? share : 0,
    d.role === 'gpu' ? share : 0,
    Math.min(boiling, capillary),
    CHAMBER,
    index,
    boiling < capillary ? 1 : 0,
  );
}

/** What a pipe can do at the temperature of its vapor. */
interface PipeCapability {
  /** Greatest range of ∫Q dx, W·m, and how it fails beyond. */
  reachWm: number;
  reachKind: number;
  /** Greatest axial flow, W. */
  flowW: number;
  flowKind: number;
  /** Greatest flux into it, W/m². */
  fluxWm2: number;
}

const capability: PipeCapability = { reachWm: 0, reachKind: 0, flowW: 0, flowKind: 2, fluxWm2: 0 };

/** Limits of one of alike pipes at a vapor temperature; the result is overwritten by the next call. */
export function pipeCapability(model: MachineModel, pipe: number, vaporC: number): PipeCapability {
  const p = model.data.pipes[pipe]!;
  const w = waterFromTable(vaporC, saturated);
  const capillary = capillaryReach(p, w);
  const viscous = viscousReach(p, w);
  const entrainment = entrainmentW(p, w);
  const sonic = sonicW(p, w, vaporC);
  capability.reachWm = Math.min(capillary, viscous);
  capability.reachKind = viscous < capillary ? 4 : 0;
  capability.flowW = Math.min(entrainment, sonic);
  capability.flowKind = sonic < entrainment ? 3 : 2;
  capability.fluxWm2 = boilingFlux(p, w, vaporC);
  return capability;
}

const MOST_CONTACTS = 16;
const heatBase = new Float64Array(MOST_CONTACTS);
const heatCpu = new Float64Array(MOST_CONTACTS);
const heatGpu = new Float64Array(MOST_CONTACTS);

/** Heat into a pipe's contacts (all alike pipes together) from a vector of node temperatures. */
export function contactHeat(
  model: MachineModel,
  pipe: number,
  temperatures: Float64Array,
  out: Float64Array,
): void {
  const contacts = model.pipeContacts[pipe]!;
  const node = model.pipeNode[pipe]!;
  for (let j = 0; j < contacts.length; j++) {
    const l = contacts[j]!.link;
    const other = l.a === node ? l.b : l.a;
    out[j] = l.conductanceWK * (temperatures[other]! - temperatures[node]!);
  }
}

const MOST_PLACES = 5 * MOST_CONTACTS;
const atBase = new Float64Array(MOST_PLACES);
const atCpu = new Float64Array(MOST_PLACES);
const atGpu = new Float64Array(MOST_PLACES);

function project(
  weights: Float64Array,
  places: number,
  heat: Float64Array,
  out: Float64Array,
): void {
  const m = weights.length / places;
  for (let i = 0; i < places; i++) {
    let sum = 0;
    for (let j = 0; j < m; j++) sum += weights[i * m + j]! * heat[j]!;
    out[i] = sum;
  }
}

const heatAt = new Float64Array(MOST_CONTACTS);

/**
 * Whether a pipe stays clear of all its limits from idle up to some watts along a ray. Every load is convex in the watts, so
 * both ends tell. Bounds alone are looked at first: the heat that enters, over the whole length.
 */
function isClear(
  profile: PipeProfile,
  contacts: readonly PipeContact[],
  watts: number,
  ray: Ray,
): boolean {
  const { reachWm, flowW, fluxWm2 } = capability;
  const m = contacts.length;
  for (let end = 0; end < 2; end++) {
    const w = end * watts;
    let entering = 0;
    for (let j = 0; j < m; j++) {
      const q = heatBase[j]! + w * (heatCpu[j]! * ray.cpu + heatGpu[j]! * ray.gpu);
      heatAt[j] = q;
      if (q > 0) entering += q;
      if (q > fluxWm2 * contacts[j]!.areaM2) return false;
    }
    if (entering * profile.perHeat > flowW) return false;
    if (entering * profile.perHeat * profile.spanM < reachWm) continue;
    const { integral, places } = profile;
    let high = 0;
    let low = 0;
    for (let i = 0; i < places; i++) {
      let sum = 0;
      for (let j = 0; j < m; j++) sum += integral[i * m + j]! * heatAt[j]!;
      if (sum > high) high = sum;
      else if (sum < low) low = sum;
    }
    if (high - low > reachWm) return false;
  }
  return true;
}

/**
 * Pipe limits. The range of the axial integral is a maximum over pairs of places, each linear in the watts, so each pair is
 * a half-plane of its own and the region they leave is convex; likewise the axial flow at each place and the heat of each
 * contact. Of the pairs only those are visited that the given rays meet first.
 *
 * @param upTo pipes that are clear up to these watts along each ray are passed over
 */
function visitPipes(
  model: MachineModel,
  state: LinearState,
  rays: readonly Ray[],
  visit: Visit,
  upTo: readonly number[],
): void {
  for (let k = 0; k < model.pipeNode.length; k++) {
    const contacts = model.pipeContacts[k]!;
    const profile = model.pipeProfiles[k]!;
    const can = pipeCapability(model, k, state.at.pipeC[k]!);
    contactHeat(model, k, state.base, heatBase);
    contactHeat(model, k, state.perCpuW, heatCpu);
    contactHeat(model, k, state.perGpuW, heatGpu);
    let clear = true;
    for (let r = 0; clear && r < rays.length; r++) {
      clear = isClear(profile, contacts, upTo[r]!, rays[r]!);
    }
    if (clear) continue;
    const { places } = profile;
    project(profile.integral, places, heatBase, atBase);
    project(profile.integral, places, heatCpu, atCpu);
    project(profile.integral, places, heatGpu, atGpu);
    const { reachWm, reachKind, flowW, flowKind, fluxWm2 } = can;
    for (const r of rays) visitFirstPair(places, reachWm, r, k, reachKind, visit);
    project(profile.flow, places, heatBase, atBase);
    project(profile.flow, places, heatCpu, atCpu);
    project(profile.flow, places, heatGpu, atGpu);
    for (let i = 0; i < places; i++) {
      visit(atCpu[i]!, atGpu[i]!, flowW - atBase[i]!, PIPE, k, flowKind);
      visit(-atCpu[i]!, -atGpu[i]!, flowW + atBase[i]!, PIPE, k, flowKind);
    }
    for (let j = 0; j < contacts.length; j++) {
      const most = fluxWm2 * contacts[j]!.areaM2;
      // heat leaves through the other contacts; only what enters can boil
      if (heatCpu[j]! > 0 || heatGpu[j]! > 0) {
        visit(heatCpu[j]!, heatGpu[j]!, most - heatBase[j]!, PIPE, k, 1);
      }
    }
  }
}

/**
 * The pair of places whose difference first reaches a pipe's limit along a ray. The range is convex in the watts, so Newton
 * steps from far outside come down on it without overshooting.
 */
function visitFirstPair(
  places: number,
  reach: number,
  ray: Ray,
  pipe: number,
  kind: number,
  visit: Visit,
): void {
  let watts = 1e5;
  let found = -1;
  let other = -1;
  for (let round = 0; round < 50; round++) {
    let i = 0;
    let j = 0;
    let high = -Infinity;
    let low = Infinity;
    for (let k = 0; k < places; k++) {
      const value = atBase[k]! + watts * (atCpu[k]! * ray.cpu + atGpu[k]! * ray.gpu);
      if (value > high) {
        high = value;
        i = k;
      }
      if (value < low) {
        low = value;
        j = k;
      }
    }
    const slope = (atCpu[i]! - atCpu[j]!) * ray.cpu + (atGpu[i]! - atGpu[j]!) * ray.gpu;
    if (slope <= 0) break;
    found = i;
    other = j;
    const next = (reach - (atBase[i]! - atBase[j]!)) / slope;
    if (next >= watts * (1 - 1e-12) || next <= 0) break;
    watts = next;
  }
  if (found < 0) return;
  visit(
    atCpu[found]! - atCpu[other]!,
    atGpu[found]! - atGpu[other]!,
    reach - (atBase[found]! - atBase[other]!),
    PIPE,
    pipe,
    kind,
  );
}

/**
 * The limits of a solved state as half-planes in the (CPU, GPU) plane, those that matter for an outline: junctions, skin, exhaust air, chambers, pipes, and
 * where a configuration is given firmware and adapter.
 *
 * @param model the machine
 * @param state the network at fixed properties; pipe and chamber limits are taken at its conditions
 * @param config firmware and adapter limits, or null for what the cooling can carry
 */
export function limitPlanes(
  model: MachineModel,
  state: LinearState,
  config: Configuration | null,
): HalfPlane[] {
  const planes: HalfPlane[] = [];
  const visit: Visit = (cpu, gpu, room, limit, part, kind) => {
    if (cpu <= 0 && gpu <= 0 && room >= 0) return;
    planes.push({ cpu, gpu, room, binding: bindingOf(model, config, limit, part, kind) });
  };
  visitTemperatures(model, state, visit);
  visitConfigured(model, state, config, visit);
  visitChambers(model, state, visit);
  // pipes that stay clear well beyond the other limits cut nothing off
  const upTo = FAN_OF_RAYS.map((r) => {
    lookAlong(r);
    visitTemperatures(model, state, keepFirst);
    return BEYOND * hit.watts;
  });
  visitPipes(model, state, FAN_OF_RAYS, visit, upTo);
  return planes;
}

const BEYOND = 1.2;
const FAN_OF_RAYS: readonly Ray[] = [0, 0.25, 0.5, 0.75, 1].map((cpu) => ({ cpu, gpu: 1 - cpu }));
const oneRay: Ray[] = [{ cpu: 1, gpu: 0 }];
const oneEnd = [0];

/** The first limit along a ray, overwritten by each look. */
const hit = { watts: 0, cpu: 0, gpu: 0, room: 0, limit: 0, part: 0, kind: 0, rayCpu: 0, rayGpu: 0 };

function keepFirst(
  cpu: number,
  gpu: number,
  room: number,
  limit: number,
  part: number,
  kind: number,
): void {
  const slope = cpu * hit.rayCpu + gpu * hit.rayGpu;
  let watts: number;
  if (slope > 1e-15) watts = Math.max(0, room / slope);
  else if (room < 0) watts = 0;
  else return;
  if (watts >= hit.watts) return;
  hit.watts = watts;
  hit.cpu = cpu;
  hit.gpu = gpu;
  hit.room = room;
  hit.limit = limit;
  hit.part = part;
  hit.kind = kind;
}

function lookAlong(ray: Ray): void {
  hit.watts = Infinity;
  hit.rayCpu = ray.cpu;
  hit.rayGpu = ray.gpu;
}

/**
 * How far a ray goes before the first limit of a solved state.
 *
 * @param state its vapor temperatures are set to those at which pipes and chambers were looked at
 * @returns W, ≥ 0
 */
export function firstLimit(
  model: MachineModel,
  state: LinearState,
  config: Configuration | null,
  ray: Ray,
): number {
  lookAlong(ray);
  visitTemperatures(model, state, keepFirst);
  if (hit.watts === Infinity) throw new Error('no limit lies in this direction');
  warmUp(model, state, ray, hit.watts);
  visitConfigured(model, state, config, keepFirst);
  visitChambers(model, state, keepFirst);
  oneRay[0] = ray;
  oneEnd[0] = hit.watts;
  visitPipes(model, state, oneRay, keepFirst, oneEnd);
  return hit.watts;
}

/** The limit that the last {@link firstLimit} met. */
export function lastHit(model: MachineModel, config: Configuration | null): HalfPlane {
  return {
    cpu: hit.cpu,
    gpu: hit.gpu,
    room: hit.room,
    binding: bindingOf(model, config, hit.limit, hit.part, hit.kind),
  };
}

const FAR_W = 1e9;

/**
 * Where each limit of a solved state lies along a ray, the nearest first; each binding once.
 *
 * @param model the machine
 * @param state solved at the properties of a point on the ray
 * @param config firmware and adapter limits, or null
 * @param ray direction
 */
export function limitsAlong(
  model: MachineModel,
  state: LinearState,
  config: Configuration | null,
  ray: Ray,
): { binding: Binding; watts: number }[] {
  const nearest = new Map<string, { binding: Binding; watts: number }>();
  const visit: Visit = (cpu, gpu, room, limit, part, kind) => {
    const slope = cpu * ray.cpu + gpu * ray.gpu;
    if (!(slope > 1e-15)) return;
    const watts = Math.max(0, room / slope);
    const key = `${limit} ${part} ${kind}`;
    if (watts >= (nearest.get(key)?.watts ?? FAR_W)) return;
    nearest.set(key, { watts, binding: bindingOf(model, config, limit, part, kind) });
  };
  lookAlong(ray);
  visitTemperatures(model, state, keepFirst);
  warmUp(model, state, ray, hit.watts);
  visitTemperatures(model, state, visit);
  visitConfigured(model, state, config, visit);
  visitChambers(model, state, visit);
  visitPipes(model, state, [ray], visit, [FAR_W]);
  return [...nearest.values()].sort((a, b) => a.watts - b.watts);
}
