import { useEffect, useRef, useState } from 'react';
import type { Estimate } from '@zugluft/core/case/answer';
import type { CaseRecord } from '@zugluft/core/record/recordSchema';
import type { CaseRequest } from '@zugluft/core/case/openCase';
import { estimateWorker } from '../answer/workers/estimateClient';
import { latestOnly } from '../answer/workers/latestOnly';

export interface LiveEstimate {
  /** The newest answer; its envelopes follow a moment after its readouts. */
  estimate: Estimate | null;
  /** The newest answer with envelopes. */
  outlines: Estimate | null;
  /** The case the answer belongs to, and its record. */
  request: CaseRequest | null;
  record: CaseRecord | null;
  error: string | null;
}

/**
 * The estimate of a case, computed in a worker as it changes. While the record is not complete the last good answer stays.
 *
 * @param request a case with a complete record, or null
 */
export function useEstimate(request: CaseRequest | null): LiveEstimate {
  const [live, setLive] = useState<LiveEstimate>({
    estimate: null,
    outlines: null,
    request: null,
    record: null,
    error: null,
  });
  const submit = useRef(latestOnly());
  const wanted = useRef<CaseRequest | null>(null);
  useEffect(() => {
    if (!request) return;
    const { record } = request;
    wanted.current = request;
    let open = true;
    submit.current(async () => {
      try {
        const worker = estimateWorker();
        const estimate = await worker.estimate(request, { envelopes: false });
        if (!open) return;
        setLive((l) => ({ ...l, estimate, request, record, error: null }));
        // someone who types on waits for the next readouts, not for this outline
        if (wanted.current !== request) return;
        const outlines = await worker.estimate(request, {});
        if (open) setLive({ estimate: outlines, outlines, request, record, error: null });
      } catch (cause) {
        if (open) setLive((l) => ({ ...l, error: (cause as Error).message }));
      }
    });
    return () => {
      open = false;
    };
  }, [request]);
  return live;
}
