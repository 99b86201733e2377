import { bendsOf } from './bends';
import { mmPerPx, tiltDeg, toPixel, toPlane, type Camera } from './camera';
import { countFins, type FinPlace } from './countFins';
import { finProfile } from './finProfile';
import { fitCircle } from './fitCircle';
import { cameraOf, type Scale } from './fitScale';
import type { Mark } from './marksFile';
import { openShare } from './openShare';
import type { Picture } from './picture';
import type { PointMm, PointPx } from './point';
import { dist, signedArea } from './polygon';
import { stripEdges } from './stripEdges';
import { readOff } from './readOff';

export type MeasureUnit = 'mm' | 'count' | 'share' | 'mm2' | 'deg';

/** What a mark says. */
export interface Measured {
  id: string;
  /** Null where the picture does not tell it; the note says why. */
  value: number | null;
  /** One standard deviation of scale and clicks together. */
  plusMinus: number | null;
  unit: MeasureUnit;
  note: string | null;
  /** Of fins and holes: from one to the next. */
  pitchMm?: number | null;
  pitchPlusMinusMm?: number | null;
  /** Of fins. */
  thicknessMm?: number | null;
  thicknessAtMostMm?: number;
  /** Of a path: how often it turns by more than ten degrees. */
  bends?: number;
  bendDeg?: number[];
  /** Of an area with four corners: its mean width, from the first corner to the second, and its mean length. */
  sidesMm?: { value: number; plusMinus: number }[];
  /** Of an open share. */
  holes?: number;
  holeMm?: number | null;
  threshold?: number;
  /** Of fins, where asked for: light along the line from end to end, and where each fin is, as a share of it. */
  profile?: number[];
  ticks?: { share: number; is: FinPlace['is'] }[];
  /** Where it was found, px: edges of a strip, fins of a line, the rim of a circle. */
  found?: PointPx[];
}

/** A mark that cannot be measured, whatever the picture: what is wrong with its points. */
export class MarkFault extends Error {}

type Of = (camera: Camera, points: readonly PointPx[]) => number;

const onPlane = (camera: Camera, points: readonly PointPx[], aboveMm: number): PointMm[] =>
  points.map((p) => toPlane(camera, p, aboveMm));

/** Unit of what a mark of a kind says. */
export const UNIT_OF_MARK: Record<Mark['kind'], MeasureUnit> = {
  length: 'mm',
  strip: 'mm',
  circle: 'mm',
  path: 'mm',
  fins: 'count',
  openShare: 'share',
  area: 'mm2',
  angle: 'deg',
};

/**
 * Measures a mark.
 *
 * @param picture its light: strips, fins and holes are found in it
 * @param scale of the picture
 * @param planeMm height of what is measured over the plane of the references
 * @param withProfile of fins, the light along their line too
 * @throws MarkFault where its points cannot be measured
 */
export function measureMark(
  picture: Picture,
  scale: Scale,
  mark: Mark,
  planeMm: number,
  withProfile = false,
): Measured {
  const above = planeMm + (mark.aboveMm ?? 0);
  const blank: Measured = {
    id: mark.id,
    value: null,
    plusMinus: null,
    unit: UNIT_OF_MARK[mark.kind],
    note: null,
  };
  const camera = cameraOf(scale);
  if (onPlane(camera, mark.points, above).some(([x]) => !Number.isFinite(x))) {
    throw new MarkFault('a point lies over the horizon of the plane, by its height and the tilt');
  }
  const read = (points: readonly PointPx[], of: Of, clickPx?: number) => {
    const { value, plusMinus } = readOff(scale, points, of, clickPx);
    return { value, plusMinus };
  };
  switch (mark.kind) {
    case 'length':
      if (dist(mark.points[0]!, mark.points[1]!) < 1)
        throw new MarkFault('both ends lie on one place');
      return { ...blank, ...read(mark.points, lengthOf(above)) };
    case 'path':
      return { ...blank, ...read(mark.points, lengthOf(above)), ...bendsAt(camera, mark, above) };
    case 'area': {
      const area: Of = (c, p) => Math.abs(signedArea(onPlane(c, p, above)));
      const sides =
        mark.points.length === 4
          ? { sidesMm: [0, 1].map((k) => read(mark.points, sideOf(above, k))) }
          : {};
      return { ...blank, ...read(mark.points, area), ...sides };
    }
    case 'angle':
      return { ...blank, ...read(mark.points, angleOf(above)) };
    case 'circle':
      return { ...blank, ...circle(scale, mark, above) };
    case 'strip':
      return { ...blank, ...strip(picture, scale, mark, above) };
    case 'fins':
      return { ...blank, ...fins(picture, camera, scale, mark, above, withProfile) };
    case 'openShare':
      return { ...blank, ...share(picture, camera, scale, mark, above) };
  }
}

