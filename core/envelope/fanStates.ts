import type { CaseData } from '../record/caseData';
import { machineLevelDbA } from '../sound/machineLevel';

/** A noise cap: dB(A) at the lab's position, fans off, or full speed. */
export type Cap = number | 'off' | 'full';

/** All fans on one duty. */
export interface FanState {
  duty: number;
  rpms: number[];
  levelDbA: number | null;
}

/** The state at a duty 0…1: a fan below its least speed is off. */
export function fanState(data: CaseData, duty: number): FanState {
  const rpms = data.fans.map((f) => {
    const rpm = f.maxRpm * duty;
    return rpm >= f.minRpm * (1 - 1e-12) ? rpm : 0;
  });
  return { duty, rpms, levelDbA: machineLevelDbA(data, rpms) };
}

/** The duties at which fans start, rising. */
export function startDuties(data: CaseData): number[] {
  return [...new Set(data.fans.map((f) => f.minRpm / f.maxRpm))].sort((a, b) => a - b);
}

/**
 * The loudest fan state at or below a cap.
 *
 * @param data the case
 * @param cap the cap
 * @returns the state and, where the cap lies outside what the fans can do, a note
 */
export function stateForCap(data: CaseData, cap: Cap): { state: FanState; note: string | null } {
  const off = fanState(data, 0);
  const full = fanState(data, 1);
  if (cap === 'off') return { state: off, note: null };
  if (cap === 'full') return { state: full, note: null };
  if (full.levelDbA === null || full.levelDbA <= cap) {
    return { state: full, note: 'above the loudest fan state: full speed' };
  }
  const lowest = startDuties(data)[0]!;
  const quietest = fanState(data, lowest);
  if (quietest.levelDbA! > cap) {
    return { state: off, note: 'below the quietest fan state: fans off' };
  }
  let lo = lowest;
  let hi = 1;
  for (let i = 0; i < 60; i++) {
    const mid = 0.5 * (lo + hi);
    if (fanState(data, mid).levelDbA! <= cap) lo = mid;
    else hi = mid;
  }
  return { state: fanState(data, lo), note: null };
}
