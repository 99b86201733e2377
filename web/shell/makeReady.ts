import { drawWorker } from '../documents/answer/workers/drawClient';
import { estimateWorker } from '../documents/answer/workers/estimateClient';

/** Longest wait for an idle moment, ms. */
const LATEST_MS = 2000;

/** What is opened next from a machine, read one after the other in idle moments of their own. */
const NEXT: readonly (() => Promise<unknown>)[] = [
  () => import('../features/levers/LeversStep'),
  () => import('../features/estimate/EstimateStep'),
  () => import('../features/runs/RunsStep'),
  () => import('../features/verdict/VerdictStep'),
];

/** Once the page has nothing to do: reads the parts of the program that opening a machine needs, and starts its workers. */
export function makeReady(): void {
  requestIdleCallback(
    () => {
      // whoever opens one before waits for the same parts
      void import('../features/machine/MachinePage');
      void import('../features/cooling/CoolingStep').then(() => readNext(0));
      estimateWorker();
      drawWorker();
    },
    { timeout: LATEST_MS },
  );
}

function readNext(i: number): void {
  const part = NEXT[i];
  if (!part) return;
  requestIdleCallback(() => {
    // without a network it is read when it is asked for, which says so
    part().then(
      () => readNext(i + 1),
      () => undefined,
    );
  });
}
