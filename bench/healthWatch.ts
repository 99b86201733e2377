import { fork } from 'node:child_process';
import { once } from 'node:events';
import { join } from 'node:path';

const PROBE_EVERY_MS = 20;

/**
 * How long requests for the health of a server wait while something else is done. They are made by a process that does nothing
 * else: what the one that makes the load is busy with would count as waiting.
 *
 * @param at address of the server
 * @param work what is done meanwhile
 * @returns what each waited, ms
 */
export async function healthWaits(at: string, work: () => Promise<unknown>): Promise<number[]> {
  const child = fork(join(import.meta.dirname, 'healthChild.ts'), [at, String(PROBE_EVERY_MS)], {
    execArgv: ['--import', 'tsx'],
  });
  try {
    await once(child, 'message');
    await work();
    const told = once(child, 'message');
    child.send('end');
    const [waits] = (await told) as [number[]];
    return waits;
  } finally {
    child.kill();
  }
}
