import type { Cover } from '@zugluft/core/library/attachment';

const MIN = 0.01;
const clamp = (x: number, low: number, high: number) => Math.min(high, Math.max(low, x));

/** The box between two points, all as shares of the photo; null where it is too small to be meant. */
export function boxBetween(a: [number, number], b: [number, number]): Cover | null {
  const [x0, x1] = [a[0], b[0]].map((v) => clamp(v, 0, 1)).sort((p, q) => p - q) as [
    number,
    number,
  ];
  const [y0, y1] = [a[1], b[1]].map((v) => clamp(v, 0, 1)).sort((p, q) => p - q) as [
    number,
    number,
  ];
  return x1 - x0 < MIN || y1 - y0 < MIN ? null : [x0, y0, x1 - x0, y1 - y0];
}

/** A box moved by a share of the photo, held within it. */
export function moveBox([x, y, w, h]: Cover, dx: number, dy: number): Cover {
  return [clamp(x + dx, 0, 1 - w), clamp(y + dy, 0, 1 - h), w, h];
}

/** A box made wider or higher from its upper left corner, held within the photo. */
export function growBox([x, y, w, h]: Cover, dw: number, dh: number): Cover {
  return [x, y, clamp(w + dw, MIN, 1 - x), clamp(h + dh, MIN, 1 - y)];
}
