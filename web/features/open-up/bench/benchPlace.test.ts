import { clockStopped, keepPlace, readPlace } from './benchPlace';

const kept = new Map<string, string>();
beforeAll(() => {
  Object.defineProperty(globalThis, 'localStorage', {
    configurable: true,
    value: {
      getItem: (k: string) => kept.get(k) ?? null,
      setItem: (k: string, v: string) => void kept.set(k, v),
    },
  });
});

test('the place at the bench comes back; what is no place does not', () => {
  keepPlace('a', { side: 'back', stepId: 'step3', seenAt: 5 });
  expect(readPlace('a')).toEqual({ side: 'back', stepId: 'step3', seenAt: 5 });
  expect(readPlace('b')).toBeNull();
  kept.set('zugluft.bench.c', '{"side":"sideways","stepId":7,"seenAt":9}');
  expect(readPlace('c')).toEqual({ side: 'open', stepId: null, seenAt: 9 });
  for (const broken of ['{', '[]', '"x"', '{"seenAt":"now"}']) {
    kept.set('zugluft.bench.d', broken);
    expect(readPlace('d')).toBeNull();
  }
});

test('a clock stops where the page was last seen, once that is a minute ago', () => {
  const place = { side: 'open' as const, stepId: null, seenAt: 1000 };
  expect(clockStopped(place, 30_000)).toBeNull();
  expect(clockStopped(place, 8 * 3600_000)).toBe(1000);
  expect(clockStopped(null, 1e12)).toBeNull();
});
