import type { PointMm } from './point';

/** A turn of a path. */
export interface Bend {
  /** The points where it turns, by their places along the path. */
  points: number[];
  /** Degrees, above 0 to the right as seen on a screen. */
  turnDeg: number;
}

/** Smaller turns are the hand's. */
const LEAST_TURN_DEG = 10;
/** Clicks that turn this little each follow a curve. */
const CURVE_DEG = 20;
/** Steps round a curve differ by no more. */
const UNEVEN = 1.8;
/** A click that turns this much is a bend of its own. */
const CORNER_DEG = 60;
/** Clicks about a curve of at most this radius are one bend, mm: pipes are bent about three to ten of their diameters (common practice, no source). */
const CURVE_RADIUS_MM = 60;

/**
 * Bends of a path: several clicks round one curve are one.
 *
 * @param points of the path in its plane, mm
 */
export function bendsOf(points: readonly PointMm[]): Bend[] {
  const turns = points.slice(1, -1).map((p, i) => {
    const a = points[i]!;
    const b = points[i + 2]!;
    const before = Math.atan2(p[1] - a[1], p[0] - a[0]);
    const after = Math.atan2(b[1] - p[1], b[0] - p[0]);
    const turn = ((after - before) * 180) / Math.PI;
    return turn > 180 ? turn - 360 : turn < -180 ? turn + 360 : turn;
  });
  const bends: Bend[] = [];
  turns.forEach((turn, i) => {
    const last = bends[bends.length - 1];
    const at = i + 1;
    if (
      last &&
      last.points[last.points.length - 1] === at - 1 &&
      isOneCurve(turns[i - 1]!, turn, points, at)
    ) {
      last.points.push(at);
      last.turnDeg += turn;
    } else bends.push({ points: [at], turnDeg: turn });
  });
  return bends.filter((b) => Math.abs(b.turnDeg) > LEAST_TURN_DEG);
}

const chord = (points: readonly PointMm[], at: number): number =>
  Math.hypot(points[at]![0] - points[at - 1]![0], points[at]![1] - points[at - 1]![1]);

/** Whether the turns at both ends of a chord are of one curve. */
function isOneCurve(
  before: number,
  after: number,
  points: readonly PointMm[],
  at: number,
): boolean {
  if (before * after <= 0) return false;
  const [a, b] = [Math.abs(before), Math.abs(after)];
  const own = chord(points, at);
  // a wide curve is clicked at even steps; a straight way between two curves is longer than those beside it
  const beside = Math.max(chord(points, at - 1), chord(points, at + 1));
  if (a <= CURVE_DEG && b <= CURVE_DEG && own < UNEVEN * beside) return true;
  if (a >= CORNER_DEG && b >= CORNER_DEG) return false;
  // of a curve clicked at even steps a chord turns by as much as each of its ends
  const radius = own / ((((a + b) / 2) * Math.PI) / 180);
  return radius <= CURVE_RADIUS_MM;
}