const lengthOf =
  (above: number): Of =>
  (camera, points) => {
    const at = onPlane(camera, points, above);
    return at.slice(1).reduce((sum, p, i) => sum + dist(at[i]!, p), 0);
  };

/** Mean of two opposite sides of four corners. */
const sideOf =
  (above: number, first: number): Of =>
  (camera, points) => {
    const at = onPlane(camera, points, above);
    const side = (k: number) => dist(at[k]!, at[(k + 1) % 4]!);
    return (side(first) + side(first + 2)) / 2;
  };

/** Between the arms from the second point, 0 to 180°. */
const angleOf =
  (above: number): Of =>
  (camera, points) => {
    const [a, v, b] = onPlane(camera, points, above) as [PointMm, PointMm, PointMm];
    const [ux, uy, wx, wy] = [a[0] - v[0], a[1] - v[1], b[0] - v[0], b[1] - v[1]];
    return (Math.atan2(Math.abs(ux * wy - uy * wx), ux * wx + uy * wy) * 180) / Math.PI;
  };

function bendsAt(camera: Camera, mark: Mark, above: number) {
  const bends = bendsOf(onPlane(camera, mark.points, above));
  return { bends: bends.length, bendDeg: bends.map((b) => Math.round(Math.abs(b.turnDeg))) };
}

/** Places by which the rim of a circle is told. */
const RIM_POINTS = 36;

function circle(scale: Scale, mark: Mark, above: number): Partial<Measured> {
  const of: Of = (camera, points) => {
    const found = fitCircle(onPlane(camera, points, above));
    return found ? 2 * found.radius : NaN;
  };
  const { value, plusMinus } = readOff(scale, mark.points, of);
  if (!Number.isFinite(value))
    throw new MarkFault('the points lie on a line: they are of no circle');
  const camera = cameraOf(scale);
  const at = onPlane(camera, mark.points, above);
  const found = fitCircle(at)!;
  const off = at.map((p) => Math.abs(Math.hypot(p[0] - found.x, p[1] - found.y) - found.radius));
  const px = mmPerPx(camera, mark.points[0]!, above);
  const worst = Math.max(...off) / px;
  const rim = Array.from({ length: RIM_POINTS }, (_, i): PointMm => {
    const turn = (2 * Math.PI * i) / RIM_POINTS;
    return [found.x + found.radius * Math.cos(turn), found.y + found.radius * Math.sin(turn)];
  });
  return {
    value,
    plusMinus,
    found: rim.map((p) => toPixel(camera, p, above)),
    note:
      worst > 4 * scale.clickPx
        ? `one of its points lies ${worst.toFixed(0)} px off the circle`
        : null,
  };
}

function strip(picture: Picture, scale: Scale, mark: Mark, above: number): Partial<Measured> {
  const a: PointPx = mark.points[0]!;
  const b: PointPx = mark.points[1]!;
  if (dist(a, b) < 2)
    throw new MarkFault('its two clicks lie on one place: one belongs on each edge');
  const found = stripEdges(picture, a, b);
  if (!found) {
    return {
      note: 'no edge is found beside both clicks: what it ends at is as bright as itself, or the picture is not sharp',
    };
  }
  const { value, plusMinus } = readOff(scale, found.edges, lengthOf(above), found.plusMinusPx);
  return { value, plusMinus, note: found.note, found: [...found.edges] };
}

/** Pixels a fin at which they are surely counted. */
const ENOUGH_PX = 3;
/** Finer fins are not built into notebooks (common practice, no source). */
const FINEST_PITCH_MM = 0.8;

