import { carryOnRay, createMemory } from '../envelope/carry';
import { CPU_RAY, GPU_RAY } from '../envelope/envelope';
import { stateForCap, type Cap } from '../envelope/fanStates';
import type { Binding } from '../envelope/limitTypes';
import { limitsAlong } from '../envelope/limits';
import { settleAt } from '../envelope/pointReadout';
import { kelvinChains, type DieChain } from '../network/kelvinChains';
import type { RangeNote } from '../network/rangeNotes';
import { unsettledNotes } from '../network/unsettledNotes';
import type { ReadoutName } from './answer';
import type { OpenCase } from './openCase';

/** A limit and how many more watts along the same direction lie before it. */
export interface LimitAhead {
  binding: Binding;
  moreWatts: number;
}

export interface Explanation {
  cap: Cap;
  cpuWatts: number;
  gpuWatts: number;
  levelDbA: number | null;
  chains: DieChain[];
  /** What binds first, then what would bind next, at the properties of this point: what the cooling can carry. */
  limits: LimitAhead[];
  /** Where firmware and adapter stop, before or after. */
  configured: LimitAhead[];
  /** Where a solver ended at its bound. */
  notes: RangeNote[];
}

const MAX_LIMITS = 8;

function isConfigured({ binding }: LimitAhead): boolean {
  return binding.limit === 'firmware' || binding.limit === 'adapter';
}

/**
 * Why a machine carries what it carries at a cap, or at any pair of watts under it.
 *
 * @param open the case
 * @param cap the cap
 * @param at a readout, at what the cooling carries there; or a pair of watts
 */
export function explain(
  { model, ratio, config }: OpenCase,
  cap: Cap,
  at: ReadoutName | { cpuW: number; gpuW: number },
): Explanation {
  let { state: fans } = stateForCap(model.data, cap);
  let pair: { cpuW: number; gpuW: number };
  if (typeof at === 'string') {
    const ray = { cpuAlone: CPU_RAY, gpuAlone: GPU_RAY, together: ratio }[at];
    const carried = carryOnRay(model, fans, ray, null, createMemory(model));
    fans = carried.state;
    pair = { cpuW: carried.point.cpuW, gpuW: carried.point.gpuW };
  } else pair = at;
  const { cpuW, gpuW } = pair;
  const state = settleAt(model, fans.rpms, cpuW, gpuW);
  const sum = cpuW + gpuW;
  const ray = sum > 1e-9 ? { cpu: cpuW / sum, gpu: gpuW / sum } : ratio;
  const ahead = limitsAlong(model, state, config, ray).map((l) => ({
    binding: l.binding,
    moreWatts: l.watts - sum,
  }));
  return {
    cap,
    cpuWatts: cpuW,
    gpuWatts: gpuW,
    levelDbA: fans.levelDbA,
    chains: kelvinChains(model, state, cpuW, gpuW),
    limits: ahead.filter((l) => !isConfigured(l)).slice(0, MAX_LIMITS),
    configured: ahead.filter(isConfigured),
    notes: unsettledNotes([state]),
  };
}
