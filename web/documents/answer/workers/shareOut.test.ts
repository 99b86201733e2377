import { helpersOf, helpWith, shareOut, type Helper } from './shareOut';

/** Stands for a worker: what it is told arrives later, as there. */
function workerOf<Job, Part>(begin: (job: Job) => (item: number) => Part) {
  const scope: Pick<Helper, 'postMessage' | 'onmessage'> = {
    onmessage: null,
    postMessage: (message) =>
      void setImmediate(() => helper.onmessage?.({ data: message } as MessageEvent)),
  };
  const told: unknown[] = [];
  const helper: Helper = {
    onmessage: null,
    onerror: null,
    terminate: () => undefined,
    postMessage: (message) => {
      told.push(message);
      setImmediate(() => scope.onmessage?.({ data: message } as MessageEvent));
    },
  };
  helpWith(scope, begin);
  return { helper, told };
}

const square = (job: number) => (item: number) => job * item * item;
const all = (n: number) => Array.from({ length: n }, (_, k) => k);

const start = (items: number, helpers: readonly Helper[], wanted = () => true) => {
  const parts = new Map<number, number>();
  const here: number[] = [];
  let asked = 0;
  const ended = shareOut<number, number>({
    job: 3,
    items,
    work: (item) => {
      here.push(item);
      return square(3)(item);
    },
    helpers: () => {
      asked++;
      return helpers;
    },
    isWanted: wanted,
    done: (item, part) => {
      expect(parts.has(item)).toBe(false);
      parts.set(item, part);
    },
  });
  return { parts, here, ended, asked: () => asked };
};

test('every item is done once, some here and some by helpers, and comes out the same', async () => {
  const [a, b] = [workerOf(square), workerOf(square)];
  const { parts, here, ended } = start(60, [a.helper, b.helper]);
  await ended;
  expect([...parts.keys()].sort((x, y) => x - y)).toEqual(all(60));
  for (const [item, part] of parts) expect(part).toBe(3 * item * item);
  expect(here.length).toBeLessThan(60);
  expect(a.told.length).toBeGreaterThan(2);
  expect(b.told.length).toBeGreaterThan(2);
});

test('the first item waits for no helper, and a job of one asks none', async () => {
  const one = start(1, []);
  await one.ended;
  expect(one.asked()).toBe(0);
  const { helper, told } = workerOf(square);
  const more = start(9, [helper]);
  expect(more.here).toEqual([0]);
  expect(told).toEqual([]);
  await more.ended;
  expect(told.length).toBeGreaterThan(0);
});

test('what a helper breaks off is done here, and it is asked no more', async () => {
  const failing = workerOf(() => (item: number): number => {
    throw new Error(`no ${item}`);
  });
  const first = start(12, [failing.helper]);
  await first.ended;
  expect(first.parts.size).toBe(12);
  const dead: Helper & { asked: number } = {
    asked: 0,
    onmessage: null,
    onerror: null,
    terminate: () => undefined,
    postMessage: () => {
      dead.asked++;
      setImmediate(() => dead.onerror?.({} as ErrorEvent));
    },
  };
  const second = start(12, [dead]);
  await second.ended;
  expect(second.parts.size).toBe(12);
  const before = dead.asked;
  expect(before).toBeGreaterThan(0);
  const third = start(12, [dead]);
  await third.ended;
  expect(third.parts.size).toBe(12);
  expect(dead.asked).toBe(before);
});

test('a fault of the job is told, wherever it showed first', async () => {
  const wrong = (item: number): number => {
    if (item === 5) throw new Error('no such figure');
    return item;
  };
  const { helper } = workerOf(() => wrong);
  await expect(
    shareOut<number, number>({
      job: 1,
      items: 8,
      work: wrong,
      helpers: () => [helper],
      isWanted: () => true,
      done: () => undefined,
    }),
  ).rejects.toThrow('no such figure');
});

test('what is wanted no more ends, and an answer to it that comes late is told to nobody', async () => {
  const asked: { number: number; item?: number }[] = [];
  const slow: Helper = {
    onmessage: null,
    onerror: null,
    terminate: () => undefined,
    postMessage: (message) => asked.push(message as { number: number; item?: number }),
  };
  const answer = (k: number, part: number) =>
    slow.onmessage?.({ data: { ...asked.filter((x) => x.item !== undefined)[k]!, part } } as never);
  const until = async (holds: () => boolean) => {
    while (!holds()) await new Promise((resolve) => setImmediate(resolve));
  };
  const items = () => asked.filter((x) => x.item !== undefined).length;
  let wanted = true;
  const first = start(3, [slow], () => wanted);
  await until(() => first.parts.size === 2);
  // the helper has an item yet
  expect([...first.parts.keys()]).toEqual([0, 2]);
  wanted = false;
  answer(0, -1);
  await first.ended;
  expect([...first.parts.keys()]).toEqual([0, 2]);
  // the same again, its answer still to come when the next job asks for an item of the same number
  wanted = true;
  const second = start(3, [slow], () => wanted);
  await until(() => second.parts.size === 2 && items() === 2);
  wanted = false;
  const third = start(3, [slow]);
  await until(() => third.parts.size === 2 && items() === 3);
  answer(1, -2);
  expect(third.parts.has(1)).toBe(false);
  answer(2, 3);
  await third.ended;
  expect(third.parts.get(1)).toBe(3);
  expect([...second.parts.values()]).not.toContain(-2);
});

test('a helper for each core that is left, none where nobody asks, and never many', () => {
  let started = 0;
  const start = () => {
    started++;
    return {} as Helper;
  };
  expect(helpersOf(start, 8).all()).toHaveLength(3);
  expect(helpersOf(start, 3).all()).toHaveLength(1);
  expect(helpersOf(start, 2).all()).toHaveLength(0);
  expect(helpersOf(start, 1).all()).toHaveLength(0);
  expect(helpersOf(start, NaN).all()).toHaveLength(0);
  started = 0;
  const own = helpersOf(start, 16);
  expect(started).toBe(0);
  expect(own.all()).toBe(own.all());
  expect(started).toBe(3);
});

test('between items there is room for what comes first', async () => {
  const log: string[] = [];
  await shareOut<number, number>({
    job: 1,
    items: 3,
    work: (item) => {
      log.push(`item ${item}`);
      return item;
    },
    helpers: () => [],
    isWanted: () => true,
    done: () => undefined,
    pause: async () => {
      await new Promise((resolve) => setImmediate(resolve));
      log.push('other');
    },
  });
  expect(log.slice(0, 5)).toEqual(['item 0', 'other', 'item 1', 'other', 'item 2']);
});
