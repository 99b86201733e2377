import { conjugateGradients } from './plateReference';

/** A die on the cells of a chamber: its middle and sides. */
export interface DarcyDie {
  x: number;
  y: number;
  w: number;
  l: number;
  /** Watts it gives off. */
  watts: number;
}

/**
 * Pressure in the wick of a chamber of `w` by `l` square cells by finite volumes: two-dimensional Darcy flow, condensed evenly
 * over all, evaporated over the dies, no flow over the rim.
 *
 * @returns cells row by row, in units in which one watt in parallel flow through a square loses 1/(2π)
 */
export function darcyPressures(dies: readonly DarcyDie[], w: number, l: number): Float64Array {
  const cells = w * l;
  const b = new Float64Array(cells);
  for (const die of dies) {
    const inside: number[] = [];
    for (let j = 0; j < l; j++) {
      for (let i = 0; i < w; i++) {
        if (Math.abs(i + 0.5 - die.x) < die.w / 2 && Math.abs(j + 0.5 - die.y) < die.l / 2)
          inside.push(j * w + i);
      }
    }
    for (let k = 0; k < cells; k++) b[k]! += die.watts / cells;
    for (const k of inside) b[k]! -= die.watts / inside.length;
  }
  const p = conjugateGradients((x, y) => {
    y.fill(0);
    const pair = (at: number, next: number) => {
      const flow = x[at]! - x[next]!;
      y[at]! += flow;
      y[next]! -= flow;
    };
    for (let j = 0; j < l; j++) {
      for (let i = 0; i < w; i++) {
        if (i + 1 < w) pair(j * w + i, j * w + i + 1);
        if (j + 1 < l) pair(j * w + i, (j + 1) * w + i);
      }
    }
  }, b);
  return p.map((x) => 2 * Math.PI * x);
}

/** How far the pressure falls from where it is highest to the middle of a die. */
export function darcyFall(pressures: Float64Array, die: DarcyDie, w: number): number {
  return Math.max(...pressures) - pressures[Math.floor(die.y) * w + Math.floor(die.x)]!;
}
