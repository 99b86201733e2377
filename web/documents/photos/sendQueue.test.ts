import type { Attachment } from '../../api/attachments';
import { HttpProblem } from '../../api/http';
import { createSendQueue, type Sending } from './sendQueue';
import type { Shelf, Shelved } from './shelf';

const file = (name: string) => ({ name }) as File;
const settle = async () => {
  for (let i = 0; i < 20; i++) await Promise.resolve();
};

/** A shelf in memory, or one that keeps nothing. */
function memoryShelf(works = true) {
  const kept = new Map<string, Shelved>();
  const shelf: Shelf = {
    put: async (item) => works && kept.set(item.id, item) !== undefined,
    drop: async (id) => void kept.delete(id),
    of: async (machineId) => [...kept.values()].filter((i) => i.machineId === machineId),
  };
  return { kept, shelf };
}

function queue(
  send: (f: File, signal: AbortSignal) => Promise<void>,
  shelf: Shelf = memoryShelf().shelf,
) {
  const ids: string[] = [];
  let items: readonly Sending[] = [];
  const arrived: string[] = [];
  const q = createSendQueue(
    'm',
    async (item, signal) => {
      await send(item.file, signal);
      ids.push(item.id);
      return { name: item.name, path: item.path } as Attachment;
    },
    (now) => (items = now),
    (a) => arrived.push(`${a.path}/${a.name}`),
    1000,
    shelf,
  );
  return { q, ids, items: () => items.map((i) => `${i.name} ${i.state}`), arrived };
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

test('what waits lies on the shelf; a page that opens again sends it under the same id, of this machine alone', async () => {
  const { kept, shelf } = memoryShelf();
  const away = async () => {
    throw new HttpProblem(0, 'away');
  };
  const first = queue(away, shelf);
  first.q.add([file('a'), file('b')], 'log.steps.cover');
  await settle();
  expect(kept.size).toBe(2);
  const ids = [...kept.keys()];
  kept.set('x', { id: 'x', machineId: 'other', path: '', file: file('not mine') });
  // the power is cut, the page opens again
  const second = queue(async () => undefined, shelf);
  await settle();
  expect(second.arrived).toEqual(['log.steps.cover/a', 'log.steps.cover/b']);
  expect(second.ids).toEqual(ids);
  expect([...kept.keys()]).toEqual(['x']);
});

test('what arrived, was taken off or refused for good does not come again', async () => {
  const { kept, shelf } = memoryShelf();
  const { q, items } = queue(async (f) => {
    if (f.name === 'bad') throw new HttpProblem(415, 'no picture');
    if (f.name === 'away') throw new HttpProblem(0, 'away');
  }, shelf);
  q.add([file('good'), file('bad'), file('away')], '');
  await settle();
  expect(items()).toEqual(['bad refused', 'away away']);
  q.cancel();
  await settle();
  expect(kept.size).toBe(0);
});

test('where the browser keeps nothing it waits in the page, and the page knows', async () => {
  let items: readonly Sending[] = [];
  const q = createSendQueue(
    'm',
    async () => {
      throw new HttpProblem(0, 'away');
    },
    (now) => (items = now),
    () => undefined,
    1000,
    memoryShelf(false).shelf,
  );
  q.add([file('a')], '');
  await settle();
  expect(items).toMatchObject([{ shelved: false, state: 'away' }]);
});
