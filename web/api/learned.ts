import type { LearnedAnswer } from '@zugluft/core/library/learnedAnswer';
import type { WearAnswer } from '@zugluft/core/library/wearAnswer';
import { fetchJson, fetchLines, HttpProblem } from './http';

export type { LearnedAnswer };

export const learnedKeys = {
  last: ['learned', 'last'] as const,
  wear: ['learned', 'wear'] as const,
};

/** What was learned last; null where nothing was yet. */
export const readLearned = async (signal?: AbortSignal): Promise<LearnedAnswer | null> =>
  (await fetchJson<{ learned: LearnedAnswer | null }>('/api/learned', signal ? { signal } : {}))
    .learned;

/**
 * Learns from all machines that stand on runs.
 *
 * @param progress told how many machines are read, of how many
 */
export async function learn(
  signal: AbortSignal,
  progress: (done: number, of: number) => void,
): Promise<LearnedAnswer> {
  let learned: LearnedAnswer | null = null;
  let problem: string | null = null;
  await fetchLines<{ done?: number; of?: number; learned?: LearnedAnswer; problem?: string }>(
    '/api/learned',
    { method: 'POST', signal },
    (line) => {
      if (line.done !== undefined && line.of !== undefined) progress(line.done, line.of);
      learned = line.learned ?? learned;
      problem = line.problem ?? problem;
    },
  );
  if (!learned) throw new HttpProblem(0, problem ?? 'the server stopped');
  return learned;
}

/** What renewals tell of how fast dust gathers and interface material ages. */
export const readWear = (signal?: AbortSignal): Promise<WearAnswer> =>
  fetchJson<WearAnswer>('/api/learned/wear', signal ? { signal } : {});
