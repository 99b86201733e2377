import type { Guess } from '@zugluft/core/opinion/guesses';
import { asBytes } from '../test-support/asBytes';
import { testServer } from '../test-support/testServer';

const { call, create, settled, record } = testServer();
const guess = (over: Partial<Guess> = {}): Guess => ({
  id: crypto.randomUUID(),
  by: 'Mara',
  at: '2026-03-01T10:00:00.000Z',
  cap: 36,
  watts: 80,
  ...over,
});
const put = (id: string, seen: number, guesses: Guess[]) =>
  call()
    .put(`/api/documents/guesses/${id}`)
    .set('If-Match', `"${seen}"`)
    .send({ value: { format: 'zugluft-guesses', formatVersion: 1, guesses } });
const read = async (page = 1) => (await call().get(`/api/guesses?page=${page}`).expect(200)).body;

test('guesses stand beside what is known now, the newest first, each person with a record', async () => {
  expect(await read()).toEqual({ items: [], total: 0, page: 1, pageSize: 50, people: [] });
  const a = await create();
  const b = await create({ ...record(), identity: { maker: 'Oslund', model: 'Drift 15' } });
  await settled();
  await put(a.id, 0, [
    guess(),
    guess({ by: 'Zoë', watts: 1, at: '2026-03-02T10:00:00.000Z' }),
  ]).expect(200);
  await put(b.id, 0, [guess({ cap: 37.3, at: '2026-03-03T10:00:00.000Z' })]).expect(200);
  const told = await read();
  expect(told.items.map((g: Guess) => [g.by, g.cap])).toEqual([
    ['Mara', 37.3],
    ['Zoë', 36],
    ['Mara', 36],
  ]);
  const [atNoCap, low, first] = told.items;
  // no watts are kept at a level that is none of the laboratory's
  expect(atNoCap).toMatchObject({ machine: 'Oslund Drift 15', machineId: b.id, answer: null });
  const list = (await call().get('/api/machines').expect(200)).body.items;
  const row = list.find((m: { id: string }) => m.id === a.id);
  expect(first.answer).toEqual({
    p05: row.togetherAt36WP05,
    p50: row.togetherAt36W,
    p95: row.togetherAt36WP95,
  });
  expect(low).toMatchObject({ learned: false, answer: first.answer });
  expect(told.people.map((p: { by: string; guesses: number }) => [p.by, p.guesses])).toEqual([
    ['Mara', 2],
    ['Zoë', 1],
  ]);
  expect(told.people[1].inBand).toBe(0);
  expect(told.people[1].leanShare).toBeLessThan(0);
});

test('they come page by page, and people over all of them', async () => {
  const { id } = await create();
  const at = (i: number) => new Date(Date.UTC(2026, 2, 1, 0, i)).toISOString();
  const many = Array.from({ length: 60 }, (_, i) => guess({ at: at(i), by: `n${i % 3}` }));
  await put(id, 0, many).expect(200);
  const second = await read(2);
  expect(second).toMatchObject({ total: 60, page: 2 });
  expect(second.items.map((g: Guess) => g.at)).toEqual(
    many
      .slice(0, 10)
      .reverse()
      .map((g) => g.at),
  );
  expect(second.people).toHaveLength(3);
  for (const page of ['0', 'x', '-1']) await call().get(`/api/guesses?page=${page}`).expect(400);
});

test('what cannot be guessed, and of no machine, is refused', async () => {
  const { id } = await create();
  const answer = await put(id, 0, [guess({ watts: -1 })]).expect(400);
  expect(answer.body.errors[0].path).toBe('value.guesses.0.watts');
  await put(crypto.randomUUID(), 0, [guess()]).expect(404);
  await put(id, 0, [guess()]).expect(200);
  // two windows: the second is told
  await put(id, 0, [guess()]).expect(412);
});

test('who guessed what stays in the house', async () => {
  const { id } = await create();
  await put(id, 0, [guess({ by: 'Somebody of note' })]).expect(200);
  const zip = await call().get('/api/exchange/library.zip').buffer(true).parse(asBytes);
  const { unzipSync } = await import('fflate');
  const inside = Object.entries(unzipSync(new Uint8Array(zip.body as Buffer)));
  expect(inside.length).toBeGreaterThan(0);
  expect(inside.some(([name]) => name.includes('guess'))).toBe(false);
  expect(inside.some(([, bytes]) => Buffer.from(bytes).includes('Somebody of note'))).toBe(false);
});
