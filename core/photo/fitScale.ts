import { Matrix } from 'ml-matrix';
import { leastSquares } from '../numerics/leastSquares';
import { toPlane, type Camera } from './camera';
import { homography } from './homography';
import { isSized, type ScaleItem } from './marksFile';
import type { PointPx } from './point';
import { rectangleShape, referenceOf, type Reference } from './references';

/** What the camera wrote of its lens; null where it did not. */
export interface Lens {
  focalPx: number | null;
}

/** A picture's camera as its references tell it, and how well. */
export interface Scale {
  /** ln focal length, slopes, ln of mm a pixel at the axis, k1 of the lens: {@link cameraAt}. */
  theta: readonly number[];
  /** Of theta, 5 × 5; what is taken as known has none. */
  covariance: Matrix;
  middle: PointPx;
  clickPx: number;
  /** Of each reference, root mean square distance from where it was clicked. */
  residualsPx: number[];
  /** Whether the references fit each other and the camera as well as clicks do. */
  fits: boolean;
  /** Whether the tilt is known, or taken as none. */
  tiltKnown: boolean;
  /** Whether it was told how the lens bends, or it is taken not to. */
  lensKnown: boolean;
}

/** A usual camera held over a bench: focal length over the picture's diagonal, and how far others are off (common practice, no source). */
const USUAL_FOCAL = 0.85;
const FOCAL_SPREAD = 0.5;
/** What a camera writes of its lens is right to this share (common practice, no source). */
const WRITTEN_SPREAD = 0.04;
/** Slopes are anywhere: this only keeps a fit that nothing holds from running away. */
const SLOPE_SPREAD = 2;
const CAMERA = 5;
/** How lenses bend that nothing is known of (common practice, no source). */
const K1_SPREAD = 0.15;
/** Of the normal distribution: one fit in five hundred that is right is called wrong. */
const WRONG = 2.9;
/** A focal length this many deviations off is of no camera that is held over a bench. */
const ODD_LENS = 2.5;

/** The camera of these five figures. */
export function cameraAt(theta: readonly number[], middle: PointPx): Camera {
  const focalPx = Math.exp(theta[0]!);
  return {
    focalPx,
    middle,
    slopeX: theta[1]!,
    slopeY: theta[2]!,
    distanceMm: focalPx * Math.exp(theta[3]!),
    k1: theta[4]!,
  };
}

export const cameraOf = ({ theta, middle }: Scale): Camera => cameraAt(theta, middle);

/**
 * The camera that sees all references as they were clicked. With four corners somewhere its tilt is sought, else it is taken to look
 * straight down, and with a straight edge how its lens bends; of its focal length the picture's own word, or what is usual, is one more reading.
 *
 * @param items without faults, one of them at least of known size
 * @param size of the picture, px
 */
export function fitScale(
  items: readonly ScaleItem[],
  size: readonly [width: number, height: number],
  lens: Lens,
  clickPx: number,
): Scale {
  const references = items.map(referenceOf);
  const middle: PointPx = [size[0] / 2, size[1] / 2];
  const tiltKnown = items.some((i) => i.kind === 'rectangle');
  const focal = {
    ln: Math.log(lens.focalPx ?? USUAL_FOCAL * Math.hypot(...size)),
    spread: lens.focalPx === null ? FOCAL_SPREAD : WRITTEN_SPREAD,
  };
  const lensKnown = !items.every(isSized);
  const free = [...(tiltKnown ? [0, 1, 2, 3] : [0, 3]), ...(lensKnown ? [4] : [])];
  const thetaOf = (x: readonly number[]): number[] => {
    const theta = [0, 0, 0, 0, 0];
    free.forEach((k, i) => (theta[k] = x[i]!));
    return theta;
  };
  const residualsAt = (x: readonly number[]): number[] => {
    const theta = thetaOf(x);
    const camera = cameraAt(theta, middle);
    const out = [(theta[0]! - focal.ln) / focal.spread];
    if (tiltKnown) out.push(theta[1]! / SLOPE_SPREAD, theta[2]! / SLOPE_SPREAD);
    if (lensKnown) out.push(theta[4]! / K1_SPREAD);
    for (const item of items) {
      if (item.kind === 'lens') out.push((theta[4]! - item.k1) / item.plusMinus);
    }
    let at = free.length;
    for (const r of references) {
      const pose = x.slice(at, (at += r.poseSteps.length));
      for (const off of r.residuals(camera, pose)) out.push(off / clickPx);
    }
    return out;
  };
  const steps = [
    ...free.map((k) => (k === 4 ? 0.1 : 1)),
    ...references.flatMap((r) => r.poseSteps),
  ];
  const found = startsOf(references, middle, focal).map((theta) => {
    const camera = cameraAt(theta, middle);
    const start = [...free.map((k) => theta[k]!), ...references.flatMap((r) => r.poseAt(camera))];
    return leastSquares(residualsAt, start, steps);
  });
  const best = found.reduce((a, b) => (b.cost < a.cost ? b : a));
  const theta = thetaOf(best.x);
  const freedom = best.residuals.length - best.x.length;
  // corners of a wrong proportion are seen as tilted, by a lens that nobody has
  const lensOff = Math.abs(theta[0]! - focal.ln) / focal.spread;
  const fits = lensOff < ODD_LENS && (freedom <= 0 || chiSquareDeviate(best.cost, freedom) < WRONG);
  const misfit = freedom > 0 ? best.cost / freedom : 1;
  const covariance = Matrix.zeros(CAMERA, CAMERA);
  const widened = fits ? 1 : Math.max(1, misfit);
  free.forEach((i, a) =>
    free.forEach((k, b) => covariance.set(i, k, widened * (best.covariance?.get(a, b) ?? 0))),
  );
  const camera = cameraAt(theta, middle);
  let at = free.length;
  const residualsPx = references.map((r) => {
    const off = r.residuals(camera, best.x.slice(at, (at += r.poseSteps.length)));
    return Math.sqrt(off.reduce((s, e) => s + e * e, 0) / Math.max(1, r.points.length));
  });
  return { theta, covariance, middle, clickPx, residualsPx, fits, tiltKnown, lensKnown };
}

