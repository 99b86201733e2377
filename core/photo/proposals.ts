import { mmPerPx, toPixel, toPlane } from './camera';
import { MOST_PITCH_MM } from './countFins';
import { findCircles } from './findCircles';
import { findFins } from './findFins';
import { cameraOf, fitScale, type Lens, type Scale } from './fitScale';
import { CLICK_PX, isSized, type Mark } from './marksFile';
import { MarkFault, measureMark, type Measured } from './measureMarks';
import { referenceOutside } from './measures';
import type { PhotoMarks } from './photoMarks';
import type { Picture } from './picture';
import type { PointPx } from './point';
import { dist } from './polygon';
import { proposePipes } from './proposePipes';
import { reduced } from './reduced';
import { refineRim } from './refineRim';
import { referenceFault } from './references';
import { SOUGHT, type Sought } from './sought';

/** A mark that somebody may take over: what it is of only they can say. */
export interface Proposal {
  kind: Mark['kind'];
  points: [number, number][];
  /** What it would read. */
  reads: Measured;
}

/** Impellers of notebooks, mm across (common practice, no source). */
const IMPELLER_MM = [24, 100] as const;
/** Fewer fins than these may be anything that repeats. */
const LEAST_FINS = 12;
/** Longer side of the picture in which rims are sought. */
const SEEN_PX = 900;
/** How far a stack may go on beyond where it is sure, in pixels. */
const BEYOND_PX = 110;
const MOST = 40;

/**
 * Finds parts in a photo where that is reliable: rims of impellers, fields of fins, pipes in the colour of copper. What is marked
 * already is not proposed again.
 *
 * @param values three to a pixel, 8 bit; without them no pipes are sought
 * @param of which of them are sought
 * @returns none without something of known size: only that tells an impeller from a screw
 */
export function proposeMarks(
  picture: Picture,
  lens: Lens,
  kept: PhotoMarks,
  values: Uint8Array | null = null,
  of: readonly Sought[] = SOUGHT,
): Proposal[] {
  const size = [picture.width, picture.height] as const;
  const items = kept.references
    .map((r) => r.item)
    .filter((i) => !referenceFault(i) && !referenceOutside(i, size));
  if (!items.some(isSized)) return [];
  const scale = fitScale(items, size, lens, kept.clickPx ?? CLICK_PX);
  const planeMm = kept.planeMm ?? 0;
  const marks = kept.marks.map((m) => m.mark);
  const found = {
    circles: () => circles(picture, scale, planeMm),
    fins: () => fins(picture, scale, planeMm),
    pipes: () => (values ? pipes(picture, values, scale, planeMm, marks) : []),
  };
  return SOUGHT.filter((s) => of.includes(s))
    .flatMap((s) => found[s]())
    .filter((p) => p.kind === 'path' || p.kind === 'strip' || !marks.some((m) => isSame(m, p)))
    .slice(0, MOST);
}

function circles(picture: Picture, scale: Scale, planeMm: number): Proposal[] {
  const middle = mmPerPx(cameraOf(scale), [picture.width / 2, picture.height / 2], planeMm);
  return findCircles(
    reduced(picture, SEEN_PX),
    IMPELLER_MM[0] / 2 / middle,
    IMPELLER_MM[1] / 2 / middle,
  ).flatMap((c) => {
    const rim = refineRim(picture, cameraOf(scale), c.points, planeMm);
    return (rim && proposal(picture, scale, planeMm, 'circle', rim)) ?? [];
  });
}

function fins(picture: Picture, scale: Scale, planeMm: number): Proposal[] {
  const out: Proposal[] = [];
  for (const { lines, pitchPx } of findFins(picture)) {
    const found = stack(picture, scale, planeMm, lines, pitchPx);
    // fins at the border of two sizes of the picture are found in both
    if (found && !out.some((o) => isSame(o, found))) out.push(found);
  }
  return out;
}

/** What is marked already is told apart by its course. */
function pipes(
  picture: Picture,
  values: Uint8Array,
  scale: Scale,
  planeMm: number,
  marks: readonly Pick<Mark, 'kind' | 'points'>[],
): Proposal[] {
  return proposePipes(picture, values, scale, planeMm, marks).flatMap(({ kind, points, note }) => {
    const told = proposal(picture, scale, planeMm, kind, points);
    // a width that needs a word is not sure
    if (!told || (kind === 'strip' && told.reads.note !== null)) return [];
    return [{ ...told, reads: { ...told.reads, note: note ?? told.reads.note } }];
  });
}

