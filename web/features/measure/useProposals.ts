import type { PhotoMarks } from '@zugluft/core/photo/photoMarks';
import { useEffect, useRef, useState } from 'react';
import type { Attachment } from '../../api/attachments';
import { proposeMarks, SOUGHT, type Proposal, type Sought } from '../../api/measuring';

/** Parts that are found in a photo when somebody asks, until each is taken or left: one sort after the other, until stopped. */
export function useProposals(photo: Attachment) {
  const [items, setItems] = useState<readonly Proposal[] | null>(null);
  const [looking, setLooking] = useState<Sought | null>(null);
  const [error, setError] = useState<Error | null>(null);
  const asked = useRef<AbortController | null>(null);
  useEffect(() => () => asked.current?.abort(), []);

  const look = async (marks: PhotoMarks, { signal }: AbortController) => {
    setItems([]);
    setError(null);
    try {
      for (const sort of SOUGHT) {
        setLooking(sort);
        const found = (await proposeMarks(photo, marks, sort, signal)).items;
        if (signal.aborted) return;
        setItems((before) => [...(before ?? []), ...found]);
      }
    } catch (cause) {
      if (signal.aborted) return;
      setError(cause as Error);
    }
    asked.current = null;
    setLooking(null);
  };
  return {
    items,
    looking,
    error,
    /** Looks; while it does, stops. */
    ask(marks: PhotoMarks) {
      if (asked.current) {
        asked.current.abort();
        asked.current = null;
        setLooking(null);
        // what was found until then stays; where nothing was, it was not said that there is nothing
        setItems((found) => (found?.length ? found : null));
      } else {
        asked.current = new AbortController();
        void look(marks, asked.current);
      }
    },
    /** Takes the one that is offered off the list; null where there is none. */
    takeFirst(): Proposal | null {
      const [first] = items ?? [];
      if (first) setItems((before) => (before ?? []).filter((p) => p !== first));
      return first ?? null;
    },
  };
}
