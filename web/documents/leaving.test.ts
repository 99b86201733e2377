/** @jest-environment jsdom */
import { IDBFactory } from 'fake-indexeddb';
import { keeperOf, sendAll, watchLeaving } from './keepers';

const server = { revision: 1, value: { format: 'zugluft-record', formatVersion: 1 }, at: null };
const leave = () => {
  const e = new Event('beforeunload', { cancelable: true });
  window.dispatchEvent(e);
  return e.defaultPrevented;
};
const until = async (holds: () => boolean) => {
  while (!holds()) await new Promise((resolve) => setTimeout(resolve, 5));
};

beforeAll(() => {
  globalThis.structuredClone = (x: unknown) => JSON.parse(JSON.stringify(x));
  // the server is away
  globalThis.fetch = () => Promise.reject(new TypeError('no server'));
});

test('leaving is asked about while something is neither on the server nor in this browser, and only then', async () => {
  const stop = watchLeaving();
  globalThis.indexedDB = {
    open: () => {
      throw new DOMException('full', 'QuotaExceededError');
    },
  } as unknown as IDBFactory;
  const keeper = await keeperOf('record', 'machine-1', server as never);
  expect(leave()).toBe(false);
  keeper.change((v) => ({ ...v, shell: { massKg: 2 } }));
  await until(() => keeper.view().kept === 'refused');
  expect(leave()).toBe(true);
  // the store takes it after all
  globalThis.indexedDB = new IDBFactory();
  keeper.change((v) => ({ ...v, shell: { massKg: 3 } }));
  await until(() => keeper.view().kept === 'yes');
  expect(leave()).toBe(false);
  stop();
  keeper.change((v) => ({ ...v, shell: { massKg: 4 } }));
  expect(leave()).toBe(false);
});

test('whether the server has all of it is known once it was tried', async () => {
  globalThis.indexedDB = new IDBFactory();
  const keeper = await keeperOf('record', 'machine-2', server as never);
  keeper.change((v) => ({ ...v, shell: { massKg: 5 } }));
  expect(await sendAll()).toBe(false);
  // the server is there again
  const sent: string[] = [];
  globalThis.fetch = (async (url: string, { body }: { body: string }) => {
    sent.push(url);
    const { value } = JSON.parse(body) as { value: unknown };
    const answer = { revision: 2, value, updatedAt: null };
    return { ok: true, headers: new Map(), json: () => Promise.resolve(answer) };
  }) as unknown as typeof fetch;
  expect(await sendAll()).toBe(true);
  expect(sent).toEqual(expect.arrayContaining([expect.stringContaining('machine-2')]));
  expect(keeper.isDirty()).toBe(false);
});
