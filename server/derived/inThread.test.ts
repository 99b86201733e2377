import { inThread, type Thread } from './inThread';

const script = new URL(
  `data:text/javascript,${encodeURIComponent(`
    import { parentPort, threadId } from 'node:worker_threads';
    parentPort.on('message', ({ number, job }) =>
      parentPort.postMessage(job === 'fail' ? { number, failed: 'it failed' } : { number, answer: threadId }));
  `)}`,
);
const threads: Thread<string, number>[] = [];
const made = (...how: [when: 'later' | 'for a while', idleMs?: number]) => {
  const thread = inThread<string, number>(script, ...how);
  threads.push(thread);
  return thread;
};
afterEach(async () => {
  for (const thread of threads.splice(0)) await thread.end();
});

test('a thread does one job after the other, and goes on after one that fails', async () => {
  const thread = made('later');
  const first = await thread('a');
  await expect(thread('fail')).rejects.toThrow('it failed');
  expect(await thread('b')).toBe(first);
});

test('one that is there for a while ends once nothing was asked of it, and is started anew with the next job', async () => {
  const thread = made('for a while', 20);
  const first = await thread('a');
  let next = first;
  // it may be asked again before it has ended
  while (next === first) {
    await new Promise((resolve) => setTimeout(resolve, 60));
    next = await thread('b');
  }
  expect(next).not.toBe(first);
});
