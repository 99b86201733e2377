import { wrap, type Remote } from 'comlink';
import type { QuietWorker } from './quietWorker';

let remote: Remote<QuietWorker> | null = null;

/** The worker that seeks least levels: it takes as long as draws do, so that no readout waits behind it. */
export function quietWorker(): Remote<QuietWorker> {
  remote ??= wrap<QuietWorker>(
    new Worker(new URL('./quietWorker.ts', import.meta.url), { type: 'module' }),
  );
  return remote;
}
