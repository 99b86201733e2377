/**
 * @jest-environment jsdom
 */
import { jest as own } from '@jest/globals';
import { IDBFactory } from 'fake-indexeddb';
import type * as Shelf from './draftShelf';

type Draft = Shelf.Draft<unknown>;

// the database copies what it keeps as a browser does
globalThis.structuredClone ??= (x: unknown) => JSON.parse(JSON.stringify(x));

/** Names held by tabs, as the browser keeps them: one holder each, let go when its tab is closed. */
const held = new Map<string, unknown>();

/** A page of this browser as one tab opens it: modules of its own, a session of its own. */
function tab(session = new Map<string, string>()) {
  const me = {};
  const locks = {
    request: (name: string, _: object, given: (lock: object | null) => unknown) => {
      if (held.has(name)) return Promise.resolve(given(null));
      held.set(name, me);
      return Promise.resolve(given({ name }));
    },
    query: () => Promise.resolve({ held: [...held.keys()].map((name) => ({ name })) }),
  };
  const enter = () => {
    Object.defineProperty(navigator, 'locks', { value: locks, configurable: true });
    Object.defineProperty(globalThis, 'sessionStorage', {
      configurable: true,
      value: {
        getItem: (k: string) => session.get(k) ?? null,
        setItem: (k: string, v: string) => void session.set(k, v),
      },
    });
  };
  let shelf: Shelf.DraftShelf;
  own.isolateModules(() => {
    // eslint-disable-next-line @typescript-eslint/no-require-imports
    shelf = (require('./draftShelf') as typeof Shelf).browserDraftShelf();
  });
  return {
    session,
    put: (id: string, value: unknown, dirty = true) => {
      enter();
      return shelf.put('record', id, draft(value, dirty));
    },
    take: async (id: string) => {
      enter();
      return (await shelf.take('record', id))?.value ?? null;
    },
    close: () => held.forEach((who, name) => who === me && held.delete(name)),
  };
}

const draft = (value: unknown, dirty: boolean): Draft => ({
  base: { revision: 1, value: {} },
  value,
  dirty,
  past: [],
  future: [],
});

beforeEach(() => {
  held.clear();
  globalThis.indexedDB = new IDBFactory();
  if (!globalThis.crypto.randomUUID) {
    let n = 0;
    Object.defineProperty(globalThis.crypto, 'randomUUID', {
      configurable: true,
      value: () => `tab-${++n}`,
    });
  }
});

test('a tab finds its own draft after a reload, of each document its own', async () => {
  const one = tab();
  expect(await one.take('a')).toBeNull();
  await one.put('a', { n: 1 });
  await one.put('a', { n: 2 });
  await one.put('b', { n: 3 });
  one.close();
  const again = tab(one.session);
  expect(await again.take('a')).toEqual({ n: 2 });
  expect(await again.take('b')).toEqual({ n: 3 });
});

test('what another tab types stays with it while it is there', async () => {
  const [one, two] = [tab(), tab()];
  await one.put('a', { n: 1 });
  expect(await two.take('a')).toBeNull();
  await two.put('a', { n: 2 });
  expect(await one.take('a')).toEqual({ n: 1 });
  expect(await two.take('a')).toEqual({ n: 2 });
});

test('what a closed tab had not sent goes to the next that opens it, once', async () => {
  const one = tab();
  await one.put('a', { n: 1 });
  one.close();
  const two = tab();
  expect(await two.take('a')).toEqual({ n: 1 });
  const three = tab();
  expect(await three.take('a')).toBeNull();
  expect(await two.take('a')).toEqual({ n: 1 });
});

test('a doubled tab gets a name of its own, so that neither writes over the other', async () => {
  const one = tab();
  await one.put('a', { n: 1 });
  const twin = tab(new Map(one.session));
  await twin.put('a', { n: 2 });
  expect(await one.take('a')).toEqual({ n: 1 });
  expect(await twin.take('a')).toEqual({ n: 2 });
});

test('steps back alone are not handed on, and unsent work of a closed tab comes before them', async () => {
  const one = tab();
  await one.put('a', { n: 1 }, false);
  one.close();
  const two = tab();
  expect(await two.take('a')).toBeNull();
  await two.put('a', { n: 2 }, false);
  const three = tab();
  await three.put('a', { n: 3 });
  three.close();
  expect(await two.take('a')).toEqual({ n: 3 });
});

test('steps back that nobody looked at for weeks are dropped, unsent work never', async () => {
  const now = own.spyOn(Date, 'now');
  const day = 24 * 3600 * 1000;
  const [old, unsent] = [tab(), tab()];
  now.mockReturnValue(0);
  await old.put('a', { n: 1 }, false);
  await unsent.put('b', { n: 2 });
  old.close();
  unsent.close();
  now.mockReturnValue(15 * day);
  const later = tab();
  await later.take('a');
  now.mockRestore();
  expect(await tab(old.session).take('a')).toBeNull();
  expect(await later.take('b')).toEqual({ n: 2 });
});
