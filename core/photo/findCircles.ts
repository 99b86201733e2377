import { fitCircle } from './fitCircle';
import type { PointPx } from './point';
import type { Reduced } from './reduced';

/** A circle that was found in a reduced picture, in pixels of the whole one. */
export interface FoundCircle {
  middle: PointPx;
  radiusPx: number;
  /** Share of its rim at which light changes across it. */
  rim: number;
  /** Places on the rim where it does, evenly round. */
  points: PointPx[];
}

/** A change of light that may be an edge. */
const EDGE = 0.06;
/** Share of the rim that has to be seen. */
const LEAST_RIM = 0.62;
const BINS = 72;
/** Off the rim, px: while the middle is known roughly, better, well. */
const SLACK = [5, 2.5, 1.6];
/** Cosine between an edge's change of light and the radius. */
const RADIAL = 0.94;
const PEAKS = 240;
/** Under it a middle is no more than chance, as a share of the highest. */
const LEAST_PEAK = 0.05;
/** Points that a mark is made of. */
const POINTS = 12;

/**
 * Finds circles by their rims: each edge votes for the middles that it may be a rim of, then each middle for its radius.
 *
 * @param least @param most radii, px of the whole picture
 * @returns the surest first; of several round one middle the outermost whose rim is seen
 * Sources: Kimme, Ballard and Sklansky, “Finding circles by an array of accumulators”, CACM 18 (1975); Sobel’s operator; both from memory.
 */
export function findCircles(picture: Reduced, least: number, most: number): FoundCircle[] {
  const { width: w, height: h, by } = picture;
  const [rMin, rMax] = [Math.max(4, least / by), Math.min(most / by, Math.min(w, h) / 2)];
  if (!(rMax > rMin)) return [];
  const edges = edgesOf(picture);
  const votes = new Float32Array(w * h);
  const { x: ex, y: ey, nx, ny, count } = edges;
  for (let k = 0; k < count; k++) {
    for (let r = rMin; r <= rMax; r++) {
      const weight = 1 / r;
      for (let side = -1; side <= 1; side += 2) {
        const x = (ex[k]! + side * r * nx[k]! + 0.5) | 0;
        const y = (ey[k]! + side * r * ny[k]! + 0.5) | 0;
        if (x >= 0 && y >= 0 && x < w && y < h) votes[y * w + x]! += weight;
      }
    }
  }
  const found = peaksOf(blurred(votes, w, h), w, h, rMin / 2)
    .flatMap((peak) => ringAt(edges, peak, rMin, rMax) ?? [])
    .sort((a, b) => b.rim - a.rim);
  const out: typeof found = [];
  for (const c of found) {
    const same = out.findIndex(
      (o) => Math.hypot(o.x - c.x, o.y - c.y) < 0.5 * Math.max(o.radius, c.radius),
    );
    if (same < 0) out.push(c);
    else if (c.radius > 1.05 * out[same]!.radius) out[same] = c;
  }
  return out.map(({ x, y, radius, rim, points }) => ({
    middle: [(x + 0.5) * by, (y + 0.5) * by],
    radiusPx: radius * by,
    rim,
    points: points.map((p): PointPx => [(p[0] + 0.5) * by, (p[1] + 0.5) * by]),
  }));
}

interface Edges {
  count: number;
  x: Float32Array;
  y: Float32Array;
  nx: Float32Array;
  ny: Float32Array;
}

/** Where light changes, and which way it rises. */
function edgesOf({ width: w, height: h, seen }: Reduced): Edges {
  const room = w * h;
  const out = {
    count: 0,
    x: new Float32Array(room),
    y: new Float32Array(room),
    nx: new Float32Array(room),
    ny: new Float32Array(room),
  };
  const { sqrt } = Math;
  for (let y = 1; y < h - 1; y++) {
    for (let x = 1; x < w - 1; x++) {
      const i = y * w + x;
      // Sobel’s: rows beside count too, or the way it rises would be told too roughly
      const east = seen[i - w + 1]! + 2 * seen[i + 1]! + seen[i + w + 1]!;
      const west = seen[i - w - 1]! + 2 * seen[i - 1]! + seen[i + w - 1]!;
      const south = seen[i + w - 1]! + 2 * seen[i + w]! + seen[i + w + 1]!;
      const north = seen[i - w - 1]! + 2 * seen[i - w]! + seen[i - w + 1]!;
      const gx = (east - west) / 8;
      const gy = (south - north) / 8;
      const size = sqrt(gx * gx + gy * gy);
      if (size < EDGE / 2) continue;
      out.x[out.count] = x;
      out.y[out.count] = y;
      out.nx[out.count] = gx / size;
      out.ny[out.count++] = gy / size;
    }
  }
  return out;
}

