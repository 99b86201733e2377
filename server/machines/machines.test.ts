import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import pino from 'pino';
import request from 'supertest';
import { createApp } from '../app';
import type { Library } from '../library';
import { testLibrary } from '../test-support/testServer';

let library: Library;
let app: ReturnType<typeof createApp>;
const record = () =>
  JSON.parse(readFileSync(join(__dirname, '../../examples/one-die.json'), 'utf8'));
const call = () => ({
  get: (url: string) => request(app).get(url).set('Host', '127.0.0.1:4180'),
  post: (url: string) => request(app).post(url).set('Host', '127.0.0.1:4180'),
  put: (url: string) => request(app).put(url).set('Host', '127.0.0.1:4180'),
});
const create = async (r: unknown = record()) =>
  (await call().post('/api/machines').send({ record: r }).expect(201)).body;

beforeEach(async () => {
  library = await testLibrary();
  app = createApp(library, null, pino({ level: 'silent' }));
});
afterEach(() => library.close());

test('create, read, update, each write a revision', async () => {
  const made = await create();
  expect(made).toMatchObject({ revision: 1, complete: true, putAsideAt: null });
  const changed = { ...made.record, extra: 'kept' };
  const put = await call()
    .put(`/api/machines/${made.id}`)
    .set('If-Match', '"1"')
    .send({ record: changed })
    .expect(200);
  expect(put.headers['etag']).toBe('"2"');
  const read = await call().get(`/api/machines/${made.id}`).expect(200);
  expect(read.body.record).toEqual(changed);
  const revisions = await library.db.models.DocumentRevision.findAll({
    where: { kind: 'record', id: made.id },
  });
  expect(revisions.map((r) => r.revision)).toEqual([1, 2]);
});

test('a first write at revision 0 makes the machine, sent twice once, and never over one that is there', async () => {
  const id = '0b3e5c1a-5f0f-4d7c-9a51-3f1b2c4d5e6f';
  const url = `/api/documents/record/${id}`;
  const first = () =>
    call()
      .put(url)
      .set('If-Match', '"0"')
      .set('Idempotency-Key', 'first-write')
      .send({ value: record() });
  await call().get(url).expect(404);
  const [a, b] = await Promise.all([first(), first()]);
  expect([a.status, a.body.revision, b.status, b.body.revision]).toEqual([200, 1, 200, 1]);
  const read = await call().get(`/api/machines/${id}`).expect(200);
  expect(read.body).toMatchObject({ revision: 1, stateName: 'as found', record: record() });
  const list = await call().get('/api/machines').expect(200);
  expect(list.body.items.map((m: { id: string }) => m.id)).toEqual([id]);
  // another hand that also thinks it is new is told what stands there
  const other = await call().put(url).set('If-Match', '"0"').send({ value: record() });
  expect(other.status).toBe(412);
  expect(other.body.theirs).toMatchObject({ revision: 1 });
  await call()
    .put('/api/documents/record/not-an-id')
    .set('If-Match', '"0"')
    .send({ value: record() })
    .expect(400);
  // only what is not there is made: no mark, no name, no later revision
  const none = '/api/machines/1b3e5c1a-5f0f-4d7c-9a51-3f1b2c4d5e6f';
  await call().put(none).set('If-Match', '"1"').send({ record: record() }).expect(404);
  await call().post(`${none}/put-aside`).set('If-Match', '"0"').expect(404);
  expect((await call().get('/api/machines')).body.items).toHaveLength(1);
});

test('a stale revision is refused with the newer version, and nothing is overwritten', async () => {
  const made = await create();
  const url = `/api/machines/${made.id}`;
  await call().put(url).set('If-Match', '"1"').send({ record: made.record }).expect(200);
  const stale = await call()
    .put(url)
    .set('If-Match', '"1"')
    .send({ record: { ...made.record, lost: 1 } });
  expect(stale.status).toBe(412);
  expect(stale.body.current).toMatchObject({ id: made.id, revision: 2 });
  expect((await call().get(url)).body.record).not.toHaveProperty('lost');
  await call().put(url).send({ record: made.record }).expect(428);
});

test('two writers at once: one wins, the other is told', async () => {
  const made = await create();
  const write = (n: number) =>
    call()
      .put(`/api/machines/${made.id}`)
      .set('If-Match', '"1"')
      .send({ record: { ...made.record, n } });
  const statuses = (await Promise.all([write(1), write(2), write(3)])).map((r) => r.status).sort();
  expect(statuses).toEqual([200, 412, 412]);
});

