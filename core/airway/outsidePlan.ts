import { figureValue, type Figure } from '../record/figure';
import type { CaseRecord } from '../record/recordSchema';
import { placeParts, type PlacedPart } from './placeParts';

/** Faces of the shell that the plan shows, as it lies upside down with its sides folded out. */
export const FACES = ['base', 'rear', 'left', 'right'] as const;
export type Face = (typeof FACES)[number];

export interface Rect {
  x: number;
  y: number;
  width: number;
  height: number;
}

export interface PlannedVent extends Rect {
  id: string;
  index: number;
  face: Face;
}

export interface OutsidePlan {
  /** Each face, mm, seen from below: the user's left lies on the right. */
  faces: Record<Face, Rect>;
  vents: PlannedVent[];
  /** Vents on the deck, which the plan cannot show. */
  onDeck: { id: string; index: number }[];
}

const GAP_MM = 6;
/** A strip thinner than this could not be pointed at. */
const MIN_STRIP_MM = 16;

const mm = (figure: Figure | undefined, otherwise: number): number => {
  const value = figureValue(figure);
  return typeof value === 'number' && Number.isFinite(value) && value > 0 ? value : otherwise;
};

const faceOf = (side: string | undefined): Face | null =>
  side === 'deck' ? null : side === 'rear' || side === 'left' || side === 'right' ? side : 'base';

function facesOf(record: CaseRecord, widthMm: number, depthMm: number): Record<Face, Rect> {
  const strip = Math.max(MIN_STRIP_MM, mm(record.shell?.thicknessMm, 20));
  return {
    base: { x: 0, y: 0, width: widthMm, height: depthMm },
    rear: { x: 0, y: -GAP_MM - strip, width: widthMm, height: strip },
    left: { x: widthMm + GAP_MM, y: 0, width: strip, height: depthMm },
    right: { x: -GAP_MM - strip, y: 0, width: strip, height: depthMm },
  };
}

/**
 * Vents on base, rear and sides as they are to be seen from outside: where the airway map has them, in their recorded size, held
 * within their face.
 *
 * @param record a record, complete or not
 */
export function outsidePlan(record: CaseRecord): OutsidePlan {
  const { widthMm, depthMm, parts } = placeParts(record);
  const faces = facesOf(record, widthMm, depthMm);
  const vents: PlannedVent[] = [];
  const onDeck: OutsidePlan['onDeck'] = [];
  for (const p of parts) {
    if (p.kind !== 'vent') continue;
    const vent = record.vents![p.index]!;
    const face = faceOf(vent.side);
    if (!face) {
      onDeck.push({ id: p.id, index: p.index });
      continue;
    }
    const along = mm(vent.widthMm, 60);
    const across = mm(vent.lengthMm, 10);
    const side = face === 'left' || face === 'right';
    const at = faces[face];
    const width = Math.min(at.width, side ? across : along);
    const height = Math.min(at.height, side ? along : across);
    const middle = {
      x: side ? at.x + at.width / 2 : widthMm - p.xMm,
      y: face === 'rear' ? at.y + at.height / 2 : p.yMm,
    };
    const hold = (v: number, low: number, high: number) => Math.min(high, Math.max(low, v));
    vents.push({
      id: p.id,
      index: p.index,
      face,
      x: hold(middle.x - width / 2, at.x, at.x + at.width - width),
      y: hold(middle.y - height / 2, at.y, at.y + at.height - height),
      width,
      height,
    });
  }
  return { faces, vents, onDeck };
}

/** The face at a point of the plan; null beside all of them. */
export function faceAt({ faces }: OutsidePlan, x: number, y: number): Face | null {
  return (
    FACES.find((f) => {
      const r = faces[f];
      return x >= r.x && x <= r.x + r.width && y >= r.y && y <= r.y + r.height;
    }) ?? null
  );
}

/** Where the record keeps a vent whose middle is put at a point of a face: from the user's left and from the rear edge, mm. */
export function keptPlace(
  { faces }: OutsidePlan,
  face: Face,
  x: number,
  y: number,
): { xMm: number; yMm: number } {
  const { width, height } = faces.base;
  const xMm = face === 'left' ? 0 : face === 'right' ? width : width - x;
  const yMm = face === 'rear' ? 0 : y;
  return {
    xMm: Math.round(Math.min(width, Math.max(0, xMm))),
    yMm: Math.round(Math.min(height, Math.max(0, yMm))),
  };
}

/** What a vent found at a point most likely is: on the base air enters to the nearest fan, elsewhere it leaves the nearest stack. */
export function likelyVent(
  record: CaseRecord,
  face: Face,
  at: { xMm: number; yMm: number },
): { side: Face; flow: 'intake' | 'exhaust'; fans?: string[]; finStacks?: string[] } {
  const kind: PlacedPart['kind'] = face === 'base' ? 'fan' : 'stack';
  const near = placeParts(record)
    .parts.filter((p) => p.kind === kind)
    .map((p) => ({ id: p.id, d: Math.hypot(p.xMm - at.xMm, p.yMm - at.yMm) }))
    .sort((a, b) => a.d - b.d)[0];
  const serves = near ? [near.id] : [];
  return face === 'base'
    ? { side: face, flow: 'intake', fans: serves }
    : { side: face, flow: 'exhaust', finStacks: serves };
}
