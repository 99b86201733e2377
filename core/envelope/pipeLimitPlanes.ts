import { emptyWater } from '../fluids/water';
import { waterFromTable } from '../fluids/waterTable';
import type { MachineModel, PipeContact, PipeProfile } from '../network/networkModel';
import type { LinearState } from '../network/steadyState';
import { capillaryCapacityWm } from '../pipes/capillaryLimit';
import { boilingFlux, entrainmentW, sonicW, viscousCapacityWm } from '../pipes/pipeLimits';
import type { Ray } from './limitTypes';
import { PIPE, type Visit } from './limitVisit';

const saturated = emptyWater();

/** What a pipe can do at the temperature of its vapor. */
interface PipeCapability {
  /** Greatest range of ∫Q dx, W·m, and how it fails beyond. */
  transportCapacityWm: number;
  transportLimitKind: number;
  /** Greatest axial flow, W. */
  flowW: number;
  flowKind: number;
  /** Greatest flux into it, W/m². */
  fluxWm2: number;
}

const capability: PipeCapability = {
  transportCapacityWm: 0,
  transportLimitKind: 0,
  flowW: 0,
  flowKind: 2,
  fluxWm2: 0,
};

/** Limits of one of alike pipes at a vapor temperature; the result is overwritten by the next call. */
export function pipeCapability(model: MachineModel, pipe: number, vaporC: number): PipeCapability {
  const p = model.data.pipes[pipe]!;
  const w = waterFromTable(vaporC, saturated);
  const capillary = capillaryCapacityWm(p, w);
  const viscous = viscousCapacityWm(p, w);
  const entrainment = entrainmentW(p, w);
  const sonic = sonicW(p, w, vaporC);
  capability.transportCapacityWm = Math.min(capillary, viscous);
  capability.transportLimitKind = viscous < capillary ? 4 : 0;
  capability.flowW = Math.min(entrainment, sonic);
  capability.flowKind = sonic < entrainment ? 3 : 2;
  capability.fluxWm2 = boilingFlux(p, w, vaporC);
  return capability;
}

const MAX_CONTACTS = 16;
const heatBase = new Float64Array(MAX_CONTACTS);
const heatCpu = new Float64Array(MAX_CONTACTS);
const heatGpu = new Float64Array(MAX_CONTACTS);

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
    out[j] = l.conductanceWPerK * (temperatures[other]! - temperatures[node]!);
  }
}

const MAX_PLACES = 5 * MAX_CONTACTS;
const atBase = new Float64Array(MAX_PLACES);
const atCpu = new Float64Array(MAX_PLACES);
const atGpu = new Float64Array(MAX_PLACES);

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

const heatAt = new Float64Array(MAX_CONTACTS);

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
  const { transportCapacityWm, flowW, fluxWm2 } = capability;
  const m = contacts.length;
  for (let end = 0; end < 2; end++) {
    const w = end * watts;
    let entering = 0;
    for (let j = 0; j < m; j++) {
      const q =
        heatBase[j]! +
        heatCpu[j]! * ((ray.fromCpuW ?? 0) + w * ray.cpu) +
        heatGpu[j]! * ((ray.fromGpuW ?? 0) + w * ray.gpu);
      heatAt[j] = q;
      if (q > 0) entering += q;
      if (q > fluxWm2 * contacts[j]!.areaM2) return false;
    }
    if (entering * profile.perHeat > flowW) return false;
    if (entering * profile.perHeat * profile.spanM < transportCapacityWm) continue;
    const { integral, places } = profile;
    let high = 0;
    let low = 0;
    for (let i = 0; i < places; i++) {
      let sum = 0;
      for (let j = 0; j < m; j++) sum += integral[i * m + j]! * heatAt[j]!;
      if (sum > high) high = sum;
      else if (sum < low) low = sum;
    }
    if (high - low > transportCapacityWm) return false;
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
export function visitPipes(
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
    const { transportCapacityWm, transportLimitKind, flowW, flowKind, fluxWm2 } = can;
    for (const r of rays)
      visitFirstPair(places, transportCapacityWm, r, k, transportLimitKind, visit);
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
  const fromCpuW = ray.fromCpuW ?? 0;
  const fromGpuW = ray.fromGpuW ?? 0;
  let watts = 1e5;
  let found = -1;
  let other = -1;
  for (let round = 0; round < 50; round++) {
    let i = 0;
    let j = 0;
    let high = -Infinity;
    let low = Infinity;
    for (let k = 0; k < places; k++) {
      const value =
        atBase[k]! +
        atCpu[k]! * (fromCpuW + watts * ray.cpu) +
        atGpu[k]! * (fromGpuW + watts * ray.gpu);
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
    const atStart =
      atBase[i]! -
      atBase[j]! +
      (atCpu[i]! - atCpu[j]!) * fromCpuW +
      (atGpu[i]! - atGpu[j]!) * fromGpuW;
    const next = (reach - atStart) / slope;
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
