import { wrap, type Remote } from 'comlink';
import type { WayWorker } from './wayWorker';

let remote: Remote<WayWorker> | null = null;

/** The worker that seeks least ways: with very many alternatives that takes seconds. Started when first needed. */
export function wayWorker(): Remote<WayWorker> {
  remote ??= wrap<WayWorker>(
    new Worker(new URL('./wayWorker.ts', import.meta.url), { type: 'module' }),
  );
  return remote;
}
