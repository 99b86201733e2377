import { fitScale, type Lens, type Scale } from './fitScale';
import {
  CLICK_PX,
  isSized,
  marksFileSchema,
  type MarksFile,
  type ScaleItem,
  type SizedItem,
} from './marksFile';
import { MarkFault, measureMark, tiltNote, type Measured } from './measureMarks';
import { isIn, type Picture } from './picture';
import type { PointPx } from './point';
import { toPlane, type Camera } from './camera';
import { fitCircle } from './fitCircle';
import { dist } from './polygon';
import { referenceFault, referenceOf, type ReferenceFault } from './references';
import { readOff, scaleFigure } from './readOff';

/** All that the marks of a photo say. */
export interface Measures {
  format: 'zugluft-measures';
  formatVersion: 1;
  scale: {
    mmPerPx: number;
    plusMinusShare: number;
    /** Of each reference, how far from where it was clicked it would be seen, px. */
    residualsPx: number[];
    /** How the lens bends, where straight edges told it: {@link distorted}. */
    lens?: { k1: number; plusMinus: number };
    note: string | null;
  };
  marks: Measured[];
}

/** What cannot be measured: where, and in words why. */
export class MeasureFault extends Error {
  constructor(
    readonly path: string,
    message: string,
  ) {
    super(message);
  }
}

/**
 * Marks of a photo as they were read, with what is wrong of themselves.
 *
 * @throws MeasureFault
 */
export function parseMarks(input: unknown): MarksFile {
  const shape = marksFileSchema.safeParse(input);
  if (!shape.success) {
    const [first] = shape.error.issues;
    throw new MeasureFault(first!.path.map(String).join('.'), first!.message);
  }
  shape.data.scale.forEach((item, i) => {
    const fault = referenceFault(item);
    if (fault) throw new MeasureFault(`scale.${i}.${fault.at}`, fault.message);
  });
  return shape.data;
}

/**
 * Measures what is marked in a photo.
 *
 * @param progress told how many marks are done; false ends it
 * @throws MeasureFault where a mark or reference lies outside, or cannot be measured
 */
export function measurePhoto(
  picture: Picture,
  lens: Lens,
  file: MarksFile,
  progress?: (done: number, of: number) => boolean | void,
): Measures {
  const size = [picture.width, picture.height] as const;
  file.scale.forEach((item, i) => {
    const fault = referenceOutside(item, size);
    if (fault) throw new MeasureFault(`scale.${i}.${fault.at}`, fault.message);
  });
  file.marks.forEach(({ points }, i) => {
    const fault = markOutside(points, size);
    if (fault) throw new MeasureFault(`marks.${i}.${fault.at}`, fault.message);
  });
  const clickPx = file.clickPx ?? CLICK_PX;
  const scale = fitScale(file.scale, size, lens, clickPx);
  const marks: Measured[] = [];
  for (const [i, mark] of file.marks.entries()) {
    try {
      marks.push(measureMark(picture, scale, mark, file.planeMm ?? 0));
    } catch (cause) {
      if (cause instanceof MarkFault) throw new MeasureFault(`marks.${i}.points`, cause.message);
      throw cause;
    }
    if (progress?.(i + 1, file.marks.length) === false) break;
  }
  return {
    format: 'zugluft-measures',
    formatVersion: 1,
    scale: scaleAnswer(file.scale, size, lens, scale),
    marks,
  };
}

/** What is said of a scale. */
export function scaleAnswer(
  items: readonly ScaleItem[],
  size: readonly [number, number],
  lens: Lens,
  scale: Scale,
): Measures['scale'] {
  const notes = [
    ...referenceNotes(items, size, lens, scale),
    tiltNote(scale),
    scale.tiltKnown
      ? null
      : 'taken as seen straight from above: four corners of something known would show how far it is not',
  ].filter((n) => n !== null);
  return {
    ...scaleFigure(scale, items),
    residualsPx: scale.residualsPx,
    ...lensOf(scale),
    note: notes.length > 0 ? notes.join('; ') : null,
  };
}

const lensOf = ({ lensKnown, theta, covariance }: Scale): Pick<Measures['scale'], 'lens'> =>
  lensKnown ? { lens: { k1: theta[4]!, plusMinus: Math.sqrt(covariance.get(4, 4)) } } : {};

/** Which point of a reference lies outside the picture, and in words. */
export function referenceOutside(
  item: ScaleItem,
  size: readonly [number, number],
): ReferenceFault | null {
  const { points } = referenceOf(item);
  const k = points.findIndex((p) => !isIn({ width: size[0], height: size[1] }, p));
  if (k < 0) return null;
  const at =
    item.kind === 'length'
      ? k === 0
        ? 'from'
        : 'to'
      : `${item.kind === 'rectangle' ? 'corners' : 'points'}.${k}`;
  return { at, message: outside(points[k]!, size) };
}

/** Which point of a mark lies outside the picture, and in words. */
export function markOutside(
  points: readonly PointPx[],
  size: readonly [number, number],
): ReferenceFault | null {
  const k = points.findIndex((p) => !isIn({ width: size[0], height: size[1] }, p));
  return k < 0 ? null : { at: `points.${k}`, message: outside(points[k]!, size) };
}

