import { toPixel, toPlane, type Camera } from './camera';
import { fitCircle } from './fitCircle';
import { lightAt, type Picture } from './picture';
import type { PointMm, PointPx } from './point';

/** Directions in which the rim is sought. */
const RAYS = 48;
/** How far to both sides it is sought, as a share of the radius. */
const REACH = 0.06;
/** A change of light over two pixels that is a rim, as a share of white. */
const EDGE = 0.02;
/** Share of the rays that have to agree on one circle. */
const AGREE = 0.6;
/** And as many of those on which side is the darker one. */
const ONE_SIGN = 0.85;
/** Off the circle, px. */
const OFF_PX = 1.5;
/** Points that a mark is made of. */
const POINTS = 12;

/**
 * The rim of a circle in a plane at full resolution: along rays from its middle where light changes most, as far as they agree on a circle.
 *
 * @param about points on or near its rim
 * @returns null where too few agree: then it is no rim
 */
export function refineRim(
  picture: Picture,
  camera: Camera,
  about: readonly PointPx[],
  aboveMm: number,
): PointPx[] | null {
  let circle = fitCircle(about.map((p) => toPlane(camera, p, aboveMm)));
  for (let round = 0; round < 3 && circle; round++) {
    const { x, y, radius } = circle;
    const seen = Array.from({ length: RAYS }, (_, i) => {
      const turn = (2 * Math.PI * i) / RAYS;
      return onRay(picture, camera, [x, y], [Math.cos(turn), Math.sin(turn)], radius, aboveMm);
    }).filter((s) => s !== null);
    const agreed = agreeing(seen);
    if (!agreed || agreed.length < AGREE * RAYS) return null;
    const dark = agreed.filter((s) => s.rises).length / agreed.length;
    if (Math.max(dark, 1 - dark) < ONE_SIGN) return null;
    circle = fitCircle(agreed.map((s) => s.at));
    if (round === 2) {
      const every = agreed.length / POINTS;
      return Array.from({ length: POINTS }, (_, i) =>
        toPixel(camera, agreed[Math.floor(i * every)]!.at, aboveMm),
      );
    }
  }
  return null;
}

interface Seen {
  at: PointMm;
  /** Light rises outwards. */
  rises: boolean;
  mmPerPx: number;
}

/** Where light changes most along a ray near a radius. */
function onRay(
  picture: Picture,
  camera: Camera,
  [x, y]: PointMm,
  [ex, ey]: PointMm,
  radius: number,
  aboveMm: number,
): Seen | null {
  const px = (r: number) => toPixel(camera, [x + r * ex, y + r * ey], aboveMm);
  const [a, b] = [px(radius * (1 - REACH)), px(radius * (1 + REACH))];
  const lengthPx = Math.hypot(b[0] - a[0], b[1] - a[1]);
  const steps = Math.max(8, Math.ceil(2 * lengthPx));
  const light = (k: number) => {
    const t = k / steps;
    return lightAt(picture, a[0] + t * (b[0] - a[0]), a[1] + t * (b[1] - a[1]));
  };
  let best = EDGE;
  let at = -1;
  let rises = false;
  // half a pixel a step: two pixels apart
  for (let k = 2; k <= steps - 2; k++) {
    const change = light(k + 2) - light(k - 2);
    if (Math.abs(change) > best) {
      best = Math.abs(change);
      at = k;
      rises = change > 0;
    }
  }
  if (at < 0) return null;
  const r = radius * (1 - REACH + (2 * REACH * at) / steps);
  return { at: [x + r * ex, y + r * ey], rises, mmPerPx: (2 * REACH * radius) / lengthPx };
}

/** Those that lie on one circle: of many circles through three of them the one that most lie on. */
function agreeing(seen: readonly Seen[]): Seen[] | null {
  if (seen.length < 6) return null;
  const off = OFF_PX * seen[0]!.mmPerPx;
  let best: Seen[] = [];
  const third = Math.floor(seen.length / 3);
  for (let i = 0; i < seen.length; i++) {
    // far from each other, so that they tell the circle well
    const three = [
      seen[i]!,
      seen[(i + third) % seen.length]!,
      seen[(i + 2 * third) % seen.length]!,
    ];
    const c = fitCircle(three.map((s) => s.at));
    if (!c) continue;
    const on = seen.filter(
      (s) => Math.abs(Math.hypot(s.at[0] - c.x, s.at[1] - c.y) - c.radius) <= off,
    );
    if (on.length > best.length) best = on;
  }
  return best;
}
