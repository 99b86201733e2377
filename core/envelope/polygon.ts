import type { HalfPlane } from './limitTypes';

export interface Corner {
  cpuW: number;
  gpuW: number;
  /** The half-plane that holds from this corner to the next, null at the last. */
  plane: HalfPlane | null;
}

/**
 * The part of the quadrant P_cpu, P_gpu ≥ 0 that lies inside all half-planes, as corners from the GPU axis to the CPU axis.
 *
 * Clips a large triangle by one half-plane after the other; each edge keeps the half-plane that cut it.
 *
 * @param planes limits; together they must bound both axes
 * @returns corners; a single corner at the origin where no watts fit
 */
export function clipPolygon(planes: readonly HalfPlane[]): Corner[] {
  const far = 1e5;
  interface Vertex {
    x: number;
    y: number;
    /** Edge from this vertex to the next. */
    plane: HalfPlane | 'axis' | 'far';
  }
  // from the GPU axis over the far side to the CPU axis, back over the origin
  let ring: Vertex[] = [
    { x: 0, y: far, plane: 'far' },
    { x: far, y: 0, plane: 'axis' },
    { x: 0, y: 0, plane: 'axis' },
  ];
  for (const p of planes) {
    const side = (v: Vertex) => p.headroom - p.cpu * v.x - p.gpu * v.y;
    const values = ring.map(side);
    if (values.every((s) => s >= 0)) continue;
    const next: Vertex[] = [];
    for (let i = 0; i < ring.length; i++) {
      const a = ring[i]!;
      const b = ring[(i + 1) % ring.length]!;
      const sa = values[i]!;
      const sb = values[(i + 1) % ring.length]!;
      if (sa >= 0) next.push(a);
      if (sa >= 0 === sb >= 0) continue;
      const t = sa / (sa - sb);
      const x = a.x + t * (b.x - a.x);
      const y = a.y + t * (b.y - a.y);
      // leaving: the new edge runs along p; entering: the old edge goes on
      next.push({ x, y, plane: sa >= 0 ? p : a.plane });
    }
    ring = next;
    if (ring.length < 3) return [{ cpuW: 0, gpuW: 0, plane: null }];
  }
  const corners: Corner[] = [];
  const first = ring.findIndex((v, i) => {
    const before = ring[(i + ring.length - 1) % ring.length]!;
    return v.plane !== 'axis' && before.plane === 'axis';
  });
  if (first < 0) return [{ cpuW: 0, gpuW: 0, plane: null }];
  for (let k = 0; k < ring.length; k++) {
    const v = ring[(first + k) % ring.length]!;
    if (v.plane === 'axis') {
      corners.push({ cpuW: v.x, gpuW: v.y, plane: null });
      break;
    }
    corners.push({ cpuW: v.x, gpuW: v.y, plane: v.plane === 'far' ? null : v.plane });
  }
  return corners;
}

/** Crossing of two limits' lines, or null where they are parallel. */
export function crossing(a: HalfPlane, b: HalfPlane): { cpuW: number; gpuW: number } | null {
  const det = a.cpu * b.gpu - a.gpu * b.cpu;
  const scale = Math.hypot(a.cpu, a.gpu) * Math.hypot(b.cpu, b.gpu);
  if (Math.abs(det) < 1e-9 * scale) return null;
  return {
    cpuW: (a.headroom * b.gpu - a.gpu * b.headroom) / det,
    gpuW: (a.cpu * b.headroom - a.headroom * b.cpu) / det,
  };
}
