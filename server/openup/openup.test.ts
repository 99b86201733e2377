import { testServer } from '../test-support/testServer';

const { call, create, db } = testServer();
const empty = { format: 'zugluft-openup', formatVersion: 1 };
const put = (id: string, seen: number, log: unknown) =>
  call().put(`/api/machines/${id}/log`).set('If-Match', `"${seen}"`).send({ log });

test('a machine starts with an empty log; what is written is kept with every version before it', async () => {
  const { id } = await create();
  const first = await call().get(`/api/machines/${id}/log`).expect(200);
  expect(first.body).toMatchObject({ revision: 0, log: { screws: [], steps: [] } });
  expect(first.headers['etag']).toBe('"0"');
  const log = {
    ...empty,
    layers: [{ id: 'base', name: 'base cover', widthMm: 340, extra: 'kept' }],
    screws: [{ id: 'r1', layer: 'base', xMm: 10, yMm: 10, out: true }],
    steps: [
      { id: 's1', name: 'Base cover', screws: ['r1'], needs: [['a', 'b']], note: 'tethered 😀' },
    ],
  };
  const one = await put(id, 0, log).expect(200);
  expect(one.body.revision).toBe(1);
  expect(one.body.log.layers[0].extra).toBe('kept');
  await put(id, 1, { ...log, screws: [] }).expect(200);
  const now = (await call().get(`/api/machines/${id}/log`)).body;
  expect(now).toMatchObject({ revision: 2, log: { screws: [], steps: [{ note: 'tethered 😀' }] } });
  const versions = await db().models.DocumentRevision.findAll({ where: { kind: 'log', id } });
  expect(versions.map((v) => v.revision).sort()).toEqual([1, 2]);
  // the record is another matter
  expect((await call().get(`/api/machines/${id}`)).body.revision).toBe(1);
});

test('of two windows the later one is told, and nothing is written', async () => {
  const { id } = await create();
  await put(id, 0, { ...empty, note: 'first' }).expect(200);
  const late = await put(id, 0, { ...empty, note: 'second' }).expect(412);
  expect(late.body.current).toMatchObject({ revision: 1, log: { note: 'first' } });
  await call().put(`/api/machines/${id}/log`).send({ log: empty }).expect(428);
  const both = await Promise.all([put(id, 1, empty), put(id, 1, empty)]);
  expect(both.map((r) => r.status).sort()).toEqual([200, 412]);
});

test.each([
  ['no log', { format: 'something' }, 'format'],
  [
    'a screw beside the machine',
    { ...empty, screws: [{ id: 'a', layer: 'b', xMm: 9000, yMm: 1 }] },
    'screws.0.xMm',
  ],
  [
    'a name of 10 000 characters',
    { ...empty, layers: [{ id: 'a', name: 'x'.repeat(10_000) }] },
    'layers.0.name',
  ],
  [
    '301 screws',
    {
      ...empty,
      screws: Array.from({ length: 301 }, (_, i) => ({ id: `s${i}`, layer: 'b', xMm: 1, yMm: 1 })),
    },
    'screws',
  ],
  [
    '401 steps',
    { ...empty, steps: Array.from({ length: 401 }, (_, i) => ({ id: `s${i}`, name: 'n' })) },
    'steps',
  ],
])('%s is refused at its place', async (_, log, path) => {
  const { id } = await create();
  const answer = await put(id, 0, log).expect(400);
  expect(answer.body.errors.map((e: { path: string }) => e.path)).toContain(path);
  expect((await call().get(`/api/machines/${id}/log`)).body.revision).toBe(0);
});

test('300 screws and 400 steps are taken; no machine, no log', async () => {
  const { id } = await create();
  const log = {
    ...empty,
    screws: Array.from({ length: 300 }, (_, i) => ({ id: `s${i}`, layer: 'b', xMm: i, yMm: 1 })),
    steps: Array.from({ length: 400 }, (_, i) => ({ id: `s${i}`, name: `step ${i}` })),
  };
  await put(id, 0, log).expect(200);
  await call().get('/api/machines/00000000-0000-4000-8000-000000000000/log').expect(404);
  await put('00000000-0000-4000-8000-000000000000', 0, empty).expect(404);
});

/** What another version of the program has kept. */
const keep = async (id: string, value: object) => {
  const { Document, DocumentRevision } = db().models;
  const one = { kind: 'log', id, revision: 1 };
  await Document.create({ ...one, putAsideAt: null });
  await DocumentRevision.create({
    ...one,
    value: JSON.stringify(value),
    name: null,
    putAside: false,
    note: '',
    writeId: null,
  });
};

test('a log that is kept and cannot be read is said to be so, and is not shown as empty', async () => {
  const { id } = await create();
  await keep(id, { format: 'other' });
  const answer = await call().get(`/api/machines/${id}/log`).expect(422);
  expect(answer.body.detail).toMatch(/not as it should be/);
  await put(id, 1, empty).expect(422);
});

test('a log from before the format had strips, clocks and checks is filled in', async () => {
  const { id } = await create();
  const old = { ...empty, steps: [{ id: 'a', name: 'Cover' }] };
  await keep(id, old);
  const { log } = (await call().get(`/api/machines/${id}/log`).expect(200)).body;
  expect(log).toMatchObject({ strips: [], checked: [], steps: [{ stamps: [], back: false }] });
});
