import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { testServer } from '../test-support/testServer';

const { call, create, settled, library } = testServer();
const revisions = () => library().db.models.DocumentRevision.count({ where: { kind: 'defaults' } });
const get = () => call().get('/api/defaults').expect(200);
const put = (key: string, seen: number, body: object) =>
  call().put(`/api/defaults/${key}`).set('If-Match', `"${seen}"`).send(body);
const entry = { value: 0.8, low: 0.7, high: 0.9, note: 'own wind tunnel' };

test('a lab sets a default, changes it, and goes back; every change is kept', async () => {
  expect((await get()).headers['etag']).toBe('"0"');
  const first = await put('finStacks.uaFactor', 0, entry).expect(200);
  expect(first.headers['etag']).toBe('"1"');
  await put('finStacks.uaFactor', 1, { ...entry, value: 0.75 }).expect(200);
  expect((await get()).body.items['finStacks.uaFactor']).toMatchObject({ ...entry, value: 0.75 });
  const gone = await call()
    .delete('/api/defaults/finStacks.uaFactor')
    .set('If-Match', '"2"')
    .expect(200);
  expect(gone.body.items).toEqual({});
  expect(await revisions()).toBe(3);
});

test('without the revision seen nothing is written; an older one is answered with what stands there', async () => {
  await call().put('/api/defaults/fans.psi').send(entry).expect(428);
  await call().delete('/api/defaults/fans.psi').expect(428);
  await put('fans.psi', 0, entry).expect(200);
  const stale = await put('fans.phi', 0, { value: 0.1, low: 0.08, high: 0.12, note: '' });
  expect(stale.status).toBe(412);
  expect(stale.body.current.items).toHaveProperty(['fans.psi']);
  expect(stale.body.seen).toEqual({ revision: 0, value: {} });
  expect(stale.body.differs.map((d: { path: string }) => d.path).sort()).toEqual([
    'fans.phi',
    'fans.psi',
  ]);
});

test.each<[string, string, object, number, string]>([
  ['an unknown key', 'no.such', { value: 1, low: 1, high: 1 }, 404, ''],
  ['a range the wrong way round', 'fans.psi', { value: 1, low: 1.2, high: 1.4 }, 422, 'low'],
  ['a share above one', 'fans.leakage', { value: 0.5, low: 0.1, high: 1.5 }, 422, 'high'],
  ['a slip of the unit', 'dies.thicknessMm', { value: 0.8, low: 0.7, high: 9000 }, 422, 'high'],
  ['zero where nothing may be zero', 'fans.phi', { value: 0, low: 0, high: 0.1 }, 422, 'value'],
  ['text', 'fans.phi', { value: 'much', low: 0, high: 0.1 }, 400, 'value'],
  ['more than asked for', 'fans.phi', { value: 0.1, low: 0.1, high: 0.1, x: 1 }, 400, ''],
])('%s is refused', async (_, key, body, status, path) => {
  const answer = await put(key, 0, body).expect(status);
  if (path) expect(answer.body.errors.map((e: { path: string }) => e.path)).toContain(path);
  expect(await revisions()).toBe(0);
});

test('the list’s watts follow the lab’s defaults, and records stay as they are', async () => {
  const record = JSON.parse(
    readFileSync(join(__dirname, '../../examples/two-fan-shared-pipes.json'), 'utf8'),
  );
  const made = await create(record);
  const listed = async () => {
    await settled();
    return (await call().get('/api/machines').expect(200)).body;
  };
  const before = (await listed()).items[0];
  expect(before.togetherFullW).toBeGreaterThan(50);
  await put('finStacks.uaFactor', 0, { value: 0.5, low: 0.4, high: 0.6, note: '' }).expect(200);
  const { items, pending } = await listed();
  expect(pending).toBe(0);
  expect(items[0].togetherFullW).toBeLessThan(before.togetherFullW - 5);
  expect(items[0].updatedAt).toBe(before.updatedAt);
  expect((await call().get(`/api/machines/${made.id}`)).body.revision).toBe(1);
});
