import type { PlateSource } from '../conduction/plateSpreading';

/** A plate of a test: its heated sources on one face, and where the other is cooled. */
export interface PlateCase {
  widthM: number;
  lengthM: number;
  thicknessM: number;
  conductivityWmK: number;
  sources: readonly PlateSource[];
  cooled: { fromXM: number; toXM: number; fromYM: number; toYM: number };
  hWm2K: number;
}

/**
 * Mean temperature of each source over what cools the plate, per watt of one of them: three-dimensional conduction by finite
 * volumes, solved by conjugate gradients. Sides are insulated, and the cooled face outside what is cooled.
 *
 * @param heated which source gives off one watt
 * @param cellM side of a cell; borders of sources and of what is cooled lie on cells, or a little off
 * @param layers over the thickness
 */
export function plateReference(c: PlateCase, heated: number, cellM: number, layers = 4): number[] {
  const nx = Math.round(c.widthM / cellM);
  const ny = Math.round(c.lengthM / cellM);
  const dx = c.widthM / nx;
  const dy = c.lengthM / ny;
  const dz = c.thicknessM / layers;
  const k = c.conductivityWmK;
  const plane = nx * ny;
  const n = plane * layers;
  const gx = (k * dy * dz) / dx;
  const gy = (k * dx * dz) / dy;
  const gz = (k * dx * dy) / dz;
  // the last half cell and the film in series
  const film = 1 / (1 / (c.hWm2K * dx * dy) + dz / 2 / (k * dx * dy));
  const cooled = new Float64Array(plane);
  const inside = (x: number, y: number, b: { x0: number; x1: number; y0: number; y1: number }) =>
    x > b.x0 && x < b.x1 && y > b.y0 && y < b.y1;
  const cells = c.sources.map(() => [] as number[]);
  for (let j = 0; j < ny; j++) {
    for (let i = 0; i < nx; i++) {
      const x = (i + 0.5) * dx;
      const y = (j + 0.5) * dy;
      const { fromXM: x0, toXM: x1, fromYM: y0, toYM: y1 } = c.cooled;
      if (inside(x, y, { x0, x1, y0, y1 })) cooled[j * nx + i] = film;
      c.sources.forEach((s, q) => {
        const box = {
          x0: s.centreXM - s.widthM / 2,
          x1: s.centreXM + s.widthM / 2,
          y0: s.centreYM - s.lengthM / 2,
          y1: s.centreYM + s.lengthM / 2,
        };
        if (inside(x, y, box)) cells[q]!.push(j * nx + i);
      });
    }
  }
  const b = new Float64Array(n);
  for (const p of cells[heated]!) b[p] = 1 / cells[heated]!.length;
  const apply = (x: Float64Array, y: Float64Array) => {
    y.fill(0);
    const pair = (p: number, q: number, g: number) => {
      const flow = g * (x[p]! - x[q]!);
      y[p]! += flow;
      y[q]! -= flow;
    };
    for (let l = 0; l < layers; l++) {
      for (let j = 0; j < ny; j++) {
        for (let i = 0; i < nx; i++) {
          const p = l * plane + j * nx + i;
          if (i + 1 < nx) pair(p, p + 1, gx);
          if (j + 1 < ny) pair(p, p + nx, gy);
          if (l + 1 < layers) pair(p, p + plane, gz);
          else y[p]! += cooled[j * nx + i]! * x[p]!;
        }
      }
    }
  };
  const x = conjugateGradients(apply, b);
  // cell centres lie half a cell below the heated face
  return cells.map((own, q) => {
    const mean = own.reduce((sum, p) => sum + x[p]!, 0) / own.length;
    return q === heated ? mean + dz / 2 / (k * own.length * dx * dy) : mean;
  });
}

/** Solves `A x = b`, A symmetric and not negative, given by its product. */
export function conjugateGradients(
  apply: (x: Float64Array, y: Float64Array) => void,
  b: Float64Array,
): Float64Array {
  const n = b.length;
  const x = new Float64Array(n);
  const r = b.slice();
  const p = b.slice();
  const ap = new Float64Array(n);
  const dot = (u: Float64Array, v: Float64Array) => {
    let sum = 0;
    for (let i = 0; i < n; i++) sum += u[i]! * v[i]!;
    return sum;
  };
  let rr = dot(r, r);
  const small = 1e-14 * rr;
  for (let step = 0; step < 4000 && rr > small; step++) {
    apply(p, ap);
    const alpha = rr / dot(p, ap);
    for (let i = 0; i < n; i++) {
      x[i]! += alpha * p[i]!;
      r[i]! -= alpha * ap[i]!;
    }
    const next = dot(r, r);
    for (let i = 0; i < n; i++) p[i] = r[i]! + (next / rr) * p[i]!;
    rr = next;
  }
  return x;
}
