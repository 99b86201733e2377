import { likelyVent, type Face } from '@zugluft/core/airway/outsidePlan';
import type { CaseRecord } from '@zugluft/core/record/recordSchema';
import { addPart, partsOf, setAt } from '../../documents/record/draft';

/** A vent at a place, with what it most likely is. */
export function addVent(
  draft: Parameters<typeof addPart>[0],
  record: CaseRecord,
  face: Face,
  place: { xMm: number; yMm: number },
) {
  const next = addPart(draft, 'vents');
  const index = partsOf(next, 'vents').length - 1;
  const { id } = partsOf(next, 'vents')[index]!;
  return setAt(
    setAt(next, ['vents', index], { id, ...likelyVent(record, face, place) }),
    ['airway', 'places', id],
    place,
  );
}
