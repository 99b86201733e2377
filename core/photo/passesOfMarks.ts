import { footOf, toPlane, type Camera } from './camera';
import { cameraOf, fitScale, type Lens } from './fitScale';
import { CLICK_PX, isSized } from './marksFile';
import type { PhotoMark, PhotoMarks } from './photoMarks';
import type { PointMm } from './point';
import { dist } from './polygon';
import { referenceFault } from './references';

/** From where to where along a pipe it passes a part, whole mm from its first point. */
export interface PipePass {
  part: string;
  fromMm: number;
  toMm: number;
}

export interface PassesOfPipe {
  /** Its id. */
  pipe: string;
  /** Of its course. */
  mark: string;
  passes: PipePass[];
}

const COURSE = /^heatPipes\.([^.]+)\.lengthMm$/;
const PASSED = /^(?:plates|finStacks)\.([^.]+)\./;
/** As many parts as a record has along a pipe. */
const MOST = 16;
/** Shorter ones are a corner that is touched. */
const LEAST_MM = 2;

/**
 * What pipes pass on their way, from their courses and the outlines of plates and stacks. Where two outlines lie over each other the
 * first one counts as far as it reaches.
 *
 * @returns of each pipe whose course is marked and passes something that is marked; in the direction of the course
 */
export function passesOfMarks(
  size: readonly [number, number],
  lens: Lens,
  { references, marks, planeMm = 0, clickPx = CLICK_PX }: PhotoMarks,
): PassesOfPipe[] {
  const items = references.map((r) => r.item).filter((i) => !referenceFault(i));
  const isArea = ({ mark: { kind, points } }: PhotoMark) => kind === 'area' && points.length >= 3;
  const outlines = marks.filter((m) => isArea(m) && PASSED.test(m.figure ?? ''));
  const courses = marks.filter((m) => m.mark.kind === 'path' && COURSE.test(m.figure ?? ''));
  if (!items.some(isSized) || outlines.length === 0 || courses.length === 0) return [];
  const camera = cameraOf(fitScale(items, size, lens, clickPx));
  const feet = (m: PhotoMark) => feetOf(camera, m, planeMm);
  const parts = outlines.map((m) => ({ part: PASSED.exec(m.figure!)![1]!, outline: feet(m) }));
  return courses.flatMap((m) => {
    const course = feet(m);
    const all = parts
      .flatMap(({ part, outline }) => within(course, outline).map((span) => ({ part, span })))
      .sort((a, b) => a.span[0] - b.span[0]);
    const passes: PipePass[] = [];
    let reached = 0;
    for (const { part, span } of all) {
      const fromMm = Math.max(reached, Math.round(span[0]));
      // never past the end of the pipe, however its length is rounded
      const toMm = Math.floor(span[1] + 1e-6);
      if (toMm - fromMm < LEAST_MM || passes.length >= MOST) continue;
      passes.push({ part, fromMm, toMm });
      reached = toMm;
    }
    const pipe = COURSE.exec(m.figure!)![1]!;
    return passes.length > 0 ? [{ pipe, mark: m.id, passes }] : [];
  });
}

/** Feet on the plane of the references. */
function feetOf(camera: Camera, { mark }: PhotoMark, planeMm: number): PointMm[] {
  const above = planeMm + (mark.aboveMm ?? 0);
  return mark.points.map((p) => footOf(camera, toPlane(camera, p, above), above));
}

/** Where a line lies in a polygon, from and to along it. */
function within(line: readonly PointMm[], outline: readonly PointMm[]): [number, number][] {
  const spans: [number, number][] = [];
  let begun = 0;
  line.slice(1).forEach((b, k) => {
    const a = line[k]!;
    const long = dist(a, b);
    const cuts = [
      0,
      1,
      ...outline.flatMap((p, i) => cut(a, b, p, outline[(i + 1) % outline.length]!)),
    ];
    cuts.sort((s, t) => s - t);
    cuts.slice(1).forEach((t, i) => {
      const s = cuts[i]!;
      if (t - s < 1e-9) return;
      const mid = (s + t) / 2;
      if (!isInside([a[0] + mid * (b[0] - a[0]), a[1] + mid * (b[1] - a[1])], outline)) return;
      const [from, to] = [begun + s * long, begun + t * long];
      const last = spans.at(-1);
      if (last && from - last[1] < LEAST_MM) last[1] = to;
      else spans.push([from, to]);
    });
    begun += long;
  });
  return spans;
}

/** Where on a segment another one crosses it, 0 to 1. */
function cut(a: PointMm, b: PointMm, p: PointMm, q: PointMm): number[] {
  const [ux, uy] = [b[0] - a[0], b[1] - a[1]];
  const [vx, vy] = [q[0] - p[0], q[1] - p[1]];
  const cross = ux * vy - uy * vx;
  if (cross === 0) return [];
  const [wx, wy] = [p[0] - a[0], p[1] - a[1]];
  const t = (wx * vy - wy * vx) / cross;
  const s = (wx * uy - wy * ux) / cross;
  return t > 0 && t < 1 && s >= 0 && s <= 1 ? [t] : [];
}

/** By how often a line from it to the right crosses the outline. */
function isInside([x, y]: PointMm, outline: readonly PointMm[]): boolean {
  let inside = false;
  outline.forEach(([px, py], i) => {
    const [qx, qy] = outline[(i + 1) % outline.length]!;
    if (py > y !== qy > y && x < px + ((y - py) / (qy - py)) * (qx - px)) inside = !inside;
  });
  return inside;
}
