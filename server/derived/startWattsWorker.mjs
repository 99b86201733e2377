// a worker thread does not inherit the loader that reads TypeScript: it is set up first
import { constants, setPriority } from 'node:os';
import { platform } from 'node:process';
import { register } from 'tsx/esm/api';

// requests come first; elsewhere a priority is not a thread's own but the whole program's
if (platform === 'linux') setPriority(constants.priority.PRIORITY_LOW);
register();
await import('./wattsWorker.ts');
