import type { CaseData } from '../record/caseData';
import { distanceChange, fanLevelDbA, sumLevels } from './fanLevel';

/**
 * Level of the machine with all fans on one duty.
 *
 * A measured sweep rules: straight between its points over the logarithm of duty, beyond its ends by 50·log10. Without one
 * the fans' levels are summed.
 *
 * @param data the case
 * @param rpms speed of each fan, 0: stopped
 * @returns level at the lab's microphone position, or null with every fan stopped
 */
export function machineLevelDbA(data: CaseData, rpms: readonly number[]): number | null {
  const running = rpms.some((x) => x > 0);
  if (!running) return null;
  const sweep = sweepByDuty(data);
  if (sweep.length) return readSweep(sweep, meanDuty(data, rpms));
  const levels: number[] = [];
  data.fans.forEach((f, i) => {
    const rpm = rpms[i]!;
    if (rpm > 0)
      levels.push(fanLevelDbA(f.diameterM, f.bladeHeightM, rpm, data.noise.referenceDbA));
  });
  return sumLevels(levels) + distanceChange(data.noise.distanceM);
}

function meanDuty(data: CaseData, rpms: readonly number[]): number {
  let sum = 0;
  data.fans.forEach((f, i) => (sum += rpms[i]! / f.maxRpm));
  return sum / data.fans.length;
}

interface SweepPoint {
  logDuty: number;
  dbA: number;
}

function sweepByDuty(data: CaseData): SweepPoint[] {
  const points = data.noise.sweep
    .map((s) => {
      let sum = 0;
      let count = 0;
      for (const f of data.fans) {
        const rpm = s.rpm[f.id];
        if (rpm === undefined) continue;
        sum += rpm / f.maxRpm;
        count++;
      }
      return { duty: count ? sum / count : 0, dbA: s.dbA };
    })
    .filter((p) => p.duty > 0)
    .sort((a, b) => a.duty - b.duty);
  const out: SweepPoint[] = [];
  for (const p of points) {
    const logDuty = Math.log10(p.duty);
    const before = out[out.length - 1];
    if (before && logDuty - before.logDuty < 1e-6) continue;
    // level must rise with duty, or a cap would have no one state
    out.push({ logDuty, dbA: Math.max(p.dbA, before ? before.dbA + 0.01 : -Infinity) });
  }
  return out;
}

function readSweep(points: readonly SweepPoint[], duty: number): number {
  const x = Math.log10(duty);
  const first = points[0]!;
  const last = points[points.length - 1]!;
  if (x <= first.logDuty) return first.dbA + 50 * (x - first.logDuty);
  if (x >= last.logDuty) return last.dbA + 50 * (x - last.logDuty);
  for (let i = 1; i < points.length; i++) {
    const b = points[i]!;
    if (x > b.logDuty) continue;
    const a = points[i - 1]!;
    return a.dbA + ((b.dbA - a.dbA) * (x - a.logDuty)) / (b.logDuty - a.logDuty);
  }
  return last.dbA;
}
