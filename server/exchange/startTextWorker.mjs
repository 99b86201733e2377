// a worker thread does not inherit the loader that reads TypeScript: it is set up first
import { register } from 'tsx/esm/api';

register();
await import('./textWorker.ts');
