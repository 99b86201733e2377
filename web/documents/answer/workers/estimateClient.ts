import { wrap, type Remote } from 'comlink';
import type { EstimateWorker } from './estimateWorker';

let remote: Remote<EstimateWorker> | null = null;

/** The one worker that runs the core beside the page; started when first needed. */
export function estimateWorker(): Remote<EstimateWorker> {
  remote ??= wrap<EstimateWorker>(
    new Worker(new URL('./estimateWorker.ts', import.meta.url), { type: 'module' }),
  );
  return remote;
}
