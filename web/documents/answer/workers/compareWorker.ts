import type { OnceMessage } from '../useOnce';
import {
  comparisonOf,
  drawForComparison,
  type Comparison,
  type DrawnForComparison,
} from '@zugluft/core/compare/compareMachines';
import type { CaseRequest } from '@zugluft/core/case/openCase';
import type { Cap } from '@zugluft/core/envelope/fanStates';
import { helpersOf, shareOut } from './shareOut';

/** One comparison, for which the worker was started. */
export interface CompareJob {
  machines: { name: string; request: CaseRequest }[];
  caps: readonly Cap[];
  draws: number;
  seed: number;
}

export type CompareMessage = OnceMessage<Comparison>;

/** Fewer machines are drawn here before a helper is ready. */
const SHARED_MACHINES = 4;
const helpers = helpersOf(
  () => new Worker(new URL('./compareHelper.ts', import.meta.url), { type: 'module' }),
  navigator.hardwareConcurrency,
);

self.onmessage = async ({ data: job }: MessageEvent<CompareJob>) => {
  const { machines, ...options } = job;
  const tell = (message: CompareMessage) => self.postMessage(message);
  try {
    const drawn = new Array<DrawnForComparison>(machines.length);
    let count = 0;
    await shareOut<CompareJob, DrawnForComparison>({
      job,
      items: machines.length,
      work: (item) => drawForComparison(machines[item]!.request, item, options),
      helpers: () => (machines.length < SHARED_MACHINES ? [] : helpers.all()),
      isWanted: () => true,
      done: (item, part) => {
        drawn[item] = part;
        tell({ kind: 'progress', done: ++count, of: machines.length });
      },
    });
    const names = machines.map((m) => m.name);
    tell({ kind: 'result', result: comparisonOf(names, drawn, options.caps) });
  } catch (cause) {
    tell({ kind: 'failed', message: (cause as Error).message });
  }
};
