import type { CaseData } from '../record/caseData';
import { relativeSound } from '../sound/fanLevel';
import { hasSweep, machineLevelDbA } from '../sound/machineLevel';

/** A noise cap: dB(A) at the lab's position, fans off, or full speed. */
export type Cap = number | 'off' | 'full';

/** Speeds of all fans and the level they make. */
export interface FanState {
  /** Duty of each group of fans that are set together. */
  duties: number[];
  rpms: number[];
  levelDbA: number | null;
}

/** Fans that are set together: all on shared control, then each on its own. */
export function controlGroups(data: CaseData): number[][] {
  const shared: number[] = [];
  const own: number[][] = [];
  data.fans.forEach((f, i) => (f.ownControl ? own.push([i]) : shared.push(i)));
  return shared.length ? [shared, ...own] : own;
}

/** Speeds at the duties of the groups, 0…1 each: a fan below its least speed is off. */
export function speeds(
  data: CaseData,
  groups: readonly (readonly number[])[],
  duties: readonly number[],
): number[] {
  const rpms = new Array<number>(data.fans.length).fill(0);
  groups.forEach((group, g) => {
    for (const i of group) {
      const f = data.fans[i]!;
      const rpm = f.maxRpm * duties[g]!;
      rpms[i] = rpm >= f.minRpm * (1 - 1e-12) ? rpm : 0;
    }
  });
  return rpms;
}

/** The state at given duties; one number puts all groups on it. */
export function fanState(data: CaseData, duty: number | readonly number[]): FanState {
  const groups = controlGroups(data);
  const duties = typeof duty === 'number' ? groups.map(() => duty) : [...duty];
  const rpms = speeds(data, groups, duties);
  return { duties, rpms, levelDbA: machineLevelDbA(data, rpms) };
}

/** The duties at which fans start, rising. */
export function startDuties(data: CaseData): number[] {
  return [...new Set(data.fans.map((f) => f.minRpm / f.maxRpm))].sort((a, b) => a - b);
}

const BISECTIONS = 60;

/**
 * The greatest common duty at or below a level, or 0 where even the least is louder. The fans that turn follow the fifth power of
 * duty, so that it is found directly; a measured sweep is searched.
 *
 * @param data the case
 * @param levelDbA the level that must not be passed
 * @param fullDbA level at full speed
 */
export function dutyForLevel(data: CaseData, levelDbA: number, fullDbA: number): number {
  if (!hasSweep(data)) return dutyBySound(data, levelDbA, fullDbA);
  const level = (duty: number) => fanState(data, duty).levelDbA ?? -Infinity;
  const starts = startDuties(data);
  for (let i = starts.length - 1; i >= 0; i--) {
    const from = starts[i]!;
    if (level(from) > levelDbA) continue;
    // just before the next fan starts
    const to = i + 1 < starts.length ? starts[i + 1]! * (1 - 1e-9) : 1;
    if (level(to) <= levelDbA) return to;
    let lo = from;
    let hi = to;
    for (let k = 0; k < BISECTIONS; k++) {
      const mid = 0.5 * (lo + hi);
      if (level(mid) <= levelDbA) lo = mid;
      else hi = mid;
    }
    return lo;
  }
  return 0;
}

/** By `Σ wᵢ d⁵` of the fans that turn, looked at from start to start, the loudest first. */
function dutyBySound({ fans }: CaseData, levelDbA: number, fullDbA: number): number {
  let all = 0;
  for (let i = 0; i < fans.length; i++) all += soundOf(fans[i]!);
  const most = all * 10 ** (0.1 * (levelDbA - fullDbA));
  for (let to = 1, beyond = Infinity; ;) {
    let from = -1;
    for (let i = 0; i < fans.length; i++) {
      const start = fans[i]!.minRpm / fans[i]!.maxRpm;
      if (start < beyond && start > from) from = start;
    }
    if (from < 0) return 0;
    let turning = 0;
    for (let i = 0; i < fans.length; i++) {
      if (fans[i]!.minRpm / fans[i]!.maxRpm <= from) turning += soundOf(fans[i]!);
    }
    if (turning * from ** 5 <= most) return Math.min(to, (most / turning) ** 0.2);
    // just before this fan starts
    to = from * (1 - 1e-9);
    beyond = from;
  }
}

const soundOf = (f: CaseData['fans'][number]): number =>
  relativeSound(f.diameterM, f.bladeHeightM, f.maxRpm);

/**
 * The loudest fan state at or below a cap, all fans on one duty.
 *
 * @param data the case
 * @param cap the cap
 * @returns the state and, where the cap lies outside what the fans can do, a note
 */
export function stateForCap(data: CaseData, cap: Cap): { state: FanState; note: string | null } {
  if (cap === 'off' || data.fans.length === 0) return { state: fanState(data, 0), note: null };
  const full = fanState(data, 1);
  if (cap === 'full') return { state: full, note: null };
  if (full.levelDbA === null || full.levelDbA <= cap) {
    return { state: full, note: 'above the loudest fan state: full speed' };
  }
  const duty = dutyForLevel(data, cap, full.levelDbA);
  return duty > 0
    ? { state: fanState(data, duty), note: null }
    : { state: fanState(data, 0), note: 'below the quietest fan state: fans off' };
}
