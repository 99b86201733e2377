import { useEffect, useMemo, useState } from 'react';
import type { CaseRequest } from '@zugluft/core/case/openCase';
import type { Verdict } from '@zugluft/core/verdict/verdict';
import { computeVerdict } from '../../documents/answer/workers/verdictClient';
import type { VerdictJob } from '../../documents/answer/workers/verdictWorker';

/** The verdict on what stands in the file now. */
export interface VerdictState {
  /** The newest there is; of a moment ago while another one is computed. */
  verdict: Verdict | null;
  progress: { done: number; of: number } | null;
  problem: string | null;
  cancelled: boolean;
}

/**
 * Computes the verdict beside the page; a change of the case gives the one under way up.
 *
 * @param request the case; null: none yet
 * @param options what else it depends on; the same object as long as nothing of it changes
 */
export function useVerdict(
  request: CaseRequest | null,
  options: VerdictJob['options'] | null,
): VerdictState & { cancel: () => void; again: () => void } {
  const [state, setState] = useState<VerdictState>({
    verdict: null,
    progress: null,
    problem: null,
    cancelled: false,
  });
  const [count, setCount] = useState(0);
  const [giveUp, setGiveUp] = useState<{ now: () => void } | null>(null);
  const job = useMemo(() => (request && options ? { request, options } : null), [request, options]);
  useEffect(() => {
    if (!job) return;
    setState((s) => ({ ...s, progress: { done: 0, of: 0 }, problem: null, cancelled: false }));
    const end = computeVerdict(job, (message) =>
      setState((s) => {
        if (message.kind === 'progress') {
          return { ...s, progress: { done: message.done, of: message.of } };
        }
        if (message.kind === 'failed') return { ...s, progress: null, problem: message.message };
        return { ...s, progress: null, verdict: message.verdict };
      }),
    );
    setGiveUp({ now: end });
    return end;
  }, [job, count]);
  return {
    ...state,
    cancel() {
      giveUp?.now();
      setState((s) => ({ ...s, progress: null, cancelled: true }));
    },
    again: () => setCount((n) => n + 1),
  };
}
