import { components } from './components';
import type { Mask } from './copperMask';
import { distanceWithin } from './distanceWithin';
import { longestWay } from './longestWay';
import { medianOf } from './median';
import { lightAt, type Picture } from './picture';
import type { PointPx } from './point';
import { dist } from './polygon';
import { simplified } from './simplified';
import { skeleton } from './skeleton';

/** A strip in the colour of copper that is as wide all along, in pixels of the whole picture. */
export interface FoundPipe {
  /** Its middle from end to end. */
  points: PointPx[];
  widthPx: number;
  /** At its first and last point: whether it ends there; else the colour goes on in something wider, and it perhaps as well. */
  ends: [boolean, boolean];
  /** Of how many pieces it is, in one line across what hides or is as copper as it. */
  pieces: number;
}

/** Heat pipes of notebooks as pressed, mm across (common practice, no source). */
const WIDTH_MM = [3.5, 13] as const;
/** Shorter than so many of its widths, anything may look so. */
const LEAST_LONG = 4;
/** Its half width differs from the middle one by no more than this share, over four fifths of its length. */
const EVEN = 0.3;
/** Its area against length times width. */
const FILLS = [0.75, 1.3] as const;
/** Between two strips beside each other it is darker than this share of both. */
const SEAM = 0.65;
/** How far from a straight way the middle is drawn, squares. */
const SLACK = 0.7;
/** A pipe that goes on behind a plate does so straight: at most so far aside of itself, in widths. */
const ASIDE = 0.5;
/** At most so far, mm: plates of notebooks (common practice, no source). */
const ACROSS_MM = 110;
const STRAIGHT_COS = Math.cos((20 * Math.PI) / 180);

/** A piece of a pipe, in squares of the mask. */
interface Piece {
  points: PointPx[];
  width: number;
  ends: [boolean, boolean];
  /** Which way it points at each end. */
  out: [PointPx, PointPx];
}

/**
 * Finds pipes by their colour: what is of copper, without all that is wider than a pipe, thinned to its middle; strips that are as
 * wide all along, and long. Pieces on both sides of a plate that lie in one line are one pipe.
 *
 * @param mask where it shows copper
 * @param picture the same, for seams between two pipes that touch
 * @param mmPerSquare of the mask
 * @returns the longest first
 */
export function findPipes(mask: Mask, picture: Picture, mmPerSquare: number): FoundPipe[] {
  const { width: w, height: h, by, is } = mask;
  const [least, most] = WIDTH_MM.map((mm) => mm / mmPerSquare) as [number, number];
  const wide = opened(is, w, h, most / 2);
  const thin = is.map((inside, i) => (inside && !wide[i] ? 1 : 0));
  const deep = distanceWithin(thin, w, h);
  const middle = skeleton(thin, w, h);
  const pieces = components(thin, w, h)
    .filter((squares) => squares.length > LEAST_LONG * least * least)
    .flatMap((squares) => pieceOf(squares, { w, deep, middle, thin, wide, least }) ?? [])
    .filter((piece) => !hasSeam(piece, picture, by));
  return joined(pieces, is, w, ACROSS_MM / mmPerSquare)
    .map(({ points, width, ends, pieces: n }) => ({
      points: points.map(([x, y]): PointPx => [(x + 0.5) * by, (y + 0.5) * by]),
      widthPx: width * by,
      ends,
      pieces: n,
    }))
    .sort((a, b) => lengthOf(b.points) - lengthOf(a.points));
}

export const lengthOf = (points: readonly PointPx[]): number =>
  points.slice(1).reduce((sum, p, i) => sum + dist(points[i]!, p), 0);

/** What of a mask a disc of this radius fits into, as far as the disc reaches. */
function opened(is: Uint8Array, w: number, h: number, radius: number): Uint8Array {
  const deep = distanceWithin(is, w, h);
  const noMiddle = Uint8Array.from(deep, (d) => (d > radius ? 0 : 1));
  const fromMiddle = distanceWithin(noMiddle, w, h, false);
  return is.map((inside, i) => (inside && fromMiddle[i]! <= radius + 0.5 ? 1 : 0));
}

