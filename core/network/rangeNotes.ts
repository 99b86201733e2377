import { stackReynolds } from '../airflow/stackExchange';
import { HIGHEST_REYNOLDS } from '../airflow/rectangularDuct';
import { air, emptyAir } from '../fluids/air';
import { emptyWater } from '../fluids/water';
import { waterFromTable } from '../fluids/waterTable';
import { vaporHydraulicM } from '../pipes/pipeLimits';
import { conductionRangeNotes } from './conductionRangeNotes';
import type { MachineModel } from './networkModel';
import type { LinearState } from './steadyState';

/** A correlation used outside its range, or a simplification that mattered, with the part it concerns. */
export interface RangeNote {
  path: string;
  message: string;
}

/** Ranges within which the equations were published or fitted. */
const WATER_C = { low: 10, high: 150 };
const AIR_C = { low: -20, high: 120 };
/** Aspect ratios of passages over which the duct fits were checked: gap over height. */
const FLATTEST = 1e-3;

/** Vapor in a pipe is taken as laminar up to here. */
const LAMINAR_VAPOR = 2300;

const film = emptyAir();
const saturated = emptyWater();

/** Reynolds number of the vapor in one of alike pipes where it flows fastest: `Q D_h / (A_v μ_v h_fg)`. */
function vaporReynolds(
  model: MachineModel,
  state: LinearState,
  pipe: number,
  cpuW: number,
  gpuW: number,
): number {
  const p = model.data.pipes[pipe]!;
  const node = model.pipeNode[pipe]!;
  const rise = (n: number) => state.base[n]! + cpuW * state.perCpuW[n]! + gpuW * state.perGpuW[n]!;
  let watts = 0;
  for (const { link } of model.pipeContacts[pipe]!) {
    const other = link.a === node ? link.b : link.a;
    watts += Math.max(0, link.conductanceWPerK * (rise(other) - rise(node))) / p.count;
  }
  const w = waterFromTable(state.at.pipeC[pipe]!, saturated);
  return (watts * vaporHydraulicM(p)) / (p.vaporAreaM2 * w.vaporViscosityPaS * w.latentHeatJkg);
}

/**
 * Says where a solved state lies outside the range of an equation it used; nothing is repeated.
 *
 * @param model the machine
 * @param state solved at its own conditions
 * @param cpuW, gpuW watts there
 * @param notes receives the notes
 */
export function rangeNotes(
  model: MachineModel,
  state: LinearState,
  cpuW: number,
  gpuW: number,
  notes: RangeNote[],
): void {
  const say = (path: string, message: string) => {
    if (!notes.some((n) => n.path === path && n.message === message)) notes.push({ path, message });
  };
  const { data } = model;
  conductionRangeNotes(model, state, cpuW, gpuW, say);
  data.pipes.forEach((p, k) => {
    const c = state.at.pipeC[k]!;
    if (c <= WATER_C.low || c >= WATER_C.high) {
      say(
        `heatPipes.${p.id}`,
        `its vapor leaves the range of the water equations, ${WATER_C.low} to ${WATER_C.high} °C`,
      );
    }
    if (vaporReynolds(model, state, k, cpuW, gpuW) > LAMINAR_VAPOR) {
      say(
        `heatPipes.${p.id}`,
        'its vapor flows faster than the laminar form of the pipe limits covers',
      );
    }
  });
  data.stacks.forEach((s, i) => {
    const c = state.at.filmC[i]!;
    const q = state.flows.stackM3s[i]!;
    if (!(q > 0)) return;
    if (c < AIR_C.low || c > AIR_C.high) {
      say(
        `finStacks.${s.id}`,
        `its air leaves the range of the air equations, ${AIR_C.low} to ${AIR_C.high} °C`,
      );
    }
    const geometry = model.air.stacks[i]!;
    const re = stackReynolds(geometry, q, air(c, data.room.pressurePa, film));
    if (re > HIGHEST_REYNOLDS) {
      say(`finStacks.${s.id}`, 'flow between its fins is faster than the duct correlations cover');
    }
    const { gapM, heightM } = geometry.duct;
    if (Math.min(gapM, heightM) / Math.max(gapM, heightM) < FLATTEST) {
      say(`finStacks.${s.id}`, 'its passages are flatter than the duct fits were checked for');
    }
  });
  data.plates.forEach((p, i) => {
    if (p.kind !== 'vapor-chamber') return;
    const c = state.at.plateC[i]!;
    if (c <= WATER_C.low || c >= WATER_C.high) {
      say(
        `plates.${p.id}`,
        `its vapor leaves the range of the water equations, ${WATER_C.low} to ${WATER_C.high} °C`,
      );
    }
  });
  if (state.at.shellC > WATER_C.high - 1) {
    say('shell', 'the shell would be hotter than any of the equations used for it covers');
  }
}