const outside = ([x, y]: PointPx, [w, h]: readonly [number, number]): string =>
  `(${x}, ${y}) lies outside the picture of ${w} × ${h} px`;

const NONE = { is: 0, byOthers: 0, plusMinus: 0, z: 0 };
/** Deviations by which what a reference is and what the others make of it may differ. */
const AGREES = 3.5;
/** Clicks by which points of an edge may lie off a straight line. */
const NOT_STRAIGHT = 3;

/** What is wrong between references, or between one and its picture. */
export function referenceNotes(
  items: readonly ScaleItem[],
  size: readonly [number, number],
  lens: Lens,
  scale: Scale,
): string[] {
  const out: string[] = [];
  // how the lens bends is of no single one
  const ofLens = items.filter((item) => !isSized(item));
  const fitOf = (sized: readonly SizedItem[]) =>
    fitScale([...sized, ...ofLens], size, lens, scale.clickPx);
  const sized = items.flatMap((item, i) => (isSized(item) ? [{ item, i }] : []));
  items.forEach((item, i) => {
    if (item.kind !== 'lens') return;
    const others = fitScale(
      items.filter((_, k) => k !== i),
      size,
      lens,
      scale.clickPx,
    );
    const seen = lensOf(others).lens;
    if (!seen) return;
    const both = Math.hypot(seen.plusMinus, item.plusMinus);
    if (Math.abs(seen.k1 - item.k1) < AGREES * both) return;
    out.push(
      `scale.${i} does not agree with the straight edges: by them k1 is ${seen.k1.toFixed(3)} ± ${seen.plusMinus.toFixed(3)}, not ${item.k1}`,
    );
  });
  if (out.length > 0) return out;
  items.forEach((item, i) => {
    const off = scale.residualsPx[i]!;
    if (item.kind !== 'straight' || off < NOT_STRAIGHT * scale.clickPx) return;
    out.push(
      `scale.${i}: these points lie ${off.toFixed(1)} px off a straight line, whatever the lens: the edge is bent, or one is misplaced`,
    );
  });
  if (out.length > 0) return out;
  sized.forEach(({ item, i }) => {
    if ((sized.length === 1 ? scale : fitOf([item])).fits) return;
    if (item.kind === 'rectangle') {
      const turned = fitOf([{ ...item, widthMm: item.heightMm, heightMm: item.widthMm }]);
      out.push(
        `scale.${i}: these corners do not fit ${mm(item.widthMm)} × ${mm(item.heightMm)} mm${turned.fits ? `; they would fit ${mm(item.heightMm)} × ${mm(item.widthMm)}, width from the first corner to the second` : ''}`,
      );
    } else if (item.kind === 'circle' && !scale.tiltKnown) {
      out.push(
        `scale.${i}: these points are not those of a circle seen from above: the picture was taken from the side, or one is misplaced`,
      );
    }
  });
  if (sized.length > 1 && out.length === 0) {
    const off = sized.map(({ item, i }) => {
      const others = fitOf(sized.filter((o) => o.i !== i).map((o) => o.item));
      // without the only one that shows the tilt, the others see nothing right
      return scale.tiltKnown && !others.tiltKnown ? NONE : disagreement(item, others);
    });
    const worst = off.reduce((a, b, i) => (b.z > off[a]!.z ? i : a), 0);
    const { z, is, byOthers, plusMinus } = off[worst]!;
    if (z > AGREES) {
      const by = sized.length === 2 ? `scale.${sized[1 - worst]!.i}` : 'the others';
      out.push(
        `scale.${sized[worst]!.i} does not agree with ${by}: by ${sized.length === 2 ? 'it' : 'them'} its ${mm(is)} mm are ${byOthers.toFixed(1)} ± ${plusMinus.toFixed(1)} mm`,
      );
    } else if (!scale.fits) out.push('the references do not agree within their clicks');
  }
  return out;
}

const mm = (x: number) => String(Number(x.toFixed(2)));

/** A reference's size as a scale without it reads it. */
function disagreement(item: SizedItem, scale: Scale) {
  const above = item.aboveMm ?? 0;
  const points = referenceOf(item).points;
  const sizes: { is: number; of: (camera: Camera, p: readonly PointPx[]) => number }[] =
    item.kind === 'circle'
      ? [
          {
            is: item.diameterMm,
            of: (camera, p) =>
              2 * (fitCircle(p.map((x) => toPlane(camera, x, above)))?.radius ?? NaN),
          },
        ]
      : (item.kind === 'length'
          ? ([[0, 1, item.mm]] as const)
          : ([
              [0, 1, item.widthMm],
              [1, 2, item.heightMm],
            ] as const)
        ).map(([a, b, is]) => ({
          is,
          of: (camera: Camera, p: readonly PointPx[]) =>
            dist(toPlane(camera, p[a]!, above), toPlane(camera, p[b]!, above)),
        }));
  return sizes
    .map(({ is, of }) => {
      const { value, plusMinus } = readOff(scale, points, of);
      return { is, byOthers: value, plusMinus, z: Math.abs(value - is) / plusMinus };
    })
    .reduce((a, b) => (b.z > a.z ? b : a));
}
