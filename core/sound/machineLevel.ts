import type { CaseData } from '../record/caseData';
import { distanceChange, fanLevelDbA } from './fanLevel';

/**
 * Level of the machine with its fans at given speeds.
 *
 * Each fan at full speed has its weight `10^(L/10)`, and its sound power follows the fifth power of duty. Without a sweep the
 * levels are summed: `10·log10 Σ wᵢ dᵢ⁵`. A measured sweep rules: it is read at the common duty that would sound alike,
 * `(Σ wᵢ dᵢ⁵ / Σ wᵢ)^⅕`, straight between its points over the logarithm of duty, beyond its ends by 50·log10.
 *
 * @param data the case
 * @param rpms speed of each fan, 0: stopped
 * @returns level at the lab's microphone position, or null with every fan stopped
 */
export function machineLevelDbA(data: CaseData, rpms: ArrayLike<number>): number | null {
  const { sum, total } = weigh(data, (i) => rpms[i]!);
  if (!(sum > 0)) return null;
  const { sweep } = data.noise;
  if (sweep.length === 0) return 10 * Math.log10(sum) + distanceChange(data.noise.distanceM);
  return readSweep(sweepByDuty(data), 0.2 * Math.log10(sum / total)) + data.noise.sweepOffsetDb;
}

/** Whether a measured sweep rules the level. */
export function hasSweep(data: CaseData): boolean {
  return data.noise.sweep.length > 0;
}

function weigh(data: CaseData, rpm: (fan: number) => number): { sum: number; total: number } {
  let sum = 0;
  let total = 0;
  const { referenceDbA, densityKgM3 } = data.noise;
  data.fans.forEach((f, i) => {
    const weight =
      10 ** (0.1 * fanLevelDbA(f.diameterM, f.bladeHeightM, f.maxRpm, referenceDbA, densityKgM3));
    total += weight;
    sum += weight * (rpm(i) / f.maxRpm) ** 5;
  });
  return { sum, total };
}

interface SweepPoint {
  logDuty: number;
  dbA: number;
}

const sweeps = new WeakMap<CaseData, SweepPoint[]>();

function sweepByDuty(data: CaseData): SweepPoint[] {
  const known = sweeps.get(data);
  if (known) return known;
  const points = data.noise.sweep
    .map((s) => {
      const { sum, total } = weigh(data, (i) => s.rpm[data.fans[i]!.id] ?? 0);
      return { logDuty: 0.2 * Math.log10(sum / total), dbA: s.dbA };
    })
    .filter((p) => Number.isFinite(p.logDuty))
    .sort((a, b) => a.logDuty - b.logDuty);
  const out: SweepPoint[] = [];
  for (const p of points) {
    const before = out[out.length - 1];
    if (before && p.logDuty - before.logDuty < 1e-6) continue;
    // level must rise with duty, or a cap would have no one state
    out.push({ ...p, dbA: Math.max(p.dbA, before ? before.dbA + 0.01 : -Infinity) });
  }
  sweeps.set(data, out);
  return out;
}

function readSweep(points: readonly SweepPoint[], logDuty: number): number {
  const first = points[0]!;
  const last = points[points.length - 1]!;
  if (logDuty <= first.logDuty) return first.dbA + 50 * (logDuty - first.logDuty);
  for (let i = 1; i < points.length; i++) {
    const b = points[i]!;
    if (logDuty > b.logDuty) continue;
    const a = points[i - 1]!;
    return a.dbA + ((b.dbA - a.dbA) * (logDuty - a.logDuty)) / (b.logDuty - a.logDuty);
  }
  return last.dbA + 50 * (logDuty - last.logDuty);
}
