/** A place in a picture: pixels from its top left corner, to the right and down; the first pixel lies from 0 to 1. */
export type PointPx = readonly [x: number, y: number];
/** A place in a plane, mm. */
export type PointMm = readonly [x: number, y: number];
