import type { BoundaryPoint } from './boundary';
import type { FanState } from './fanStates';

/** The best that can be carried along a ray, and the fan state that does it. */
export interface Carried {
  point: BoundaryPoint;
  state: FanState;
}

/** A quieter state must be clearly better, so that rounding does not choose. */
export function better(a: Carried, b: Carried): Carried {
  return b.point.watts > a.point.watts * (1 + 1e-6) + 1e-9 ? b : a;
}
