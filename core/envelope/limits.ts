import type { MachineModel } from '../network/networkModel';
import type { LinearState } from '../network/steadyState';
import { bindingOf, codeOf } from './limitNames';
import { type Binding, type Configuration, type HalfPlane, type Ray } from './limitTypes';
import type { Visit } from './limitVisit';
import { visitPipes } from './pipeLimitPlanes';
import { visitChambers, visitConfigured, visitTemperatures, warmUp } from './visitLimits';

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
  const visit: Visit = (cpu, gpu, headroom, limit, part, kind) => {
    if (cpu <= 0 && gpu <= 0 && headroom >= 0) return;
    planes.push({ cpu, gpu, headroom, binding: bindingOf(model, config, limit, part, kind) });
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
const hit = {
  watts: 0,
  cpu: 0,
  gpu: 0,
  headroom: 0,
  limit: 0,
  part: 0,
  kind: 0,
  rayCpu: 0,
  rayGpu: 0,
  fromCpuW: 0,
  fromGpuW: 0,
};

function keepFirst(
  cpu: number,
  gpu: number,
  headroom: number,
  limit: number,
  part: number,
  kind: number,
): void {
  const slope = cpu * hit.rayCpu + gpu * hit.rayGpu;
  const left = headroom - cpu * hit.fromCpuW - gpu * hit.fromGpuW;
  let watts: number;
  if (slope > 1e-15) watts = Math.max(0, left / slope);
  else if (left < 0) watts = 0;
  else return;
  if (watts >= hit.watts) return;
  hit.watts = watts;
  hit.cpu = cpu;
  hit.gpu = gpu;
  hit.headroom = headroom;
  hit.limit = limit;
  hit.part = part;
  hit.kind = kind;
}

/** The first limit of temperature of the last {@link firstLimit}. */
const warmest = { ...hit };

function copyHit(from: typeof hit, to: typeof hit): void {
  to.watts = from.watts;
  to.cpu = from.cpu;
  to.gpu = from.gpu;
  to.headroom = from.headroom;
  to.limit = from.limit;
  to.part = from.part;
  to.kind = from.kind;
  to.rayCpu = from.rayCpu;
  to.rayGpu = from.rayGpu;
  to.fromCpuW = from.fromCpuW;
  to.fromGpuW = from.fromGpuW;
}

function lookAlong(ray: Ray): void {
  hit.watts = Infinity;
  hit.rayCpu = ray.cpu;
  hit.rayGpu = ray.gpu;
  hit.fromCpuW = ray.fromCpuW ?? 0;
  hit.fromGpuW = ray.fromGpuW ?? 0;
}

const VAPOR_ROUNDS = 30;

/**
 * How far a ray goes before the first limit of a solved state. A pipe or chamber is held to what it carries with the vapor it
 * has there, not with that of a hotter or cooler machine. A pipe whose cold, thin vapor carries little stalls, warms up and then
 * carries more, so that the highest of such watts is the one that counts.
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
  copyHit(hit, warmest);
  seekOwnVapor(model, state, ray, hit.watts);
  visitConfigured(model, state, config, keepFirst);
  return hit.watts;
}

/**
 * The first limit with the vapor of just these watts: from the first limit of temperature down to the highest watts whose vapor
 * carries them. Colder vapor pumps less, so that the watts found come down step by step; colder vapor boils later, so that they
 * may also come to lie beyond, and then between.
 */
function seekOwnVapor(model: MachineModel, state: LinearState, ray: Ray, warmestW: number): void {
  let tooWarmW = warmestW;
  let beyond = lookWithVapor(model, state, ray, warmestW) - warmestW;
  if (beyond >= 0) return;
  let heldW = -1;
  let spare = 0;
  let slope = 0;
  for (let round = 0; round < VAPOR_ROUNDS; round++) {
    const between = heldW >= 0;
    const share = spare / (spare - beyond);
    const vaporW = between
      ? heldW + share * (tooWarmW - heldW)
      : Math.max(0, tooWarmW + beyond / (1 - slope));
    const left = lookWithVapor(model, state, ray, vaporW) - vaporW;
    if (Math.abs(left) <= state.vaporTolerance * (1 + vaporW)) return;
    if (left < 0) {
      const measured = 1 + (left - beyond) / (vaporW - tooWarmW);
      slope = measured > 0 && measured < STEEPEST ? measured : 0;
      // the end that stays counts for less each time (Illinois)
      if (between) spare /= 2;
      tooWarmW = vaporW;
      beyond = left;
    } else {
      if (between) beyond /= 2;
      heldW = vaporW;
      spare = left;
    }
  }
}

/**
 * The first limit of temperatures, chambers and pipes along a ray, with the vapor that they have at some watts. Those of
 * temperature do not hang on it: the first of them is as it was found.
 */
function lookWithVapor(model: MachineModel, state: LinearState, ray: Ray, vaporW: number): number {
  warmUp(model, state, ray, vaporW);
  copyHit(warmest, hit);
  visitChambers(model, state, keepFirst);
  oneRay[0] = ray;
  oneEnd[0] = hit.watts;
  visitPipes(model, state, oneRay, keepFirst, oneEnd);
  return hit.watts;
}

/** Where more of a change of vapor than this comes back, plain repetition is safer than steps by the slope. */
const STEEPEST = 0.9;

/** The limit that the last {@link firstLimit} met, as one whole number below 65 536: for many draws. */
export function lastHitCode(): number {
  return codeOf(hit.limit, hit.part, hit.kind);
}

/** The limit that the last {@link firstLimit} met. */
export function lastHit(model: MachineModel, config: Configuration | null): HalfPlane {
  return {
    cpu: hit.cpu,
    gpu: hit.gpu,
    headroom: hit.headroom,
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
  let only: string | null = null;
  const visit: Visit = (cpu, gpu, headroom, limit, part, kind) => {
    const slope = cpu * ray.cpu + gpu * ray.gpu;
    if (!(slope > 1e-15)) return;
    const left = headroom - cpu * (ray.fromCpuW ?? 0) - gpu * (ray.fromGpuW ?? 0);
    const watts = Math.max(0, left / slope);
    const key = `${limit} ${part} ${kind}`;
    if ((only ?? key) !== key || watts >= (nearest.get(key)?.watts ?? FAR_W)) return;
    nearest.set(key, { watts, binding: bindingOf(model, config, limit, part, kind) });
  };
  lookAlong(ray);
  visitTemperatures(model, state, keepFirst);
  const warmestW = hit.watts;
  visitTemperatures(model, state, visit);
  visitConfigured(model, state, config, visit);
  const others = nearest.size;
  const visitVapor = (vaporW: number) => {
    warmUp(model, state, ray, vaporW);
    visitChambers(model, state, visit);
    visitPipes(model, state, [ray], visit, [FAR_W]);
  };
  visitVapor(warmestW);
  // each with the vapor it has there, as far as the machine gets that warm
  for (const key of [...nearest.keys()].slice(others)) {
    only = key;
    for (let round = 0, before = warmestW; round < VAPOR_ROUNDS; round++) {
      const at = Math.min(nearest.get(key)!.watts, warmestW);
      if (Math.abs(at - before) <= state.vaporTolerance * (1 + at)) break;
      const kept = nearest.get(key)!;
      nearest.delete(key);
      visitVapor(at);
      if (!nearest.has(key)) {
        nearest.set(key, kept);
        break;
      }
      before = at;
    }
  }
  return [...nearest.values()].sort((a, b) => a.watts - b.watts);
}
