import type { PointPx } from './point';
import type { ScaleItem } from './marksFile';

/** The outline of the machine itself: places of parts are told in it. */
export const SHELL = 'shell';

/** Something that lies in many pictures and is made to one size. */
export interface KnownThing {
  /** As it is kept with a reference. */
  what: string;
  name: string;
  kind: ScaleItem['kind'];
  /** Absent where it is different for each machine, and typed. */
  widthMm?: number;
  heightMm?: number;
  mm?: number;
  diameterMm?: number;
}

/**
 * Things of known size, the usual first. Width is from the first corner to the second.
 *
 * Sources: JEDEC outlines of small-outline memory modules, PCI-SIG M.2, IEC 60086-3 (coin cell 2032); sizes from memory. Memory modules of
 * laptops are 67.6 mm or, newer ones, 69.6 mm long: the wrong one is 3 % off, so that both stand here.
 */
export const KNOWN_THINGS: readonly KnownThing[] = [
  {
    what: 'memory-module',
    name: 'memory module 67.6 × 30',
    kind: 'rectangle',
    widthMm: 67.6,
    heightMm: 30,
  },
  {
    what: 'memory-module-69',
    name: 'memory module 69.6 × 30',
    kind: 'rectangle',
    widthMm: 69.6,
    heightMm: 30,
  },
  { what: 'card-80', name: 'storage card 22 × 80', kind: 'rectangle', widthMm: 80, heightMm: 22 },
  { what: 'card-60', name: 'storage card 22 × 60', kind: 'rectangle', widthMm: 60, heightMm: 22 },
  { what: 'card-42', name: 'storage card 22 × 42', kind: 'rectangle', widthMm: 42, heightMm: 22 },
  { what: 'card-30', name: 'storage card 22 × 30', kind: 'rectangle', widthMm: 30, heightMm: 22 },
  { what: 'coin-cell', name: 'coin cell, 20.0 across', kind: 'circle', diameterMm: 20 },
  { what: SHELL, name: 'shell, as recorded', kind: 'rectangle' },
  { what: 'known-rectangle', name: 'rectangle of known sides', kind: 'rectangle' },
  { what: 'known-length', name: 'known length or ruler', kind: 'length' },
  { what: 'known-circle', name: 'circle of known diameter', kind: 'circle' },
  { what: 'straight-edge', name: 'straight edge, for the lens', kind: 'straight' },
  { what: 'known-lens', name: 'lens, as a grid told it', kind: 'lens' },
];

/** Points that are clicked for a reference of a kind: at least, at most. */
export const REFERENCE_POINTS: Record<ScaleItem['kind'], readonly [number, number]> = {
  rectangle: [4, 4],
  length: [2, 2],
  circle: [3, 500],
  straight: [3, 500],
  lens: [0, 0],
};

/** Sizes of a reference, mm; one for a length or a circle, none for a straight edge; of a lens k1 and its ±. */
export type SizesMm = readonly [number] | readonly [number, number];

/** A reference from its points and sizes. */
export function referenceItem(
  kind: ScaleItem['kind'],
  points: readonly PointPx[],
  [a, b = a]: SizesMm | readonly number[],
  aboveMm?: number,
): ScaleItem {
  const above = aboveMm ? { aboveMm } : {};
  const at = points.map((p): [number, number] => [p[0], p[1]]);
  switch (kind) {
    case 'rectangle':
      return { kind, corners: at, widthMm: a!, heightMm: b!, ...above };
    case 'length':
      return { kind, from: at[0]!, to: at[1]!, mm: a!, ...above };
    case 'circle':
      return { kind, points: at, diameterMm: a!, ...above };
    case 'straight':
      return { kind, points: at };
    case 'lens':
      return { kind, k1: a!, plusMinus: b! };
  }
}

/** Sizes of a reference as it stands. */
export function sizesOf(item: ScaleItem): number[] {
  if (item.kind === 'straight') return [];
  if (item.kind === 'lens') return [item.k1, item.plusMinus];
  if (item.kind === 'rectangle') return [item.widthMm, item.heightMm];
  return [item.kind === 'length' ? item.mm : item.diameterMm];
}

/** Points of a reference as it stands. */
export function pointsOf(item: ScaleItem): PointPx[] {
  if (item.kind === 'rectangle') return item.corners;
  if (item.kind === 'lens') return [];
  return item.kind === 'length' ? [item.from, item.to] : item.points;
}
