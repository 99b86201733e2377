import { Matrix } from 'ml-matrix';
import { mmPerPx, type Camera } from './camera';
import { cameraAt, type Scale } from './fitScale';
import { isSized, type ScaleItem } from './marksFile';
import type { PointPx } from './point';
import { referenceOf } from './references';

/** A figure read off a picture. */
export interface Read {
  value: number;
  /** One standard deviation, of scale and clicks together. */
  plusMinus: number;
  /** Of the scale alone: shared by all figures of the picture. */
  scalePlusMinus: number;
}

/**
 * A figure with its ±: how it moves with the camera, whose figures hang together, and with each click.
 *
 * @param of the figure, of a camera and places in the picture
 * @param clickPx of these clicks; the scale's own where absent
 */
export function readOff(
  scale: Scale,
  points: readonly PointPx[],
  of: (camera: Camera, points: readonly PointPx[]) => number,
  clickPx = scale.clickPx,
): Read {
  const at = (theta: readonly number[], p: readonly PointPx[]) =>
    of(cameraAt(theta, scale.middle), p);
  const h = 1e-5;
  const slopes = scale.theta.map((_, i) => {
    const moved = (d: number) => scale.theta.map((v, k) => (k === i ? v + d : v));
    return (at(moved(h), points) - at(moved(-h), points)) / (2 * h);
  });
  const g = Matrix.columnVector(slopes);
  const ofScale = Math.max(0, g.transpose().mmul(scale.covariance).mmul(g).get(0, 0));
  const step = 0.05;
  let ofClicks = 0;
  points.forEach((_, i) => {
    for (const axis of [0, 1]) {
      const moved = (d: number) =>
        points.map((x, k): PointPx =>
          k !== i ? x : axis === 0 ? [x[0] + d, x[1]] : [x[0], x[1] + d],
        );
      const slope = (at(scale.theta, moved(step)) - at(scale.theta, moved(-step))) / (2 * step);
      ofClicks += (slope * clickPx) ** 2;
    }
  });
  return {
    value: at(scale.theta, points),
    plusMinus: Math.sqrt(ofScale + ofClicks),
    scalePlusMinus: Math.sqrt(ofScale),
  };
}

/** Mm of a pixel in the middle of the references, and its share of uncertainty. */
export function scaleFigure(
  scale: Scale,
  items: readonly ScaleItem[],
): { mmPerPx: number; plusMinusShare: number } {
  const points = items.filter(isSized).flatMap((i) => referenceOf(i).points);
  const n = points.length;
  const at: PointPx = [
    points.reduce((s, p) => s + p[0], 0) / n,
    points.reduce((s, p) => s + p[1], 0) / n,
  ];
  const { value, scalePlusMinus } = readOff(scale, [at], (camera, [p]) => mmPerPx(camera, p!));
  return { mmPerPx: value, plusMinusShare: scalePlusMinus / value };
}
