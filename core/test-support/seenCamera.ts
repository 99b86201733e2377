import type { Camera } from '../photo/camera';
import { axesOf, type TestCamera } from './rayCaster';

/** The camera of the measuring that sees as one of the tests' own: the bench's normal along its axes. */
export function seenCamera(c: TestCamera): Camera {
  const { right, down, forward } = axesOf(c);
  return {
    focalPx: c.focalPx,
    middle: [c.widthPx / 2, c.heightPx / 2],
    slopeX: -right[2] / forward[2],
    slopeY: -down[2] / forward[2],
    k1: 0,
    distanceMm: c.distanceMm,
  };
}
