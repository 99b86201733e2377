import type { EnvelopeCorner } from '../envelope/envelope';
import type { Binding } from '../envelope/limitTypes';

/**
 * What a workload wants: so much worth of each die's watts, both in a fixed ratio, or a least of the CPU's and then as much GPU as can
 * be.
 */
export type Wanted =
  { cpu: number; gpu: number } | { ratio: { cpu: number; gpu: number } } | { atLeastCpuW: number };

/** The best point of an outline for a workload. */
export interface Split {
  cpuWatts: number;
  gpuWatts: number;
  /** What was to be greatest: the weighted sum, or the GPU's watts. */
  value: number;
  /** What holds it there; null at the ends of the outline, where one die has nothing. */
  binding: Binding | null;
}

/**
 * The best CPU and GPU watts within an outline: a corner for weights, a point of an edge for a ratio or a least of the CPU.
 *
 * @param outline corners from the GPU axis to the CPU axis
 * @param wanted the workload
 * @returns null where the outline holds no such point
 */
export function splitWatts(outline: readonly EnvelopeCorner[], wanted: Wanted): Split | null {
  if ('atLeastCpuW' in wanted) return atLeastCpu(outline, wanted.atLeastCpuW);
  if ('ratio' in wanted) return inRatio(outline, wanted.ratio);
  let best: Split | null = null;
  outline.forEach((c, i) => {
    const value = wanted.cpu * c.cpuWatts + wanted.gpu * c.gpuWatts;
    if (best && value <= best.value + 1e-12) return;
    const binding = c.edge ?? outline[i - 1]?.edge ?? null;
    best = { cpuWatts: c.cpuWatts, gpuWatts: c.gpuWatts, value, binding };
  });
  return best;
}

/** The most GPU watts at so many CPU watts or more: past the outline’s highest point it only falls. */
function atLeastCpu(outline: readonly EnvelopeCorner[], leastW: number): Split | null {
  let best: Split | null = null;
  const take = (cpuWatts: number, gpuWatts: number, binding: Binding | null) => {
    if (best && gpuWatts <= best.gpuWatts + 1e-12) return;
    best = { cpuWatts, gpuWatts, value: gpuWatts, binding };
  };
  outline.forEach((a, i) => {
    if (a.cpuWatts >= leastW) take(a.cpuWatts, a.gpuWatts, a.edge ?? outline[i - 1]?.edge ?? null);
    const b = outline[i + 1];
    if (!b) return;
    const [low, high] = [Math.min(a.cpuWatts, b.cpuWatts), Math.max(a.cpuWatts, b.cpuWatts)];
    if (!(leastW > low && leastW < high)) return;
    const t = (leastW - a.cpuWatts) / (b.cpuWatts - a.cpuWatts);
    take(leastW, a.gpuWatts + t * (b.gpuWatts - a.gpuWatts), a.edge);
  });
  return best;
}

/** Where the ray of a ratio leaves the outline. */
function inRatio(
  outline: readonly EnvelopeCorner[],
  { cpu, gpu }: { cpu: number; gpu: number },
): Split | null {
  let best: Split | null = null;
  const side = (c: EnvelopeCorner) => c.cpuWatts * gpu - c.gpuWatts * cpu;
  outline.forEach((a, i) => {
    const b = outline[i + 1];
    if (!b || side(a) * side(b) > 0) return;
    const wide = side(a) - side(b);
    const t = Math.abs(wide) > 1e-12 ? side(a) / wide : 0;
    const cpuWatts = a.cpuWatts + t * (b.cpuWatts - a.cpuWatts);
    const gpuWatts = a.gpuWatts + t * (b.gpuWatts - a.gpuWatts);
    const value = cpuWatts + gpuWatts;
    if (!best || value > best.value) best = { cpuWatts, gpuWatts, value, binding: a.edge };
  });
  return best;
}