function fins(
  picture: Picture,
  camera: Camera,
  scale: Scale,
  mark: Mark,
  above: number,
  withProfile: boolean,
): Partial<Measured> {
  const [a, b] = onPlane(camera, mark.points, above) as [PointMm, PointMm];
  if (dist(mark.points[0]!, mark.points[1]!) < 12)
    throw new MarkFault('the line is too short to count along');
  const profile = finProfile(picture, camera, a, b, above);
  const count = countFins(profile);
  const drawn = withProfile ? { profile: thinned(profile.light) } : {};
  if ('why' in count) {
    // mm a pixel is distance over focal length
    const fromMm = camera.focalPx * (FINEST_PITCH_MM / ENOUGH_PX);
    const at = mmPerPx(camera, mark.points[0]!, above) * camera.focalPx;
    const near = Math.max(50, Math.round(Math.min(fromMm, 0.6 * at) / 10) * 10);
    return {
      ...drawn,
      pitchMm: null,
      note:
        count.why === 'fine'
          ? `fins under two pixels each cannot be told: a photo from about ${near} mm would do`
          : `nothing repeats along this line: it may not run across fins, or the picture is blurred or overexposed; a sharp photo from about ${near} mm would do`,
    };
  }
  const ends = readOff(scale, mark.points, lengthOf(above), 0);
  const shareOff = ends.scalePlusMinus / ends.value;
  const e = [(b[0] - a[0]) / dist(a, b), (b[1] - a[1]) / dist(a, b)] as const;
  const longMm = dist(a, b);
  return {
    ...drawn,
    ...(withProfile
      ? { ticks: count.places.map((p) => ({ share: p.atMm / longMm, is: p.is })) }
      : {}),
    value: count.count,
    plusMinus: count.plusMinus,
    pitchMm: count.pitchMm,
    pitchPlusMinusMm: Math.hypot(count.pitchPlusMinusMm, count.pitchMm * shareOff),
    thicknessMm: count.thicknessMm,
    thicknessAtMostMm: count.thicknessAtMostMm,
    note: count.notes.length > 0 ? count.notes.join('; ') : null,
    found: count.places
      .filter((p) => p.is !== 'missing')
      .map((p) => toPixel(camera, [a[0] + e[0] * p.atMm, a[1] + e[1] * p.atMm], above)),
  };
}

/** A drawing has no more points than this. */
const DRAWN_POINTS = 600;

/** Means over stretches, each to three digits: as much as a drawing shows. */
function thinned(light: Float64Array): number[] {
  const n = Math.min(DRAWN_POINTS, light.length);
  return Array.from({ length: n }, (_, i) => {
    const from = Math.floor((i * light.length) / n);
    const to = Math.floor(((i + 1) * light.length) / n);
    let sum = 0;
    for (let k = from; k < to; k++) sum += light[k]!;
    return Math.round((1000 * sum) / (to - from)) / 1000;
  });
}

function share(
  picture: Picture,
  camera: Camera,
  scale: Scale,
  mark: Mark,
  above: number,
): Partial<Measured> {
  if (Math.abs(signedArea(mark.points)) < 1)
    throw new MarkFault('the area is none: its corners lie on a line');
  const found = openShare(picture, camera, mark.points, above, mark.threshold);
  if (!found) {
    return {
      note: 'the area is too small, or larger than sixteen million pixels: mark a part of it',
    };
  }
  // a rim clicked a pixel off takes in or leaves out that much
  const rim = mark.points.reduce(
    (s, p, i) => s + dist(p, mark.points[(i + 1) % mark.points.length]!),
    0,
  );
  const clicks =
    (scale.clickPx * rim * 0.25) /
    Math.abs(signedArea(mark.points)) /
    Math.sqrt(mark.points.length);
  return {
    value: found.share,
    plusMinus: Math.hypot(found.plusMinus, clicks * Math.sqrt(found.share * (1 - found.share))),
    pitchMm: found.pitchMm,
    holeMm: found.holeMm,
    holes: found.holes,
    threshold: found.threshold,
    note: found.note,
  };
}

/** Words on how the picture was taken that concern every mark. */
export function tiltNote(scale: Scale): string | null {
  const tilt = tiltDeg(cameraOf(scale));
  return scale.tiltKnown && tilt > 35
    ? `seen from ${tilt.toFixed(0)}° to the side: a photo from above would be surer`
    : null;
}