/** Means of five by five. */
function blurred(values: Float32Array, w: number, h: number): Float32Array {
  const out = new Float32Array(w * h);
  for (let y = 2; y < h - 2; y++) {
    for (let x = 2; x < w - 2; x++) {
      let sum = 0;
      for (let j = -2; j <= 2; j++) {
        for (let i = -2; i <= 2; i++) sum += values[(y + j) * w + x + i]!;
      }
      out[y * w + x] = sum;
    }
  }
  return out;
}

/** The highest places, none near a higher one. */
function peaksOf(
  votes: Float32Array,
  w: number,
  h: number,
  apart: number,
): { x: number; y: number }[] {
  let top = 0;
  for (let i = 0; i < votes.length; i++) if (votes[i]! > top) top = votes[i]!;
  const high: number[] = [];
  for (let y = 2; y < h - 2; y++) {
    for (let x = 2; x < w - 2; x++) {
      const i = y * w + x;
      const v = votes[i]!;
      if (v < LEAST_PEAK * top) continue;
      if (v >= votes[i - 1]! && v >= votes[i + 1]! && v >= votes[i - w]! && v >= votes[i + w]!)
        high.push(i);
    }
  }
  high.sort((a, b) => votes[b]! - votes[a]!);
  const out: { x: number; y: number }[] = [];
  for (const i of high) {
    const [x, y] = [i % w, Math.floor(i / w)];
    if (out.every((p) => Math.hypot(p.x - x, p.y - y) > apart)) out.push({ x, y });
    if (out.length >= PEAKS) break;
  }
  return out;
}

interface Ring {
  x: number;
  y: number;
  radius: number;
  rim: number;
  points: PointPx[];
}

/** The outermost rim round a middle that is seen nearly all round; null where there is none. */
function ringAt(
  edges: Edges,
  start: { x: number; y: number },
  rMin: number,
  rMax: number,
): Ring | null {
  let { x, y } = start;
  let best: Ring | null = null;
  // the middle is sought anew from the rim that was found
  for (const slack of SLACK) {
    const radii = new Float32Array(Math.ceil(rMax) + 3);
    const near: { r: number; turn: number; at: PointPx }[] = [];
    for (let k = 0; k < edges.count; k++) {
      const [dx, dy] = [edges.x[k]! - x, edges.y[k]! - y];
      const r = Math.sqrt(dx * dx + dy * dy);
      if (r < rMin - 1 || r > rMax + 1) continue;
      if (Math.abs(dx * edges.nx[k]! + dy * edges.ny[k]!) < RADIAL * r) continue;
      radii[Math.round(r)]! += 1 / r;
      near.push({ r, turn: Math.atan2(dy, dx), at: [edges.x[k]!, edges.y[k]!] });
    }
    const ring = outermost(near, radii, rMin, rMax, slack);
    if (!ring) return best;
    const circle = fitCircle(ring.points);
    if (!circle || circle.radius < rMin || circle.radius > rMax) return best;
    best = { x: circle.x, y: circle.y, radius: circle.radius, ...ring };
    ({ x, y } = circle);
  }
  return best;
}

function outermost(
  near: readonly { r: number; turn: number; at: PointPx }[],
  radii: Float32Array,
  rMin: number,
  rMax: number,
  slack: number,
): { rim: number; points: PointPx[] } | null {
  const wide = Math.floor(slack);
  const about = (r: number) => {
    let sum = 0;
    for (let k = -wide; k <= wide; k++) sum += radii[r + k] ?? 0;
    return sum;
  };
  for (let r = Math.floor(rMax); r >= Math.ceil(rMin); r--) {
    // a rim is a peak over its neighbours
    if (about(r) < about(r - 1) || about(r) < about(r + 1)) continue;
    const bins: (PointPx | undefined)[] = new Array<PointPx | undefined>(BINS);
    let filled = 0;
    for (const { r: own, turn, at } of near) {
      if (Math.abs(own - r) > slack) continue;
      const bin = Math.floor(((turn + Math.PI) / (2 * Math.PI)) * BINS) % BINS;
      if (!bins[bin]) filled++;
      bins[bin] ??= at;
    }
    if (filled / BINS < LEAST_RIM) continue;
    const all = bins.filter((p) => p !== undefined);
    const every = all.length / POINTS;
    return {
      rim: filled / BINS,
      points: Array.from({ length: POINTS }, (_, i) => all[Math.floor(i * every)]!),
    };
  }
  return null;
}
