import type { Ray } from '../envelope/limitTypes';
import type { MachineModel } from '../network/networkModel';
import { junctionC, type LinearState } from '../network/steadyState';
import type { DrawPlan } from './drawPlan';

/** What is kept of each die: its junction at the ray's start, °C, what each watt along the ray adds, K/W, and its limit, °C. */
const FIGURES = 3;

/** What the sensors of all dies read along one ray in each row of a plan, with all fans on the common duty of each cap. */
export interface RowJunctions {
  ray: Ray;
  dies: number;
  /** `figures[((row · caps + cap) · dies + die) · 3 + figure]` */
  figures: Float64Array;
}

/** Room for the junctions of all rows along the only ray that is wanted. */
export function roomForJunctions({ central, rays, wanted, draws, caps }: DrawPlan): RowJunctions {
  const dies = central.data.dies.length;
  return {
    ray: rays[wanted.indexOf(true)]!,
    dies,
    figures: new Float64Array(draws * caps.length * dies * FIGURES),
  };
}

/**
 * Keeps what a row's solution says of its junctions. Its properties are those where the ray ends: at these watts it holds to 0.2 K,
 * at watts a fifth off to 1 K, half of all to a tenth of that (against each row settled by itself, examples).
 *
 * @param model of the row
 * @param state solved near where the ray ends
 * @param kept overwritten at `place`, the row times the number of caps plus the cap
 */
export function keepJunctions(
  model: MachineModel,
  state: LinearState,
  { ray, dies, figures }: RowJunctions,
  place: number,
): void {
  const fromCpuW = ray.fromCpuW ?? 0;
  const fromGpuW = ray.fromGpuW ?? 0;
  for (let i = 0; i < dies; i++) {
    const at = (place * dies + i) * FIGURES;
    const start = junctionC(model, state, i, fromCpuW, fromGpuW);
    figures[at] = start;
    figures[at + 1] = junctionC(model, state, i, fromCpuW + ray.cpu, fromGpuW + ray.gpu) - start;
    figures[at + 2] = model.data.dies[i]!.maxJunctionC;
  }
}

/** What a die's sensor reads, °C, at some watts along the ray. */
export function junctionAt(kept: RowJunctions, place: number, die: number, watts: number): number {
  const at = (place * kept.dies + die) * FIGURES;
  return kept.figures[at]! + watts * kept.figures[at + 1]!;
}

/** The die nearest to its limit at some watts along the ray. */
export function nearestDie(kept: RowJunctions, place: number, watts: number): number {
  let nearest = 0;
  let least = Infinity;
  for (let i = 0; i < kept.dies; i++) {
    const at = (place * kept.dies + i) * FIGURES;
    const left = kept.figures[at + 2]! - junctionAt(kept, place, i, watts);
    if (left < least) {
      least = left;
      nearest = i;
    }
  }
  return nearest;
}

/** Keeps for a place what was kept for another one. */
export function copyJunctions({ dies, figures }: RowJunctions, from: number, to: number): void {
  const size = dies * FIGURES;
  figures.copyWithin(to * size, from * size, (from + 1) * size);
}
