import { parseRecord } from '@zugluft/core/record/parseRecord';
import type { CaseRecord } from '@zugluft/core/record/recordSchema';
import { useMemo, useRef } from 'react';
import type { Draft } from './draft';

/**
 * The record as far as it can be read: while a figure is half typed, that of before, so that nothing under a typing hand goes away.
 *
 * @returns null where it never could be read; `stale` where it is not that of now
 */
export function useReadable(draft: Draft): { record: CaseRecord | null; stale: boolean } {
  const now = useMemo(() => parseRecord(draft).record, [draft]);
  const last = useRef<CaseRecord | null>(null);
  if (now) last.current = now;
  return { record: now ?? last.current, stale: now === null && last.current !== null };
}
