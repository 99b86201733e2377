import { parseRecord } from '@zugluft/core/record/parseRecord';
import type { CaseRecord } from '@zugluft/core/record/recordSchema';
import { useMemo, useRef } from 'react';

/**
 * The record as far as it can be read: while a figure is half typed, that with what stood there before, so that nothing under a
 * typing hand goes away.
 *
 * @param now what stands there, or null where it cannot be read
 * @param keepable the part of it that may be kept, or null
 * @returns null where it never could be read
 */
export function useReadable(
  now: CaseRecord | null,
  keepable: CaseRecord | null,
): CaseRecord | null {
  const part = useMemo(() => (now ? null : parseRecord(keepable).record), [now, keepable]);
  const last = useRef<CaseRecord | null>(null);
  last.current = now ?? part ?? last.current;
  return last.current;
}
