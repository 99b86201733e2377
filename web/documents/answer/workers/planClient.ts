import { wrap, type Remote } from 'comlink';
import type { PlanWorker } from './planWorker';

let remote: Remote<PlanWorker> | null = null;

/** The worker for settings that are proposed and promises that are looked back on: seconds, so that no readout waits behind it. */
export function planWorker(): Remote<PlanWorker> {
  remote ??= wrap<PlanWorker>(
    new Worker(new URL('./planWorker.ts', import.meta.url), { type: 'module' }),
  );
  return remote;
}
