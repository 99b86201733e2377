import type { Attachment } from '../api/attachments';
import { HttpProblem } from '../api/http';
import { createSendQueue, type Sending } from './sendQueue';

const file = (name: string) => ({ name }) as File;
const settle = async () => {
  for (let i = 0; i < 20; i++) await Promise.resolve();
};

function queue(send: (f: File, signal: AbortSignal) => Promise<void>) {
  let items: readonly Sending[] = [];
  const arrived: string[] = [];
  const q = createSendQueue(
    async (f, path, signal) => {
      await send(f, signal);
      return { name: f.name, path } as Attachment;
    },
    (now) => (items = now),
    (a) => arrived.push(`${a.path}/${a.name}`),
    1000,
  );
  return { q, items: () => items.map((i) => `${i.name} ${i.state}`), arrived };
}

beforeEach(() => jest.useFakeTimers());
afterEach(() => jest.useRealTimers());

test('one after the other, each to its place', async () => {
  let at = 0;
  let most = 0;
  const { q, items, arrived } = queue(async () => {
    most = Math.max(most, ++at);
    await Promise.resolve();
    at--;
  });
  q.add([file('a'), file('b')], 'fans.fan');
  q.add([file('c')], '');
  await settle();
  expect(arrived).toEqual(['fans.fan/a', 'fans.fan/b', '/c']);
  expect(items()).toEqual([]);
  expect(most).toBe(1);
});

test('one that is refused stays with its reason and holds up nobody', async () => {
  const { q, items, arrived } = queue(async (f) => {
    if (f.name === 'bad') throw new HttpProblem(415, 'no picture');
  });
  q.add([file('bad'), file('good')], '');
  await settle();
  expect(arrived).toEqual(['/good']);
  expect(items()).toEqual(['bad refused']);
  q.cancel();
  expect(items()).toEqual([]);
});

test('while the server is away nothing is lost; it is tried again', async () => {
  let away = true;
  const { q, items, arrived } = queue(async () => {
    if (away) throw new HttpProblem(0, 'away');
  });
  q.add([file('a'), file('b')], '');
  await settle();
  expect(items()).toEqual(['a away', 'b away']);
  jest.advanceTimersByTime(1000);
  await settle();
  expect(items()).toEqual(['a away', 'b away']);
  away = false;
  jest.advanceTimersByTime(1000);
  await settle();
  expect(arrived).toEqual(['/a', '/b']);
});

test('one can be taken off while it is being sent', async () => {
  const { q, items, arrived } = queue((f, signal) =>
    f.name === 'slow'
      ? new Promise((_, reject) => {
          signal.addEventListener('abort', () =>
            reject(Object.assign(new Error('stopped'), { name: 'AbortError' })),
          );
        })
      : Promise.resolve(),
  );
  q.add([file('slow'), file('next')], '');
  await settle();
  expect(items()).toEqual(['slow sending', 'next waiting']);
  q.cancel(1);
  await settle();
  expect(arrived).toEqual(['/next']);
  expect(items()).toEqual([]);
});
