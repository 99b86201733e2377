import { mmPerPx, toPlane, type Camera } from './camera';
import { holesOf, nearestOf, type Hole } from './holes';
import { classesOf, evened, hasClasses, meanOf, sharpened } from './lightClasses';
import { medianOf } from './median';
import { WHITE, type Picture } from './picture';
import type { PointPx } from './point';

/** Holes of a marked area. */
export interface OpenShare {
  /** Dark hole area over marked area, in the plane: 0 to 1. */
  share: number;
  /** What a threshold a little higher or lower would make of it. */
  plusMinus: number;
  /** Light under which it is a hole, 0 to 1 of white. */
  threshold: number;
  holes: number;
  /** From a hole to its nearest neighbour, the middle of all; null with fewer than two. */
  pitchMm: number | null;
  /** Diameter of a circle as large as a hole, the middle of those that lie wholly within. */
  holeMm: number | null;
  note: string | null;
}

/** Of the way from hole to web, how far a threshold may be off. */
const OFF = 0.08;
/** Holes and web differ by this much of white at least. */
const LEAST_CONTRAST = 0.03;
/** Webs narrower than this are brighter nowhere than blur lets them: what their mean light tells, which no blur changes, is held beside. */
const NARROW_PX = 6;
/** Of the box about it: a larger area is marked in parts. */
const MOST_PIXELS = 16_000_000;

/**
 * Segments the holes of a marked area by light.
 *
 * @param area corners of the area, px
 * @param aboveMm height of its plane
 * @param threshold light under which it is a hole; found from the area's own light where absent
 * @returns null where the area has fewer than a hundred pixels, or its box more than sixteen million
 * Source: threshold by Otsu, IEEE Trans. SMC 9 (1979), then half way between what both classes come to.
 */
export function openShare(
  picture: Picture,
  camera: Camera,
  area: readonly PointPx[],
  aboveMm: number,
  threshold?: number,
): OpenShare | null {
  const box = boxOf(area, picture);
  const width = box.right - box.left;
  const height = box.bottom - box.top;
  if (width * height > MOST_PIXELS) return null;
  const light = new Float32Array(width * height).fill(NaN);
  let pixels = 0;
  for (let j = 0; j < height; j++) {
    const spans = crossings(area, box.top + j + 0.5);
    for (let s = 0; s + 1 < spans.length; s += 2) {
      const from = Math.max(box.left, Math.ceil(spans[s]! - 0.5));
      const to = Math.min(box.right - 1, Math.floor(spans[s + 1]! - 0.5));
      for (let i = from; i <= to; i++) {
        light[j * width + i - box.left] = picture.light[(box.top + j) * picture.width + i]! / WHITE;
        pixels++;
      }
    }
  }
  if (pixels < 100) return null;
  const lit = threshold === undefined ? sharpened(evened(light, width), width) : light;
  const classes = classesOf(lit);
  const at = threshold ?? (classes.dark + classes.bright) / 2;
  const contrast = classes.bright - classes.dark;
  const flat = contrast < LEAST_CONTRAST || !hasClasses(lit, width, contrast);
  if (flat && threshold === undefined) {
    return {
      share: 0,
      plusMinus: 0,
      threshold: at,
      holes: 0,
      pitchMm: null,
      holeMm: null,
      note: 'no hole is darker than what is about it',
    };
  }
  const areas = pixelAreas(camera, box, aboveMm);
  const shareAt = (t: number): number => {
    let open = 0;
    let all = 0;
    for (let k = 0; k < lit.length; k++) {
      const x = lit[k]!;
      if (x !== x) continue;
      const i = k % width;
      const own = areas(i, (k - i) / width);
      all += own;
      // a pixel at the rim of a hole is partly open
      open += own * partlyUnder(lit, width, k, t, contrast);
    }
    return open / all;
  };
  const share = shareAt(at);
  const low = shareAt(at - OFF * contrast);
  const high = shareAt(at + OFF * contrast);
  const holes = holesOf(lit, width, at);
  const whole = holes.filter((h) => !h.atEdge);
  const place = (h: Hole): PointPx => [box.left + h.x + 0.5, box.top + h.y + 0.5];
  const sizes = whole.map(
    (h) => 2 * Math.sqrt((h.pixels * mmPerPx(camera, place(h), aboveMm) ** 2) / Math.PI),
  );
  // what is cut by the edge has its middle elsewhere
  const centres = whole.map((h) => toPlane(camera, place(h), aboveMm));
  const pitchMm = nearestOf(centres);
  const holeMm = sizes.length > 0 ? medianOf(sizes) : null;
  const px = mmPerPx(camera, [(box.left + box.right) / 2, (box.top + box.bottom) / 2], aboveMm);
  const webPx =
    threshold === undefined && pitchMm !== null && holeMm !== null
      ? (pitchMm - holeMm) / px
      : Infinity;
  const byLight = (classes.brightest - meanOf(lit)) / (classes.brightest - classes.dark);
  const holePx = medianOf(whole.map((h) => 2 * Math.sqrt(h.pixels / Math.PI)));
  return {
    share,
    plusMinus: Math.max(
      Math.abs(high - low) / 2,
      webPx < NARROW_PX ? Math.abs(byLight - share) / 2 : 0,
    ),
    threshold: at,
    holes: holes.length,
    pitchMm,
    holeMm,
    note: holePx < 4 ? 'holes have hardly four pixels: a photo from nearer would tell more' : null,
  };
}

