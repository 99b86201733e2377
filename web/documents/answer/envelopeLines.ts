import type { CapEstimate } from '@zugluft/core/case/answer';
import type { Binding } from '@zugluft/core/envelope/limitTypes';

/** How a stretch of an envelope is drawn, so that its limit is told without colour. */
export type LineStyle = 'solid' | 'dashed' | 'dotted' | 'long';

export function lineStyle(binding: Binding): LineStyle {
  if (binding.limit === 'junction') return binding.part === 'cpu' ? 'dashed' : 'solid';
  return binding.limit === 'pipe' || binding.limit === 'chamber' ? 'dotted' : 'long';
}

export const DASH: Record<LineStyle, number[]> = {
  solid: [],
  dashed: [7, 4],
  dotted: [2, 3],
  long: [14, 4],
};

export interface Point {
  cpu: number;
  gpu: number;
}

/** One stretch of an envelope under one limit. */
export interface Stretch {
  cap: CapEstimate['cap'];
  binding: Binding;
  points: Point[];
}

/** Splits envelopes into stretches of one limit each, in the order from the GPU axis to the CPU axis. */
export function stretches(caps: readonly CapEstimate[]): Stretch[] {
  const out: Stretch[] = [];
  for (const c of caps) {
    for (let i = 0; i + 1 < c.envelope.length; i++) {
      const a = c.envelope[i]!;
      const b = c.envelope[i + 1]!;
      if (!a.edge) continue;
      const last = out[out.length - 1];
      const end = { cpu: b.cpuWatts, gpu: b.gpuWatts };
      if (last && last.cap === c.cap && sameName(last.binding, a.edge)) {
        last.points.push(end);
        continue;
      }
      out.push({
        cap: c.cap,
        binding: a.edge,
        points: [{ cpu: a.cpuWatts, gpu: a.gpuWatts }, end],
      });
    }
  }
  return out;
}

function sameName(a: Binding, b: Binding): boolean {
  return a.limit === b.limit && a.part === b.part && a.kind === b.kind;
}

/**
 * The place a share of the way along an envelope, from the GPU axis (0) to the CPU axis (1), by length of line.
 *
 * @returns the place and the limit that holds there
 */
export function placeAlong(
  cap: { envelope: Readonly<CapEstimate['envelope']> },
  share: number,
): { point: Point; binding: Binding | null } {
  const e = cap.envelope;
  const first = e[0]!;
  if (e.length < 2) return { point: { cpu: first.cpuWatts, gpu: first.gpuWatts }, binding: null };
  const lengths: number[] = [];
  for (let i = 0; i + 1 < e.length; i++) {
    lengths.push(
      Math.hypot(e[i + 1]!.cpuWatts - e[i]!.cpuWatts, e[i + 1]!.gpuWatts - e[i]!.gpuWatts),
    );
  }
  const total = lengths.reduce((a, b) => a + b, 0);
  let left = Math.min(1, Math.max(0, share)) * total;
  for (let i = 0; i < lengths.length; i++) {
    const length = lengths[i]!;
    if (left <= length || i === lengths.length - 1) {
      const w = length > 0 ? Math.min(1, left / length) : 0;
      const a = e[i]!;
      const b = e[i + 1]!;
      return {
        point: {
          cpu: a.cpuWatts + w * (b.cpuWatts - a.cpuWatts),
          gpu: a.gpuWatts + w * (b.gpuWatts - a.gpuWatts),
        },
        binding: a.edge,
      };
    }
    left -= length;
  }
  return { point: { cpu: 0, gpu: 0 }, binding: null };
}

/** The cap and share whose place lies nearest to a point of the chart. */
export function nearestPlace(
  caps: readonly CapEstimate[],
  point: Point,
): { capIndex: number; share: number } {
  let best = { capIndex: 0, share: 0 };
  let least = Infinity;
  caps.forEach((c, capIndex) => {
    for (let k = 0; k <= 100; k++) {
      const { point: p } = placeAlong(c, k / 100);
      const d = Math.hypot(p.cpu - point.cpu, p.gpu - point.gpu);
      if (d < least) {
        least = d;
        best = { capIndex, share: k / 100 };
      }
    }
  });
  return best;
}
