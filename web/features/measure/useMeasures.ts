import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useDeferredValue, useEffect, useMemo, useState } from 'react';
import { measureKept, needsLight, type KeptMeasures } from '@zugluft/core/photo/measureKept';
import type { PhotoMarks } from '@zugluft/core/photo/photoMarks';
import type { Attachment } from '../../api/attachments';
import { measurePhoto } from '../../api/measuring';

const REST_MS = 150;

/** What stands still for a moment. */
function useResting<T>(value: T, ms: number): T {
  const [resting, setResting] = useState(value);
  useEffect(() => {
    const timer = setTimeout(() => setResting(value), ms);
    return () => clearTimeout(timer);
  }, [value, ms]);
  return resting;
}

export interface LiveMeasures extends KeptMeasures {
  /** Marks that need the photo's light are still being measured as they stand now. */
  pending: boolean;
  error: Error | null;
}

/** What the marks of a photo measure while they are made: those of points alone at once, those that need its light by the server. */
export function useMeasures(photo: Attachment, marks: PhotoMarks): LiveMeasures {
  const shown = useDeferredValue(marks);
  const here = useMemo(
    () => measureKept(null, [photo.widthPx!, photo.heightPx!], { focalPx: photo.focalPx }, shown),
    [photo.widthPx, photo.heightPx, photo.focalPx, shown],
  );
  const resting = useResting(marks, REST_MS);
  const lit = resting.references.length > 0 && resting.marks.some((m) => needsLight(m.mark.kind));
  const { data, error, isFetching } = useQuery({
    queryKey: ['measures', photo.id, resting],
    queryFn: ({ signal }) => measurePhoto(photo, resting, signal),
    enabled: lit,
    staleTime: Infinity,
    placeholderData: keepPreviousData,
    retry: false,
  });
  const pending =
    marks.references.length > 0 &&
    marks.marks.some((m) => needsLight(m.mark.kind)) &&
    (isFetching || resting !== marks);
  return useMemo(() => {
    const byId = new Map(lit ? data?.marks.map((m) => [m.id, m]) : []);
    return {
      ...here,
      marks: here.marks.map((m, i) =>
        needsLight(shown.marks[i]!.mark.kind) ? (byId.get(m.id) ?? m) : m,
      ),
      faults: [
        ...here.faults,
        ...(lit ? (data?.faults ?? []) : []).filter(
          (f) => !here.faults.some((h) => h.path === f.path),
        ),
      ],
      pending,
      error: lit ? error : null,
    };
  }, [here, shown, data, lit, pending, error]);
}
