import { CONVECTION_RAYLEIGH, horizontalRayleigh } from '../conduction/shell';
import { emptyWater } from '../fluids/water';
import { waterFromTable } from '../fluids/waterTable';
import { chamberVaporKPerW, chamberVaporPaPerW } from '../pipes/chamberLimit';
import type { MachineModel } from './networkModel';
import { nodeC, type LinearState } from './steadyState';

/** A spot on the skin is small against the shell up to this share of its area. */
const LARGEST_SPOT = 0.25;
/** Shell losses below this share of the heat do not matter. */
const SMALL_LOSS = 0.05;
/** The vapor of a chamber is taken as even; a drop beyond this would show. */
const EVEN_VAPOR_K = 1;

const saturated = emptyWater();

type Say = (path: string, message: string) => void;

/**
 * Says where conduction, spreading, chamber, skin or natural convection are used outside their range.
 *
 * @param model the machine
 * @param state solved at its own conditions
 * @param cpuW, gpuW watts there
 * @param say takes the path of a part and what is to be said of it
 */
export function conductionRangeNotes(
  model: MachineModel,
  state: LinearState,
  cpuW: number,
  gpuW: number,
  say: Say,
): void {
  const { data } = model;
  const shellArea = data.shell.widthM * data.shell.depthM;
  data.plates.forEach((p, i) => {
    const at = `plates.${p.id}`;
    if (p.kind === 'vapor-chamber') chamberVaporNote(model, state, i, cpuW, gpuW, say);
    else if (p.kind !== 'none' && p.dies.length > 1) overRim(model, i, say);
    if (model.skinAreaM2[i]! > LARGEST_SPOT * shellArea) {
      say(at, 'it lies under so much of the shell that the skin above it is no spot any more');
    }
  });
  const rise = nodeC(model, state, model.shellNode, cpuW, gpuW) - data.room.temperatureC;
  const total = cpuW + gpuW + data.power.restW;
  if (rise > 0 && rise * state.shellWPerK > SMALL_LOSS * total) {
    const { low, high } = CONVECTION_RAYLEIGH;
    const { widthM, depthM } = data.shell;
    const { temperatureC, pressurePa } = data.room;
    const ra = horizontalRayleigh(widthM, depthM, rise, temperatureC, pressurePa);
    if (ra < low || ra > high) {
      say('shell', 'natural convection from it lies outside the range of its correlation');
    }
  }
}

function chamberVaporNote(
  model: MachineModel,
  state: LinearState,
  plate: number,
  cpuW: number,
  gpuW: number,
  say: Say,
): void {
  const p = model.data.plates[plate]!;
  const vaporC = nodeC(model, state, model.plateNode[plate]!, cpuW, gpuW);
  const w = waterFromTable(vaporC, saturated);
  for (const i of p.dies) {
    const d = model.data.dies[i]!;
    const watts = (d.role === 'cpu' ? cpuW : gpuW) * d.roleShare * d.insideShare;
    const perW = chamberVaporPaPerW(model.dieDemand[i]?.shape ?? 0, p.vaporGapM, w);
    if (watts * chamberVaporKPerW(perW, vaporC, w) > EVEN_VAPOR_K) {
      say(
        `plates.${p.id}`,
        'its vapor space is so thin that the vapor cools on its way, which is not followed',
      );
    }
  }
}

/** Dies that reach over the rim of a shared plate are moved inside by the spreading series. */
function overRim(model: MachineModel, plate: number, say: Say): void {
  const p = model.data.plates[plate]!;
  p.dies.forEach((i, k) => {
    const d = model.data.dies[i]!;
    const c = p.centres[k]!;
    const out = (centre: number, size: number, side: number) =>
      centre - size / 2 < -1e-9 || centre + size / 2 > side + 1e-9;
    if (out(c.xM, d.widthM, p.widthM) || out(c.yM, d.lengthM, p.lengthM)) {
      say(`dies.${d.id}`, 'it reaches over the rim of its plate and is taken as moved inside');
    }
  });
}
