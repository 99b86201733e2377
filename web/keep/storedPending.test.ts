import { readPending, sentFrom, storedPending } from './storedPending';

const kept = new Map<string, string>();
let full = false;
beforeAll(() => {
  Object.defineProperty(globalThis, 'localStorage', {
    configurable: true,
    value: {
      getItem: (k: string) => kept.get(k) ?? null,
      setItem: (k: string, v: string) => {
        if (full) throw new Error('full');
        kept.set(k, v);
      },
      removeItem: (k: string) => void kept.delete(k),
    },
  });
});
beforeEach(() => {
  kept.clear();
  full = false;
});
const same = (a: { n: number }, b: { n: number }) => a.n === b.n;
const asIs = (x: unknown) => x as { value: { n: number }; base: number } | null;

test('what waits comes back, and goes once it has arrived', () => {
  const { store, pending } = storedPending('a', asIs, same);
  expect(pending).toBeNull();
  store({ value: { n: 1 }, base: 7 });
  expect(storedPending('a', asIs, same).pending).toEqual({ value: { n: 1 }, base: 7 });
  store(null, { n: 1 });
  expect(readPending('a', asIs)).toBeNull();
});

test('an older version that arrives does not take away a newer one that waits', () => {
  const { store } = storedPending('a', asIs, same);
  store({ value: { n: 2 }, base: 7 });
  store(null, { n: 1 });
  expect(readPending('a', asIs)?.value).toEqual({ n: 2 });
  // given up for the other version: nothing waits
  store(null);
  expect(readPending('a', asIs)).toBeNull();
});

test('what arrives is told by what it says, not by the order of its fields', () => {
  kept.set('a', '{"base":1,"value":{"extra":0,"n":3}}');
  const { store, pending } = storedPending('a', asIs, same);
  store(null, pending!.value);
  expect(kept.has('a')).toBe(false);
});

test('a full storage and broken text are no failure', () => {
  const { store } = storedPending('a', asIs, same);
  full = true;
  expect(() => store({ value: { n: 1 }, base: 1 })).not.toThrow();
  kept.set('b', '{"value":');
  expect(readPending('b', asIs)).toBeNull();
});

test('what was sent is known to every view of this window, by name', () => {
  sentFrom<number>('x').push(1);
  expect(sentFrom('x')).toEqual([1]);
  expect(sentFrom('y')).toEqual([]);
});
