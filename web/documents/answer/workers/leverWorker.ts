import { runLevers, type LeverRequest } from './runLevers';
import { helpersOf } from './shareOut';

const helpers = helpersOf(
  () => new Worker(new URL('./leverHelper.ts', import.meta.url), { type: 'module' }),
  navigator.hardwareConcurrency,
);
const run = runLevers((message) => self.postMessage(message), helpers.all);

self.onmessage = ({ data }: MessageEvent<LeverRequest>) => void run(data);