test('a record with gaps is kept, an impossible one refused with its path', async () => {
  const gap = record();
  delete gap.finStacks[0].depthMm;
  expect(await create(gap)).toMatchObject({ complete: false });
  const impossible = record();
  impossible.finStacks[0].depthMm = -4;
  const refused = await call().post('/api/machines').send({ record: impossible });
  expect(refused.status).toBe(422);
  expect(refused.headers['content-type']).toMatch('application/problem+json');
  expect(refused.body.errors).toEqual([
    { path: 'record.finStacks.0.depthMm', message: 'must be more than 0 mm' },
  ]);
});

test('put aside and bring back', async () => {
  const made = await create();
  const aside = `/api/machines/${made.id}/put-aside`;
  await call().post(aside).expect(428);
  await call().post(aside).set('If-Match', '"7"').expect(412);
  const put = await call().post(aside).set('If-Match', '"1"').expect(200);
  expect(put.headers['etag']).toBe('"2"');
  expect((await call().get('/api/machines')).body.total).toBe(0);
  expect((await call().get('/api/machines?putAside=1')).body.total).toBe(1);
  await call().post(`/api/machines/${made.id}/bring-back`).set('If-Match', '"2"').expect(200);
  expect((await call().get('/api/machines')).body.total).toBe(1);
});

test('the list searches, sorts and pages', async () => {
  for (const [maker, variant, massKg] of [
    ['Velmara', 'A', 1.4],
    ['Oslund', '100% b_c', 3],
    ['Oslund', 'C', 2],
  ] as const) {
    const r = record();
    Object.assign(r.identity, { maker, variant });
    r.shell.massKg = massKg;
    await create(r);
  }
  const list = async (query: string) =>
    (await call().get(`/api/machines?${query}`).expect(200)).body.items.map(
      (i: { maker: string; variant: string }) => `${i.maker} ${i.variant}`,
    );
  expect(await list('')).toEqual(['Oslund 100% b_c', 'Oslund C', 'Velmara A']);
  expect(await list('sort=-massKg')).toEqual(['Oslund 100% b_c', 'Oslund C', 'Velmara A']);
  expect(await list('sort=massKg&pageSize=1&page=2')).toEqual(['Oslund C']);
  expect(await list('q=oslund%20c')).toEqual(['Oslund 100% b_c', 'Oslund C']);
  expect(await list('q=100%25')).toEqual(['Oslund 100% b_c']);
  expect(await list('q=%25')).toEqual(['Oslund 100% b_c']);
  await library.watts.settled();
  expect((await call().get('/api/machines')).body.items[0].togetherAt36W).toBeGreaterThan(5);
});

test.each([
  'page=0',
  'page=x',
  'pageSize=201',
  'sort=record',
  'putAside=2',
  `q=${'x'.repeat(201)}`,
  'colour=1',
])('list refuses ?%s', async (query) => {
  const { status, body } = await call().get(`/api/machines?${query}`);
  expect(status).toBe(400);
  expect(body.errors.length).toBeGreaterThan(0);
});

test('bad bodies are answered in JSON without a stack', async () => {
  const post = (text: string) =>
    call().post('/api/machines').set('Content-Type', 'application/json').send(text);
  expect((await post('{"record":')).status).toBe(400);
  expect((await post(`{"record":"${'x'.repeat(1_100_000)}"}`)).status).toBe(413);
  expect((await post('{"record":{},"more":1}')).status).toBe(400);
  const none = await post('{"record":7}');
  expect(none.status).toBe(422);
  expect(JSON.stringify(none.body)).not.toMatch(/\.ts|node_modules/);
  expect((await call().get('/api/machines/not-an-id')).status).toBe(400);
  expect((await call().get('/api/machines/00000000-0000-4000-8000-000000000000')).status).toBe(404);
  expect((await call().get('/api/nothing')).body.title).toBe('Not found');
});

describe('only this machine’s own pages', () => {
  test.each([
    ['foreign host', { Host: 'evil.example' }],
    ['foreign host with a port', { Host: 'evil.example:4180' }],
    ['foreign origin', { Host: '127.0.0.1:4180', Origin: 'http://evil.example' }],
    ['another port’s origin', { Host: '127.0.0.1:4180', Origin: 'http://127.0.0.1:9999' }],
    ['no origin', { Host: '127.0.0.1:4180', Origin: 'null' }],
  ])('%s is refused', async (_, headers) => {
    const { status, body } = await request(app).get('/api/machines').set(headers);
    expect(status).toBe(403);
    expect(body.title).toMatch(/Foreign/);
  });

  test('its own origin is served', async () => {
    await call().get('/api/health').set('Origin', 'http://127.0.0.1:4180').expect(200);
  });
});
