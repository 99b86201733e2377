import { healthOf } from './health';
import { testServer } from './test-support/testServer';

const { call, create, record, settled, db } = testServer();

const AT_ONCE = 12;

/** Lets the library grow no further, as a full disk would. */
const fill = () =>
  db().write(async (transaction) => {
    const [[{ page_count: pages }]] = (await db().sequelize.query('PRAGMA page_count', {
      transaction,
    })) as unknown as [[{ page_count: number }]];
    await db().sequelize.query(`PRAGMA max_page_count = ${pages}`, { transaction });
  });

test('the health route reads the library, says how much room is left, and when it cannot read', async () => {
  const { body } = await call().get('/api/health').expect(200);
  expect(body).toMatchObject({ ok: true, spaceIsLow: false });
  expect(body.freeBytes).toBeGreaterThan(1e6);
  expect((await healthOf(db(), body.freeBytes * 2)).spaceIsLow).toBe(true);
  await db().sequelize.query('ALTER TABLE documents RENAME TO gone');
  await call().get('/api/health').expect(503);
  await db().sequelize.query('ALTER TABLE gone RENAME TO documents');
});

test('on a full disk a write is refused in words, nothing of it is kept, and reading goes on', async () => {
  const all = await Promise.all(Array.from({ length: AT_ONCE }, () => create()));
  const made = all[0]!;
  // nothing else writes meanwhile: figures still on their way would find no room either
  await settled();
  await fill();
  const large = { ...record(), extra: { text: 'x'.repeat(200_000) } };
  const answer = await call().post('/api/machines').send({ record: large }).expect(507);
  expect(answer.body.detail).toMatch(/disk is full: nothing of this was kept/);
  await call()
    .put(`/api/machines/${made.id}`)
    .set('If-Match', '"1"')
    .send({ record: large })
    .expect(507);
  // many at once share a transaction, which SQLite takes back by itself while they are on their way
  const put = (id: string) =>
    call().put(`/api/machines/${id}`).set('If-Match', '"1"').send({ record: large });
  expect(new Set((await Promise.all(all.map((m) => put(m.id)))).map((a) => a.status))).toEqual(
    new Set([507]),
  );
  for (const { id } of all) {
    expect((await call().get(`/api/machines/${id}`).expect(200)).body.revision).toBe(1);
  }
  expect((await call().get('/api/machines').expect(200)).body.total).toBe(AT_ONCE);
  // room was made
  await db().write(async (transaction) => {
    await db().sequelize.query('PRAGMA max_page_count = 1000000', { transaction });
  });
  await call()
    .put(`/api/machines/${made.id}`)
    .set('If-Match', '"1"')
    .send({ record: large })
    .expect(200);
});
