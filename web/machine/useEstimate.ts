import { useEffect, useRef, useState } from 'react';
import type { Estimate } from '@zugluft/core/estimate';
import type { CaseRecord } from '@zugluft/core/record/recordSchema';
import type { LabDefaults } from '@zugluft/core/record/resolver';
import { estimateWorker } from '../workers/estimateClient';
import { latestOnly } from '../workers/latestOnly';

export interface LiveEstimate {
  /** The newest answer; its envelopes follow a moment after its readouts. */
  estimate: Estimate | null;
  /** The newest answer with envelopes. */
  outlines: Estimate | null;
  /** The record the answer belongs to. */
  record: CaseRecord | null;
  error: string | null;
}

/**
 * The estimate of a record, computed in a worker as it changes. While the record is not complete the last good answer stays.
 *
 * @param record a complete record, or null
 * @param settingId the setting whose limits apply
 * @param lab the lab's own defaults
 */
export function useEstimate(
  record: CaseRecord | null,
  settingId: string | undefined,
  lab: LabDefaults,
): LiveEstimate {
  const [live, setLive] = useState<LiveEstimate>({
    estimate: null,
    outlines: null,
    record: null,
    error: null,
  });
  const submit = useRef(latestOnly());
  const wanted = useRef<CaseRecord | null>(null);
  useEffect(() => {
    if (!record) return;
    wanted.current = record;
    let open = true;
    submit.current(async () => {
      try {
        const worker = estimateWorker();
        const estimate = await worker.estimate(record, { settingId, lab, envelopes: false });
        if (!open) return;
        setLive((l) => ({ ...l, estimate, record, error: null }));
        // someone who types on waits for the next readouts, not for this outline
        if (wanted.current !== record) return;
        const outlines = await worker.estimate(record, { settingId, lab });
        if (open) setLive({ estimate: outlines, outlines, record, error: null });
      } catch (cause) {
        if (open) setLive((l) => ({ ...l, error: (cause as Error).message }));
      }
    });
    return () => {
      open = false;
    };
  }, [record, settingId, lab]);
  return live;
}
