import { distorted, undistorted } from './distortion';
import type { PointMm, PointPx } from './point';

/**
 * How a picture was taken: square pixels, the optical axis through the middle. The reference plane is
 * `z = distance + slopeX · x + slopeY · y` before the camera (x to the right, y down, z away).
 */
export interface Camera {
  focalPx: number;
  /** Middle of the picture, px. */
  middle: PointPx;
  slopeX: number;
  slopeY: number;
  /** From the camera to the reference plane along the optical axis. */
  distanceMm: number;
  /** Of the lens: {@link distorted}. */
  k1: number;
}

/**
 * Where a line of sight meets the plane at a height over the reference plane: along two axes in the plane that are at right angles and
 * begin where the optical axis meets it.
 *
 * @param aboveMm towards the camera
 * @returns NaN where the line of sight does not meet it
 */
export function toPlane(camera: Camera, at: PointPx, aboveMm = 0): PointMm {
  const [u, v] = undistorted(camera, at);
  const { slopeX: p, slopeY: q, focalPx, middle, distanceMm } = camera;
  const x = (u - middle[0]) / focalPx;
  const y = (v - middle[1]) / focalPx;
  const norm = Math.hypot(p, q, 1);
  // plane: z − p x − q y = distance − above · |n|
  const down = 1 - p * x - q * y;
  const z = (distanceMm - aboveMm * norm) / down;
  if (!(down > 0) || !(z > 0)) return [NaN, NaN];
  const along = Math.hypot(1, p);
  // from the foot of the axis on this plane
  const dx = z * x;
  const dy = z * y;
  const dz = p * dx + q * dy;
  // first axis (1, 0, p), second at right angles to it and to the plane's normal
  const first = (dx + p * dz) / along;
  const second = (-p * q * dx + (1 + p * p) * dy + q * dz) / (along * norm);
  return [first, second];
}

/** A point of a plane before the camera: to the right, down and away, mm. */
export function toSpace(
  { slopeX: p, slopeY: q, distanceMm }: Camera,
  [a, b]: PointMm,
  aboveMm = 0,
): readonly [number, number, number] {
  const norm = Math.hypot(p, q, 1);
  const along = Math.hypot(1, p);
  const x = a / along - (p * q * b) / (along * norm);
  const y = ((1 + p * p) * b) / (along * norm);
  return [x, y, distanceMm - aboveMm * norm + p * x + q * y];
}

/** The foot on the reference plane of a point of a plane over it: axes of planes begin where the optical axis meets each. */
export function footOf(
  { slopeX: p, slopeY: q }: Camera,
  [a, b]: PointMm,
  aboveMm: number,
): PointMm {
  const along = Math.hypot(1, p);
  return [a - (aboveMm * Math.hypot(p, q, 1) * p) / along, b - (aboveMm * q) / along];
}

/** The place in the picture of a point of a plane, the reverse of {@link toPlane}. */
export function toPixel(camera: Camera, point: PointMm, aboveMm = 0): PointPx {
  const [x, y, z] = toSpace(camera, point, aboveMm);
  const { focalPx, middle } = camera;
  return distorted(camera, [middle[0] + (focalPx * x) / z, middle[1] + (focalPx * y) / z]);
}

/** Millimetres of a pixel at a place, the mean of all directions: the root of how areas grow. */
export function mmPerPx(camera: Camera, [u, v]: PointPx, aboveMm = 0): number {
  const h = 0.5;
  const [ax, ay] = toPlane(camera, [u - h, v], aboveMm);
  const [bx, by] = toPlane(camera, [u + h, v], aboveMm);
  const [cx, cy] = toPlane(camera, [u, v - h], aboveMm);
  const [dx, dy] = toPlane(camera, [u, v + h], aboveMm);
  return Math.sqrt(Math.abs((bx - ax) * (dy - cy) - (by - ay) * (dx - cx)));
}

/** Between the optical axis and the plane's normal, degrees. */
export const tiltDeg = ({ slopeX, slopeY }: Camera): number =>
  (Math.atan(Math.hypot(slopeX, slopeY)) * 180) / Math.PI;