/** Where a fit begins: with four corners from their projective map at several focal lengths, else straight above. */
function startsOf(
  references: readonly Reference[],
  middle: PointPx,
  focal: { ln: number; spread: number },
): number[][] {
  const rectangle = largest(references.filter((r) => r.item.kind === 'rectangle'));
  if (rectangle) {
    return [-1.5, 0, 1.5].map((z) => fromCorners(rectangle, middle, focal.ln + z * focal.spread));
  }
  // mm a pixel of each, at its own height
  const straight = (s: number) => cameraAt([focal.ln, 0, 0, s, 0], middle);
  const lns = references.flatMap((r) => {
    const unit = r.points.map((p) => toPlane(straight(0), p, 0));
    const { item } = r;
    if (!isSized(item)) return [];
    if (item.kind === 'length') {
      return Math.log(item.mm / Math.hypot(unit[1]![0] - unit[0]![0], unit[1]![1] - unit[0]![1]));
    }
    const [x, y] = r.poseAt(straight(0)) as [number, number];
    const radius = unit.reduce((s, u) => s + Math.hypot(u[0] - x, u[1] - y), 0) / unit.length;
    return Math.log(item.kind === 'circle' ? item.diameterMm / 2 / radius : 1);
  });
  return [[focal.ln, 0, 0, lns.reduce((a, b) => a + b, 0) / lns.length, 0]];
}

function largest(references: readonly Reference[]): Reference | undefined {
  const span = (r: Reference) => {
    const xs = r.points.map((p) => p[0]);
    const ys = r.points.map((p) => p[1]);
    return (Math.max(...xs) - Math.min(...xs)) * (Math.max(...ys) - Math.min(...ys));
  };
  return [...references].sort((a, b) => span(b) - span(a))[0];
}

/**
 * Plane of four corners before a camera of known focal length, from the columns of their projective map.
 *
 * Source: Zhang, “A flexible new technique for camera calibration”, IEEE PAMI 22 (2000), section 3.1; from memory.
 */
function fromCorners(r: Reference, middle: PointPx, lnFocal: number): number[] {
  const item = r.item as ScaleItem & { kind: 'rectangle' };
  const f = Math.exp(lnFocal);
  const h = homography(
    rectangleShape(item),
    r.points.map(([u, v]) => [(u - middle[0]) / f, (v - middle[1]) / f] as const),
  );
  const column = (k: number) => [h.get(0, k), h.get(1, k), h.get(2, k)] as const;
  const [a, b, t] = [column(0), column(1), column(2)];
  const scale = (Math.hypot(...a) + Math.hypot(...b)) / 2;
  const side = (t[2] > 0 ? 1 : -1) / scale;
  const place = t.map((x) => x * side) as [number, number, number];
  const n = [
    a[1] * b[2] - a[2] * b[1],
    a[2] * b[0] - a[0] * b[2],
    a[0] * b[1] - a[1] * b[0],
  ] as const;
  const p = -n[0] / n[2];
  const q = -n[1] / n[2];
  const distance = place[2] - p * place[0] - q * place[1] + r.aboveMm * Math.hypot(p, q, 1);
  return [lnFocal, p, q, Math.log(Math.max(1e-6, distance) / f), 0];
}

/** A sum of squares as a deviate of the normal distribution. Source: Wilson and Hilferty, PNAS 17 (1931); from memory. */
export function chiSquareDeviate(sum: number, freedom: number): number {
  const k = 2 / (9 * freedom);
  return (Math.cbrt(sum / freedom) - (1 - k)) / Math.sqrt(k);
}