interface Field {
  w: number;
  deep: Float32Array;
  middle: Uint8Array;
  thin: Uint8Array;
  wide: Uint8Array;
  /** Narrowest pipe. */
  least: number;
}

/** The strip that a group of squares is; null where it is none. */
function pieceOf(squares: Int32Array, field: Field): Piece | null {
  const { w, deep, middle, least } = field;
  const way = longestWay(
    squares.filter((i) => middle[i]),
    w,
  );
  if (way.length < 2) return null;
  const at = way.map((i): PointPx => [i % w, Math.floor(i / w)]);
  const halves = way.map((i) => deep[i]! - 0.5);
  const half = medianOf(halves);
  const width = 2 * half;
  if (width < least) return null;
  const even = halves.filter((x) => Math.abs(x - half) < EVEN * half).length;
  // towards its ends the middle runs into a corner, or along the mouth of a plate
  const cut = Math.ceil(1.5 * half);
  const inner = softened(at.slice(cut, at.length - cut), Math.max(1, Math.round(half / 2)));
  if (inner.length < 2 * half || even < 0.8 * (halves.length - 2 * cut)) return null;
  const ends: Piece['ends'] = [true, true];
  const out: Piece['out'] = [
    [0, 0],
    [0, 0],
  ];
  for (const side of [0, 1] as const) {
    if (side === 1) inner.reverse();
    let tip = onwards(inner, half, field);
    if (tip.goesOn) {
      // at the mouth of something wide its middle is led aside
      inner.splice(0, Math.round(half));
      tip = onwards(inner, half, field);
    }
    ends[side] = !tip.goesOn;
    out[side] = tip.step;
    inner.unshift(tip.end);
    if (side === 1) inner.reverse();
  }
  const length = lengthOf(inner);
  const fills = squares.length / (length * width);
  if (length < LEAST_LONG * width || fills < FILLS[0] || fills > FILLS[1]) return null;
  return { points: simplified(inner, SLACK), width, ends, out };
}

/** Straight on from the first of some points until the strip ends; whether something wide begins there. */
function onwards(points: readonly PointPx[], half: number, { thin, wide, w }: Field) {
  const STEP = 0.25;
  const from = points[0]!;
  const back = points[Math.min(points.length - 1, Math.round(3 * half))]!;
  const long = dist(from, back);
  const step: PointPx = [(from[0] - back[0]) / long, (from[1] - back[1]) / long];
  const square = (t: number) =>
    Math.round(from[1] + t * step[1]) * w + Math.round(from[0] + t * step[0]);
  let t = 0;
  while (thin[square(t + STEP)]) t += STEP;
  const BEYOND = 3;
  let goesOn = false;
  for (let d = 0; d <= BEYOND; d += STEP) if (wide[square(t + d)]) goesOn = true;
  const end: PointPx = [from[0] + t * step[0], from[1] + t * step[1]];
  return { end, step, goesOn };
}

/** Each point the mean of those about it; fewer towards the ends, so that they stay. */
function softened(points: readonly PointPx[], reach: number): PointPx[] {
  return points.map((_, i): PointPx => {
    const r = Math.min(reach, i, points.length - 1 - i);
    let x = 0;
    let y = 0;
    for (let k = i - r; k <= i + r; k++) {
      x += points[k]![0];
      y += points[k]![1];
    }
    return [x / (2 * r + 1), y / (2 * r + 1)];
  });
}

/** Whether two strips beside each other were taken for one: along most of it, its middle is darker than both sides of it. */
function hasSeam({ points, width }: Piece, picture: Picture, by: number): boolean {
  let places = 0;
  let seams = 0;
  points.slice(1).forEach((b, k) => {
    const a = points[k]!;
    const long = dist(a, b);
    if (long === 0) return;
    const [ex, ey] = [(b[0] - a[0]) / long, (b[1] - a[1]) / long];
    for (let t = width / 4; t < long; t += width / 2) {
      const light = (aside: number) =>
        lightAt(
          picture,
          (a[0] + t * ex - aside * ey + 0.5) * by,
          (a[1] + t * ey + aside * ex + 0.5) * by,
        );
      let low = Infinity;
      const high = [0, 0];
      // a seam may be as thin as a pixel
      const step = 1 / Math.ceil(width * by);
      for (let s = -0.45; s <= 0.45; s += step) {
        const here = light(s * width);
        if (Math.abs(s) < 0.18) low = Math.min(low, here);
        else high[s < 0 ? 0 : 1] = Math.max(high[s < 0 ? 0 : 1]!, here);
      }
      places++;
      if (low < SEAM * Math.min(...high)) seams++;
    }
  });
  return places > 0 && seams > places / 2;
}

