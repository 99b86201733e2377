import { toPixel, toPlane, type Camera } from './camera';
import { fitCircle } from './fitCircle';
import { undistorted } from './distortion';
import type { ScaleItem } from './marksFile';
import type { PointMm, PointPx } from './point';
import { dist, isConvex, offLine, signedArea } from './polygon';

/** Something of known size in a picture: where it lies is not known, and sought with the camera. */
export interface Reference {
  item: ScaleItem;
  aboveMm: number;
  /** Where it lies and how it is turned, as a camera sees it to begin with. */
  poseAt: (camera: Camera) => number[];
  /** About how far each of its pose has to move to matter. */
  poseSteps: number[];
  /** Off from where it was clicked, px; at its pose under a camera. */
  residuals: (camera: Camera, pose: readonly number[]) => number[];
  /** All that was clicked. */
  points: readonly PointPx[];
}

/** What is wrong with a reference: where within it, and in words. */
export interface ReferenceFault {
  at: string;
  message: string;
}

/** Under this share of their distance off the line, three corners lie on it. */
const ON_LINE = 0.01;
/** Over less an edge tells nothing. */
const LEAST_EDGE_PX = 20;

/** What cannot be right of a reference, whatever the camera; null where nothing is wrong. */
export function referenceFault(item: ScaleItem): ReferenceFault | null {
  if (item.kind === 'length') {
    return dist(item.from, item.to) < 1
      ? { at: 'to', message: 'both ends lie on one place of the picture' }
      : null;
  }
  if (item.kind === 'circle') {
    return fitCircle(item.points)
      ? null
      : { at: 'points', message: 'the points lie on a line: they are of no circle' };
  }
  if (item.kind === 'lens') return null;
  if (item.kind === 'straight') {
    const far = Math.max(...item.points.map((p) => dist(p, item.points[0]!)));
    return far < LEAST_EDGE_PX
      ? { at: 'points', message: 'the points lie on one place: an edge is longer' }
      : null;
  }
  const { corners } = item;
  const flat = corners.some((_, i) =>
    [1, 2].some(
      (k) => offLine(corners[i]!, corners[(i + k) % 4]!, corners[(i + 3) % 4]!) < ON_LINE,
    ),
  );
  if (flat) return { at: 'corners', message: 'three of the corners lie on a line' };
  if (!isConvex(corners)) {
    return { at: 'corners', message: 'the corners do not go round: their order crosses itself' };
  }
  return null;
}

/** A thing of known size as the fit of a camera takes it. */
export function referenceOf(item: ScaleItem): Reference {
  if (item.kind === 'straight') return straightReference(item);
  if (item.kind === 'lens') return lensReference(item);
  const aboveMm = item.aboveMm ?? 0;
  if (item.kind === 'circle') return circleReference(item, aboveMm);
  const [points, shape] =
    item.kind === 'length'
      ? [
          [item.from, item.to],
          [[0, 0] as const, [item.mm, 0] as const],
        ]
      : [item.corners, rectangleShape(item)];
  return shapeReference(item, points, shape, aboveMm);
}

/** Corners of a rectangle in its plane, turning as they were clicked. */
export function rectangleShape({
  corners,
  widthMm: w,
  heightMm,
}: ScaleItem & { kind: 'rectangle' }): PointMm[] {
  const h = signedArea(corners) > 0 ? heightMm : -heightMm;
  return [
    [0, 0],
    [w, 0],
    [w, h],
    [0, h],
  ];
}

function shapeReference(
  item: ScaleItem,
  points: readonly PointPx[],
  shape: readonly PointMm[],
  aboveMm: number,
): Reference {
  const size = dist(shape[0]!, shape[1]!);
  return {
    item,
    aboveMm,
    points,
    poseSteps: [size, size, 1],
    poseAt(camera) {
      const [x, y] = toPlane(camera, points[0]!, aboveMm);
      const [u, v] = toPlane(camera, points[1]!, aboveMm);
      return [x, y, Math.atan2(v - y, u - x)];
    },
    residuals(camera, [x, y, turn]) {
      const cos = Math.cos(turn!);
      const sin = Math.sin(turn!);
      return shape.flatMap(([a, b], i) => {
        const at = toPixel(camera, [x! + a * cos - b * sin, y! + a * sin + b * cos], aboveMm);
        return [at[0] - points[i]![0], at[1] - points[i]![1]];
      });
    },
  };
}

/** Of a circle only the distance of each click from the rim tells anything. */
function circleReference(item: ScaleItem & { kind: 'circle' }, aboveMm: number): Reference {
  const { points, diameterMm } = item;
  const radius = diameterMm / 2;
  return {
    item,
    aboveMm,
    points,
    poseSteps: [diameterMm, diameterMm],
    poseAt(camera) {
      const circle = fitCircle(points.map((p) => toPlane(camera, p, aboveMm)));
      return circle ? [circle.x, circle.y] : [NaN, NaN];
    },
    residuals: (camera, [x, y]) =>
      points.map((p) => {
        const offAt = (at: PointPx) => {
          const [a, b] = toPlane(camera, at, aboveMm);
          return Math.hypot(a - x!, b - y!) - radius;
        };
        const h = 0.1;
        const du = (offAt([p[0] + h, p[1]]) - offAt([p[0] - h, p[1]])) / (2 * h);
        const dv = (offAt([p[0], p[1] + h]) - offAt([p[0], p[1] - h])) / (2 * h);
        return offAt(p) / Math.hypot(du, dv);
      }),
  };
}

/** Of an edge only how far each click lies off a straight line tells anything, seen without the lens's fault. */
function straightReference(item: ScaleItem & { kind: 'straight' }): Reference {
  const { points } = item;
  const [mx, my] = [0, 1].map((k) => points.reduce((s, p) => s + p[k]!, 0) / points.length) as [
    number,
    number,
  ];
  return {
    item,
    aboveMm: 0,
    points,
    // it turns by a pixel in a thousand
    poseSteps: [1e-3, 1],
    poseAt(camera) {
      let [xx, xy, yy] = [0, 0, 0];
      for (const p of points) {
        const [u, v] = undistorted(camera, p);
        xx += (u - mx) ** 2;
        xy += (u - mx) * (v - my);
        yy += (v - my) ** 2;
      }
      return [Math.atan2(2 * xy, xx - yy) / 2, 0];
    },
    residuals(camera, [turn, off]) {
      const [sin, cos] = [Math.sin(turn!), Math.cos(turn!)];
      return points.map((p) => {
        const [u, v] = undistorted(camera, p);
        return (v - my) * cos - (u - mx) * sin - off!;
      });
    },
  };
}

/** What another photo told of the lens. */
function lensReference(item: ScaleItem & { kind: 'lens' }): Reference {
  return { item, aboveMm: 0, points: [], poseSteps: [], poseAt: () => [], residuals: () => [] };
}