/** Of several lines across a field of fins that on which most are counted, if another one counts as many. */
function stack(
  picture: Picture,
  scale: Scale,
  planeMm: number,
  lines: readonly (readonly [PointPx, PointPx])[],
  pitchPx: number,
): Proposal | null {
  const counted = lines
    .flatMap((line) => {
      const told = proposal(picture, scale, planeMm, 'fins', beyond(line, picture));
      const isFins =
        told && told.reads.value! >= LEAST_FINS && (told.reads.pitchMm ?? 0) <= MOST_PITCH_MM;
      return isFins ? [{ told, line, ...spanOf(told, line) }] : [];
    })
    .sort((a, b) => b.told.reads.value! - a.told.reads.value!);
  const clear = counted.filter((c) => c.told.reads.note === null);
  const [most, next] = clear;
  if (!most || most.told.reads.value !== next?.told.reads.value) return null;
  // one that runs out of the stack before its end counts too few: others go on beyond it
  const slack = 1.5 * pitchPx;
  const goesOn = counted.some((c) => c.from < most.from - slack || c.to > most.to + slack);
  if (goesOn) return null;
  const ends = endsOf(most.told.reads.found ?? [], most.line, pitchPx, scale, planeMm);
  const trimmed = ends && proposal(picture, scale, planeMm, 'fins', ends);
  return trimmed?.reads.value === most.told.reads.value ? trimmed : most.told;
}

/** From where to where fins were found, along the longer way of a line. */
function spanOf(
  { reads: { found = [] } }: Proposal,
  [a, b]: readonly [PointPx, PointPx],
): { from: number; to: number } {
  const way = Math.abs(b[0] - a[0]) > Math.abs(b[1] - a[1]) ? 0 : 1;
  return { from: found[0]?.[way] ?? 0, to: found.at(-1)?.[way] ?? 0 };
}

function proposal(
  picture: Picture,
  scale: Scale,
  planeMm: number,
  kind: Mark['kind'],
  points: readonly PointPx[],
): Proposal | null {
  const at = points.map((p): [number, number] => [
    Math.round(p[0] * 100) / 100,
    Math.round(p[1] * 100) / 100,
  ]);
  try {
    const reads = measureMark(picture, scale, { id: 'proposal', kind, points: at }, planeMm);
    return reads.value === null ? null : { kind, points: at, reads };
  } catch (cause) {
    if (cause instanceof MarkFault) return null;
    throw cause;
  }
}

/** A line that is longer at both ends, within the picture. */
function beyond(
  [a, b]: readonly [PointPx, PointPx],
  { width: w, height: h }: Picture,
): [PointPx, PointPx] {
  const long = dist(a, b);
  const [ex, ey] = [((b[0] - a[0]) / long) * BEYOND_PX, ((b[1] - a[1]) / long) * BEYOND_PX];
  const within = ([x, y]: PointPx): PointPx => [
    Math.min(w - 1, Math.max(1, x)),
    Math.min(h - 1, Math.max(1, y)),
  ];
  return [within([a[0] - ex, a[1] - ey]), within([b[0] + ex, b[1] + ey])];
}

/** From before the first fin that was found to behind the last. */
function endsOf(
  found: readonly PointPx[],
  [a, b]: readonly [PointPx, PointPx],
  pitchPx: number,
  scale: Scale,
  planeMm: number,
): [PointPx, PointPx] | null {
  const [first, last] = [found[0], found.at(-1)];
  if (!first || !last) return null;
  const long = dist(a, b);
  const e: PointPx = [(b[0] - a[0]) / long, (b[1] - a[1]) / long];
  const camera = cameraOf(scale);
  const out = (p: PointPx, by: number): PointPx =>
    toPixel(camera, toPlane(camera, [p[0] + by * e[0], p[1] + by * e[1]], planeMm), planeMm);
  return [out(first, -0.9 * pitchPx), out(last, 0.9 * pitchPx)];
}

const middleOf = (points: readonly PointPx[]): PointPx => [
  points.reduce((s, p) => s + p[0], 0) / points.length,
  points.reduce((s, p) => s + p[1], 0) / points.length,
];
const reach = (points: readonly PointPx[]): number =>
  Math.max(...points.map((p) => dist(p, points[0]!)));

/** Whether a mark is of what is proposed. */
function isSame(mark: Pick<Mark, 'kind' | 'points'>, { kind, points }: Proposal): boolean {
  return mark.kind === kind && dist(middleOf(mark.points), middleOf(points)) < 0.35 * reach(points);
}