interface Box {
  left: number;
  top: number;
  right: number;
  bottom: number;
}

function boxOf(area: readonly PointPx[], { width, height }: Picture): Box {
  const xs = area.map((p) => p[0]);
  const ys = area.map((p) => p[1]);
  return {
    left: Math.max(0, Math.floor(Math.min(...xs))),
    top: Math.max(0, Math.floor(Math.min(...ys))),
    right: Math.min(width, Math.ceil(Math.max(...xs))),
    bottom: Math.min(height, Math.ceil(Math.max(...ys))),
  };
}

/** Where a line across meets the edges of a polygon, from left to right. */
function crossings(area: readonly PointPx[], y: number): number[] {
  const out: number[] = [];
  area.forEach(([ax, ay], i) => {
    const [bx, by] = area[(i + 1) % area.length]!;
    if (ay > y !== by > y) out.push(ax + ((y - ay) / (by - ay)) * (bx - ax));
  });
  return out.sort((a, b) => a - b);
}

/** How much of a pixel lies under a threshold, by its light between it and its neighbours. */
function partlyUnder(
  light: Float32Array,
  width: number,
  k: number,
  t: number,
  contrast: number,
): number {
  const x = light[k]!;
  const right = light[k + 1];
  const below = light[k + width];
  // slope of light over a pixel: how far from the threshold it still reaches
  const gx = right === undefined || right !== right ? 0 : right - x;
  const gy = below === undefined || below !== below ? 0 : below - x;
  const reach = Math.max(0.02 * contrast, (Math.abs(gx) + Math.abs(gy)) / 2);
  const share = 0.5 + (t - x) / (2 * reach);
  return share < 0 ? 0 : share > 1 ? 1 : share;
}

/** Area of a pixel in the plane, from a coarse grid. */
function pixelAreas(camera: Camera, box: Box, aboveMm: number): (i: number, j: number) => number {
  const N = 16;
  const w = box.right - box.left;
  const h = box.bottom - box.top;
  const grid = Float64Array.from({ length: (N + 1) * (N + 1) }, (_, k) => {
    const at: PointPx = [
      box.left + ((k % (N + 1)) * w) / N,
      box.top + (Math.floor(k / (N + 1)) * h) / N,
    ];
    return mmPerPx(camera, at, aboveMm) ** 2;
  });
  return (i, j) => {
    const x = (i * N) / w;
    const y = (j * N) / h;
    const a = x | 0;
    const b = y | 0;
    const k = b * (N + 1) + a;
    const u = x - a;
    const v = y - b;
    return (
      (grid[k]! * (1 - u) + grid[k + 1]! * u) * (1 - v) +
      (grid[k + N + 1]! * (1 - u) + grid[k + N + 2]! * u) * v
    );
  };
}
