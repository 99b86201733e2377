import { useEffect } from 'react';
import { NO_MARKS, type PhotoMarks, type PhotoReference } from '@zugluft/core/photo/photoMarks';
import type { PointPx } from '@zugluft/core/photo/point';
import { pointsOf } from '@zugluft/core/photo/knownThings';
import type { Attachment } from '../../api/attachments';
import { useDocument } from '../../documents/useDocument';
import type { Held } from './marking';

/** A name that no other of them has. */
export function freshId(marks: readonly { id: string }[], stem: string): string {
  const taken = new Set(marks.map((m) => m.id));
  for (let n = 1; ; n++) if (!taken.has(`${stem}-${n}`)) return `${stem}-${n}`;
}

/** The points of a mark or reference. */
export function heldPoints(marks: PhotoMarks, { list, index }: Held): readonly PointPx[] {
  if (list === 'marks') return marks.marks[index]?.mark.points ?? [];
  const item = marks.references[index]?.item;
  return item ? pointsOf(item) : [];
}

/** The same marks with points of one of them elsewhere. */
export function withPoints(
  marks: PhotoMarks,
  { list, index }: Held,
  points: readonly PointPx[],
): PhotoMarks {
  const at = points.map((p): [number, number] => [p[0], p[1]]);
  if (list === 'marks') {
    return {
      ...marks,
      marks: marks.marks.map((m, i) =>
        i === index ? { ...m, mark: { ...m.mark, points: at } } : m,
      ),
    };
  }
  return {
    ...marks,
    references: marks.references.map((r, i): PhotoReference => {
      if (i !== index) return r;
      const { item } = r;
      if (item.kind === 'rectangle') return { ...r, item: { ...item, corners: at } };
      if (item.kind === 'length') return { ...r, item: { ...item, from: at[0]!, to: at[1]! } };
      return item.kind === 'lens' ? r : { ...r, item: { ...item, points: at } };
    }),
  };
}

/** Without one of them. */
export function without(marks: PhotoMarks, { list, index }: Held): PhotoMarks {
  return { ...marks, [list]: marks[list].filter((_, i) => i !== index) };
}

/** The marks of a photo: a document like any other. */
export function useMarks(photo: Attachment) {
  const { view, keeper, error, again } = useDocument('marks', photo.id);
  const { id } = photo;
  useEffect(() => () => void keeper?.flush(), [keeper, id]);
  return {
    marks: view?.value ?? NO_MARKS,
    ready: view !== null,
    view,
    keeper,
    error,
    again,
    change(make: (marks: PhotoMarks) => PhotoMarks, touched: string | null = null) {
      keeper?.change(make, touched);
    },
  };
}
