import { fairTurns } from './fairTurns';

const turnOfLoop = () => new Promise((resolve) => setImmediate(resolve));

test('so many go on with each turn, in the order in which they came', async () => {
  const turn = fairTurns({ perTurn: 2, busy: () => false, maxWaitMs: 0 });
  const went: number[] = [];
  const all = Promise.all([1, 2, 3, 4, 5].map((n) => turn().then(() => went.push(n))));
  const seen: number[] = [];
  while (went.length < 5) {
    await turnOfLoop();
    seen.push(went.length);
  }
  await all;
  expect(went).toEqual([1, 2, 3, 4, 5]);
  expect(seen.every((n, i) => n - (seen[i - 1] ?? 0) <= 2)).toBe(true);
});

test('what comes first is waited for, but not for ever', async () => {
  let busy = true;
  const patient = fairTurns({ perTurn: 9, busy: () => busy, maxWaitMs: 1e9 });
  let went = false;
  const wait = patient().then(() => (went = true));
  for (let i = 0; i < 20; i++) await turnOfLoop();
  expect(went).toBe(false);
  busy = false;
  await wait;
  busy = true;
  await fairTurns({ perTurn: 1, busy: () => busy, maxWaitMs: 5 })();
});