type Joined = Omit<Piece, 'out'> & { pieces: number };

/** Pieces that lie in one line, with copper all the way between them, as one. Where two could follow, none does. */
function joined(pieces: readonly Piece[], is: Uint8Array, w: number, most: number): Joined[] {
  type Tip = { piece: number; side: 0 | 1; at: PointPx; out: PointPx };
  const tips = pieces.flatMap(({ points, ends, out }, piece) =>
    ([0, 1] as const).flatMap((side): Tip[] =>
      ends[side] ? [] : [{ piece, side, at: points.at(side === 0 ? 0 : -1)!, out: out[side] }],
    ),
  );
  const follows = (a: Tip, b: Tip): boolean => {
    if (a.piece === b.piece) return false;
    const [wa, wb] = [pieces[a.piece]!.width, pieces[b.piece]!.width];
    const gap = dist(a.at, b.at);
    if (gap > most || Math.abs(wa - wb) > 0.25 * Math.max(wa, wb)) return false;
    const way: PointPx = [(b.at[0] - a.at[0]) / gap, (b.at[1] - a.at[1]) / gap];
    const aside = (t: Tip) => Math.abs(way[0] * t.out[1] - way[1] * t.out[0]) * gap;
    const ahead = way[0] * a.out[0] + way[1] * a.out[1];
    const facing = -(way[0] * b.out[0] + way[1] * b.out[1]);
    if (ahead < STRAIGHT_COS || facing < STRAIGHT_COS) return false;
    if (Math.max(aside(a), aside(b)) > ASIDE * Math.min(wa, wb)) return false;
    for (let t = 0.5; t < gap; t += 0.5) {
      const i = Math.round(a.at[1] + t * way[1]) * w + Math.round(a.at[0] + t * way[0]);
      // the seam between two groups of squares is no gap
      if (!is[i] && !is[i - 1] && !is[i + 1] && !is[i - w] && !is[i + w]) return false;
    }
    return true;
  };
  const partner = tips.map((a) => {
    const all = tips.flatMap((b, k) => (follows(a, b) ? [k] : []));
    return all.length === 1 ? all[0]! : -1;
  });
  const next = (tip: number): number => {
    const other = partner[tip] ?? -1;
    return other >= 0 && partner[other] === tip ? other : -1;
  };
  const tipAt = (piece: number, side: 0 | 1) =>
    tips.findIndex((t) => t.piece === piece && t.side === side);
  const used = new Set<number>();
  const chain = (start: number, enters: 0 | 1) => {
    const points: PointPx[] = [];
    const widths: number[] = [];
    let [piece, side] = [start, enters];
    let last = true;
    while (!used.has(piece)) {
      used.add(piece);
      const own = pieces[piece]!;
      points.push(...(side === 0 ? own.points : [...own.points].reverse()));
      widths.push(own.width);
      const out = side === 0 ? 1 : 0;
      last = own.ends[out];
      const other = next(tipAt(piece, out));
      if (other < 0) break;
      ({ piece, side } = tips[other]!);
    }
    return { points, widths, last };
  };
  const all: Joined[] = [];
  pieces.forEach((piece, i) => {
    if (used.has(i)) return;
    // from an end that nothing precedes; a ring has none and begins anywhere
    let [first, side] = [i, 0 as 0 | 1];
    const been = new Set<number>();
    for (;;) {
      const other = next(tipAt(first, side));
      if (other < 0 || been.has(first)) break;
      been.add(first);
      first = tips[other]!.piece;
      side = tips[other]!.side === 0 ? 1 : 0;
    }
    const begins = pieces[first]!.ends[side];
    const { points, widths, last } = chain(first, side);
    all.push({ points, width: medianOf(widths), ends: [begins, last], pieces: widths.length });
  });
  return all;
}
