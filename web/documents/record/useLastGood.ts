import { createStore, get, set } from 'idb-keyval';
import { parseRecord } from '@zugluft/core/record/parseRecord';
import type { CaseRecord } from '@zugluft/core/record/recordSchema';
import { useEffect, useMemo, useRef, useState } from 'react';

let opened: ReturnType<typeof createStore> | null = null;
/** Opened once, when it is wanted first. */
const store = () => (opened ??= createStore('zugluft-good', 'records'));

/**
 * The record of the last good answer: what stands there now where it is complete; else that with what is refused as it was
 * before; else the last one that was complete in this browser, also before a reload.
 *
 * @param id of the machine
 * @param complete the record that stands there, or null
 * @param keepable the part of it that may be kept, or null
 * @returns null where there never was one
 */
export function useLastGood(
  id: string,
  complete: CaseRecord | null,
  keepable: CaseRecord | null,
): CaseRecord | null {
  const [before, setBefore] = useState<CaseRecord | null>(null);
  const last = useRef<CaseRecord | null>(null);
  const now = useMemo(() => {
    if (complete) return complete;
    const { record, complete: whole } = parseRecord(keepable);
    return whole ? record : null;
  }, [complete, keepable]);
  if (now) last.current = now;
  const lacking = now === null;
  useEffect(() => {
    if (!lacking) return;
    let open = true;
    if (last.current) {
      // what was good is wanted after a reload; a browser that keeps nothing shows it until then
      void set(id, last.current, store()).catch(() => undefined);
    } else {
      get<unknown>(id, store())
        .then((kept) => {
          const { record, complete: whole } = parseRecord(kept);
          if (open && whole) setBefore(record);
        })
        .catch(() => undefined);
    }
    return () => {
      open = false;
    };
  }, [id, lacking]);
  return now ?? last.current ?? before;
}
