import { mmPerPx } from './camera';
import { copperMask } from './copperMask';
import { findPipes, type FoundPipe } from './findPipes';
import { cameraOf, type Scale } from './fitScale';
import type { Mark } from './marksFile';
import type { Picture } from './picture';
import type { PointPx } from './point';
import { dist } from './polygon';
import { acrossAt, refineCourse } from './refineCourse';

/** Side of a square of the mask in which pipes are sought, mm. */
const SQUARE_MM = 0.5;
const MOST_PIPES = 16;

/** Points of a mark that somebody may take over, and what is to be known of it. */
export interface Offered {
  kind: 'path' | 'strip';
  points: PointPx[];
  note: string | null;
}

/**
 * Courses of pipes in the colour of copper, and their widths.
 *
 * @param values of the picture, three to a pixel, 8 bit
 * @param marks what is marked already is not offered again
 */
export function proposePipes(
  picture: Picture,
  values: Uint8Array,
  scale: Scale,
  planeMm: number,
  marks: readonly Pick<Mark, 'kind' | 'points'>[],
): Offered[] {
  const { width, height } = picture;
  const pxMm = mmPerPx(cameraOf(scale), [width / 2, height / 2], planeMm);
  const by = Math.max(1, Math.round(SQUARE_MM / pxMm));
  const mask = copperMask(values, width, height, by);
  return findPipes(mask, picture, pxMm * by)
    .slice(0, MOST_PIPES)
    .flatMap((pipe) => {
      const within = (p: PointPx): PointPx => [
        Math.min(width, Math.max(0, p[0])),
        Math.min(height, Math.max(0, p[1])),
      ];
      const points = refineCourse(picture, pipe.points, pipe.widthPx, pipe.ends, by).map(within);
      const out: Offered[] = [];
      const isMarked = (kind: Mark['kind'], same: (line: readonly PointPx[]) => boolean) =>
        marks.some((m) => m.kind === kind && same(m.points));
      const hasCourse = isMarked('path', (line) => liesOn(points, line, pipe.widthPx));
      const hasWidth = isMarked('strip', (line) => liesOn(line, points, pipe.widthPx));
      if (!hasCourse) out.push({ kind: 'path', points, note: noteOf(pipe) });
      const across = hasWidth ? null : widthOf(picture, points, pipe.widthPx);
      if (across) out.push({ kind: 'strip', points: [...across], note: null });
      return out;
    });
}

function noteOf({ ends, pieces }: FoundPipe): string | null {
  const open = ends.filter((ended) => !ended).length;
  const notes = [
    open > 0 &&
      `goes on at ${open === 2 ? 'both ends' : 'one end'} in something as copper as itself: at least so long`,
    pieces > 1 && 'taken as one pipe behind what it runs under or over',
  ].filter((x) => x !== false);
  return notes.length > 0 ? notes.join('; ') : null;
}

/** The edges across its longest straight piece. */
function widthOf(picture: Picture, points: readonly PointPx[], widthPx: number) {
  let best = 1;
  for (let i = 2; i < points.length; i++) {
    if (dist(points[i - 1]!, points[i]!) > dist(points[best - 1]!, points[best]!)) best = i;
  }
  const [a, b] = [points[best - 1]!, points[best]!];
  const long = dist(a, b);
  if (long === 0) return null;
  const way: PointPx = [(b[0] - a[0]) / long, (b[1] - a[1]) / long];
  // half way may lie where something else crosses it
  for (const share of [0.5, 0.35, 0.65, 0.2, 0.8]) {
    const at: PointPx = [a[0] + share * (b[0] - a[0]), a[1] + share * (b[1] - a[1])];
    const found = acrossAt(picture, at, way, widthPx);
    if (found) return found;
  }
  return null;
}

/** Whether most of a line lies on a course, within half a width. */
function liesOn(line: readonly PointPx[], course: readonly PointPx[], widthPx: number): boolean {
  const STEPS = 16;
  let near = 0;
  let all = 0;
  line.slice(1).forEach((b, k) => {
    const a = line[k]!;
    for (let s = 0; s <= STEPS; s++) {
      const p: PointPx = [a[0] + (s / STEPS) * (b[0] - a[0]), a[1] + (s / STEPS) * (b[1] - a[1])];
      all++;
      if (course.slice(1).some((q, i) => distToSegment(p, course[i]!, q) <= 0.55 * widthPx)) near++;
    }
  });
  return all > 0 && near > 0.5 * all;
}

function distToSegment(p: PointPx, a: PointPx, b: PointPx): number {
  const [ux, uy] = [b[0] - a[0], b[1] - a[1]];
  const square = ux * ux + uy * uy;
  const t = square === 0 ? 0 : ((p[0] - a[0]) * ux + (p[1] - a[1]) * uy) / square;
  const s = Math.min(1, Math.max(0, t));
  return dist(p, [a[0] + s * ux, a[1] + s * uy]);
}
