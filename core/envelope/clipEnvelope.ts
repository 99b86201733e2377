import type { EnvelopeCorner } from './envelope';
import type { Binding, HalfPlane } from './limitTypes';

interface Vertex {
  x: number;
  y: number;
  /** What the edge from here to the next vertex is; null on the axes. */
  edge: Binding | null;
}

/**
 * An outline cut by half-planes: what the machine does as configured is what the cooling can carry, cut by firmware and
 * adapter.
 *
 * @param corners an outline from the GPU axis to the CPU axis
 * @param planes the cuts
 * @returns the outline that is left, in the same form; the origin alone where nothing is
 */
export function clipEnvelope(
  corners: readonly EnvelopeCorner[],
  planes: readonly HalfPlane[],
): EnvelopeCorner[] {
  let ring: Vertex[] = [
    ...corners.map((c) => ({ x: c.cpuWatts, y: c.gpuWatts, edge: c.edge })),
    { x: 0, y: 0, edge: null },
  ];
  for (const p of planes) {
    const side = ring.map((v) => p.headroom - p.cpu * v.x - p.gpu * v.y);
    if (side.every((s) => s >= 0)) continue;
    const next: Vertex[] = [];
    ring.forEach((a, i) => {
      const b = ring[(i + 1) % ring.length]!;
      const sa = side[i]!;
      const sb = side[(i + 1) % ring.length]!;
      if (sa >= 0) next.push(a);
      if (sa >= 0 === sb >= 0) return;
      const t = sa / (sa - sb);
      const x = a.x + t * (b.x - a.x);
      const y = a.y + t * (b.y - a.y);
      // leaving: the new edge runs along the cut; entering: the old edge goes on
      next.push({ x, y, edge: sa >= 0 ? p.binding : a.edge });
    });
    ring = next;
    if (ring.length < 3) return [{ cpuWatts: 0, gpuWatts: 0, edge: null }];
  }
  const origin = ring.findIndex((v) => v.x === 0 && v.y === 0);
  if (origin < 0) return [{ cpuWatts: 0, gpuWatts: 0, edge: null }];
  const out = [...ring.slice(origin + 1), ...ring.slice(0, origin)];
  return out.map((v, i) => ({
    cpuWatts: v.x,
    gpuWatts: v.y,
    edge: i + 1 < out.length ? v.edge : null,
  }));
}
