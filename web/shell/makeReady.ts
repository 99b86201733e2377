import { drawWorker } from '../documents/answer/workers/drawClient';
import { estimateWorker } from '../documents/answer/workers/estimateClient';

/** Longest wait for an idle moment, ms. */
const LATEST_MS = 2000;

/** Once the page has nothing to do: reads the parts of the program that opening a machine needs, and starts its workers. */
export function makeReady(): void {
  requestIdleCallback(
    () => {
      // whoever opens one before waits for the same parts
      void import('../features/machine/MachinePage');
      void import('../features/cooling/CoolingStep');
      estimateWorker();
      drawWorker();
    },
    { timeout: LATEST_MS },
  );
}
