import { homography } from './homography';
import { cameraOf, fitScale, type Lens } from './fitScale';
import { footOf, toPlane } from './camera';
import { fitCircle } from './fitCircle';
import { SHELL } from './knownThings';
import { CLICK_PX } from './marksFile';
import type { PhotoMark, PhotoMarks } from './photoMarks';
import type { PointMm } from './point';
import { referenceFault } from './references';

/** Where a part lies in the machine: from the user's left and from the rear edge, mm. */
export interface PlaceOfPart {
  part: string;
  xMm: number;
  yMm: number;
}

/** Lists whose parts the plan shows. */
const PLACED = /^(fans|finStacks|plates|dies|vents)\.([^.]+)\./;

/**
 * Places of parts on the plan of the machine, from their marks. Told in the outline of the shell, whose corners are marked from the rear
 * corner at the user's right to that at the user's left and on round: in a picture from below, rear upwards, from the upper left corner.
 *
 * @returns none where the shell is not marked
 */
export function placesOfMarks(
  size: readonly [number, number],
  lens: Lens,
  { references, marks, planeMm = 0, clickPx = CLICK_PX }: PhotoMarks,
): PlaceOfPart[] {
  const shell = references.find((r) => r.what === SHELL)?.item;
  if (shell?.kind !== 'rectangle' || referenceFault(shell)) return [];
  const items = references.map((r) => r.item).filter((i) => !referenceFault(i));
  const camera = cameraOf(fitScale(items, size, lens, clickPx));
  const { widthMm: w, heightMm: d } = shell;
  const toShell = homography(
    shell.corners.map((p) =>
      footOf(camera, toPlane(camera, p, shell.aboveMm ?? 0), shell.aboveMm ?? 0),
    ),
    [
      [w, 0],
      [0, 0],
      [0, d],
      [w, d],
    ],
  );
  const best = new Map<string, { at: PointMm; rank: number }>();
  for (const m of marks) {
    const part = PLACED.exec(m.figure ?? '')?.[2];
    if (!part) continue;
    const above = planeMm + (m.mark.aboveMm ?? 0);
    const middle = middleOf(
      m,
      m.mark.points.map((p) => toPlane(camera, p, above)),
    );
    const at = middle && footOf(camera, middle, above);
    const rank = RANK[m.mark.kind] ?? 0;
    if (at && rank > (best.get(part)?.rank ?? 0)) best.set(part, { at, rank });
  }
  return [...best].map(([part, { at }]) => {
    const h = toShell;
    const z = h.get(2, 0) * at[0] + h.get(2, 1) * at[1] + h.get(2, 2);
    const x = (h.get(0, 0) * at[0] + h.get(0, 1) * at[1] + h.get(0, 2)) / z;
    const y = (h.get(1, 0) * at[0] + h.get(1, 1) * at[1] + h.get(1, 2)) / z;
    return {
      part,
      xMm: Math.round(Math.min(w, Math.max(0, x))),
      yMm: Math.round(Math.min(d, Math.max(0, y))),
    };
  });
}

/** How well the middle of a mark of a kind is that of its part. */
const RANK: Partial<Record<PhotoMark['mark']['kind'], number>> = {
  area: 5,
  circle: 4,
  openShare: 3,
  fins: 2,
  length: 1,
  strip: 1,
};

function middleOf({ mark }: PhotoMark, at: readonly PointMm[]): PointMm | null {
  if (mark.kind === 'circle') {
    const found = fitCircle(at);
    return found && [found.x, found.y];
  }
  const n = at.length;
  return n === 0
    ? null
    : [at.reduce((s, p) => s + p[0], 0) / n, at.reduce((s, p) => s + p[1], 0) / n];
}
