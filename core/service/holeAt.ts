import { isPlaced, type OpenUpLog, type Screw } from './openUpLog';

/** A place on a layer, from its upper left corner as it is seen. */
export interface Place {
  xMm: number;
  yMm: number;
}

/** Within this a place means the hole: about a fingertip, our choice. */
const FINGERTIP_MM = 7;

/** The hole that a place on a layer means: the nearest one within a fingertip. */
export function holeAt(log: OpenUpLog, layer: string, at: Place): Screw | undefined {
  let nearest: Screw | undefined;
  let least = FINGERTIP_MM;
  for (const s of log.screws) {
    if (s.layer !== layer || !isPlaced(s)) continue;
    const far = Math.hypot(s.xMm - at.xMm, s.yMm - at.yMm);
    if (far > least) continue;
    nearest = s;
    least = far;
  }
  return nearest;
}
