import { useEffect, useState } from 'react';

/** What a computation beside the page has come to. */
export interface OnceState<Job, Result> {
  /** The newest there is, and what it is the result of; perhaps of a moment ago while another one is computed. */
  result: Result | null;
  of: Job | null;
  progress: { done: number; of: number } | null;
  problem: string | null;
  /** Given up before it was there. */
  cancelled: boolean;
}

/** What is told of it. */
export type OnceMessage<Result> =
  | { kind: 'progress'; done: number; of: number }
  | { kind: 'result'; result: Result }
  | { kind: 'failed'; message: string };

/**
 * Does one job beside the page; another one takes the place of the one under way.
 *
 * @param job null: none yet; the same object as long as nothing of it changes
 * @param start begins it, tells of it, and gives it up; always the same function
 * @returns what it has come to, a way to give it up, and one to begin again
 */
export function useOnce<Job, Result>(
  job: Job | null,
  start: (job: Job, tell: (message: OnceMessage<Result>) => void) => () => void,
): OnceState<Job, Result> & { cancel: () => void; again: () => void } {
  const [state, setState] = useState<OnceState<Job, Result>>({
    result: null,
    of: null,
    progress: null,
    problem: null,
    cancelled: false,
  });
  const [count, setCount] = useState(0);
  const [giveUp, setGiveUp] = useState<{ now: () => void } | null>(null);
  useEffect(() => {
    if (!job) return;
    setState((s) => ({ ...s, progress: { done: 0, of: 0 }, problem: null, cancelled: false }));
    const end = start(job, (message) =>
      setState((s) => {
        if (message.kind === 'progress') {
          return { ...s, progress: { done: message.done, of: message.of } };
        }
        if (message.kind === 'failed') return { ...s, progress: null, problem: message.message };
        return { ...s, progress: null, result: message.result, of: job };
      }),
    );
    setGiveUp({ now: end });
    return end;
  }, [job, start, count]);
  return {
    ...state,
    cancel() {
      giveUp?.now();
      setState((s) => ({ ...s, progress: null, cancelled: true }));
    },
    again: () => setCount((n) => n + 1),
  };
}
