/**
 * Runs jobs one at a time and, while one runs, keeps only the newest of those that wait: someone typing wants the answer to
 * what stands there now.
 *
 * @returns a function that hands in a job
 */
export function latestOnly(): (job: () => Promise<void>) => void {
  let running = false;
  let waiting: (() => Promise<void>) | null = null;
  const next = () => {
    const job = waiting;
    waiting = null;
    if (!job) {
      running = false;
      return;
    }
    running = true;
    void job().finally(next);
  };
  return (job) => {
    waiting = job;
    if (!running) next();
  };
}
