import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { QueryTypes } from 'sequelize';
import { openDatabase } from '../database/openDatabase';
import { testServer } from '../test-support/testServer';
import { temporaryFolder } from '../test-support/temporaryFolder';

const { call, create, db } = testServer();
const two = () =>
  JSON.parse(readFileSync(join(__dirname, '../../examples/two-fan-shared-pipes.json'), 'utf8'));
const put = (id: string, revision: number, record: unknown) =>
  call().put(`/api/machines/${id}`).set('If-Match', `"${revision}"`).send({ record });

test('a state of the same unit shares the cooling: a figure typed in one stands in the other', async () => {
  const first = await create(two());
  const added = await call()
    .post(`/api/machines/${first.id}/states`)
    .send({ name: 'cleaned, new paste' })
    .expect(201);
  const second = added.body;
  expect(second).toMatchObject({
    stateName: 'cleaned, new paste',
    variantId: first.variantId,
    unit: { id: first.unit.id },
    revision: 1,
  });
  const clean = structuredClone(second.record);
  clean.room = { temperatureC: 25 };
  clean.finStacks[0].lintShare = 0;
  await put(second.id, 1, clean).expect(200);
  // state stays with its unit: the first did not change
  expect((await call().get(`/api/machines/${first.id}`)).body.revision).toBe(1);
  const deeper = structuredClone(first.record);
  deeper.finStacks[0].depthMm = 30;
  deeper.room = { temperatureC: 19 };
  await put(first.id, 1, deeper).expect(200);
  const carried = (await call().get(`/api/machines/${second.id}`)).body;
  expect(carried.revision).toBe(3);
  expect(carried.record.finStacks[0]).toMatchObject({ depthMm: 30, lintShare: 0 });
  expect(carried.record.room).toEqual({ temperatureC: 25 });
  // whoever still types in the second from its older revision is told
  await put(second.id, 2, clean).expect(412);
});

test('another unit of the variant has its own facts and a state to be found out', async () => {
  const first = await create(two());
  const made = (
    await call()
      .post(`/api/machines/${first.id}/units`)
      .send({ serial: 'B-2', source: 'lent' })
      .expect(201)
  ).body;
  expect(made.unit).toMatchObject({ revision: 1, facts: { serial: 'B-2', source: 'lent' } });
  expect(made.variantId).toBe(first.variantId);
  expect(made.unit.id).not.toBe(first.unit.id);
  expect(JSON.stringify(made.record)).not.toContain('ageYears');
  const url = `/api/machines/${made.id}/unit`;
  const changed = await call().put(url).set('If-Match', '"1"').send({ serial: 'B-3' }).expect(200);
  expect(changed.body).toMatchObject({ revision: 2, facts: { serial: 'B-3' } });
  const stale = await call().put(url).set('If-Match', '"1"').send({}).expect(412);
  expect(stale.body.current.facts).toEqual({ serial: 'B-3' });
  for (const facts of [{ receivedOn: 'yesterday' }, { serial: 'x'.repeat(81) }, []]) {
    await call().put(url).set('If-Match', '"2"').send(facts).expect(400);
  }
});

test('a sibling variant is a copy whose figures are all assumed, and goes its own way', async () => {
  const first = await create(two());
  const made = (
    await call()
      .post(`/api/machines/${first.id}/variants`)
      .send({ name: '6-core, one fan fewer' })
      .expect(201)
  ).body;
  expect(made.record.identity.variant).toBe('6-core, one fan fewer');
  expect(made.record.finStacks[0].depthMm).toMatchObject({ origin: 'assumed' });
  expect(made.complete).toBe(true);
  const changed = structuredClone(first.record);
  changed.finStacks[0].depthMm = 31;
  await put(first.id, 1, changed).expect(200);
  expect((await call().get(`/api/machines/${made.id}`)).body.revision).toBe(1);
  const family = (await call().get(`/api/machines/${made.id}/family`)).body.items;
  expect(family.map((f: { id: string }) => f.id).sort()).toEqual([first.id, made.id].sort());
  await call().post(`/api/machines/${first.id}/variants`).send({ name: '  ' }).expect(400);
  await call()
    .post(`/api/machines/${first.id}/states`)
    .send({ name: 'x'.repeat(81) })
    .expect(400);
});

test('machines of other models are no family, unnamed ones have only their own', async () => {
  const first = await create(two());
  const other = two();
  other.identity.model = 'Other 15';
  await create(other);
  const unnamed = two();
  delete unnamed.identity;
  const u = await create(unnamed);
  await create(unnamed);
  const ids = async (id: string) => (await call().get(`/api/machines/${id}/family`)).body.items;
  expect(await ids(first.id)).toHaveLength(1);
  expect(await ids(u.id)).toHaveLength(1);
});

test('a variant has a bounded number of machines', async () => {
  const first = await create(two());
  const add = () => call().post(`/api/machines/${first.id}/states`).send({ name: 's' });
  const answers = [];
  for (let i = 0; i < 60; i++) answers.push((await add()).status);
  expect(answers.filter((s) => s === 201)).toHaveLength(59);
  expect(answers[59]).toBe(409);
}, 60_000);

test('a state is renamed', async () => {
  const first = await create(two());
  const url = `/api/machines/${first.id}/state-name`;
  await call().put(url).send({ name: 'dusty' }).expect(428);
  const named = await call().put(url).set('If-Match', '"1"').send({ name: ' dusty ' }).expect(200);
  expect(named.body).toMatchObject({ stateName: 'dusty', revision: 2, record: first.record });
  await call().put(url).set('If-Match', '"1"').send({ name: 'late' }).expect(412);
  await call().put(url).set('If-Match', '"2"').send({ name: '' }).expect(400);
  const { items } = (await call().get(`/api/machines/${first.id}/revisions`)).body;
  expect(items[0]).toMatchObject({ revision: 2, name: 'dusty', note: 'named “dusty”', changed: 0 });
});

test('history tells what each revision changed, and any of them can be read again', async () => {
  const first = await create(two());
  const deeper = structuredClone(first.record);
  deeper.finStacks[0].depthMm = 30;
  await put(first.id, 1, deeper).expect(200);
  const url = `/api/machines/${first.id}/revisions`;
  const list = (await call().get(url).expect(200)).body;
  expect(list.items.map((r: { revision: number }) => r.revision)).toEqual([2, 1]);
  expect(list.items[0]).toMatchObject({
    changed: 1,
    first: [{ path: 'finStacks.fins-left.depthMm', before: 24, after: 30 }],
  });
  expect((await call().get(`${url}/1`)).body.record).toEqual(first.record);
  await call().get(`${url}/3`).expect(404);
  await call().get(`${url}/0`).expect(400);
});

test('a library from before there were variants keeps every record and revision', async () => {
  const where = temporaryFolder();
  const old = await openDatabase(where, '0002-lab-defaults');
  const insert = (id: string) =>
    old.sequelize.query(
      `INSERT INTO machines (id, revision, record, complete, maker, model, variant, searchText, fans, pipes, stacks, createdAt, updatedAt)
       VALUES ('${id}', 3, '{"n":"${id}"}', 0, 'm', 'n', 'v', 'm n v', 0, 0, 0, '2026-01-02 03:04:05.000 +00:00', '2026-01-02 03:04:05.000 +00:00')`,
    );
  for (let i = 0; i < 450; i++) await insert(`machine-${i}`);
  await old.sequelize.query(
    `INSERT INTO revisions (machineId, revision, record, createdAt) VALUES ('machine-7', 3, '{}', '2026-01-02 03:04:05.000 +00:00')`,
  );
  await old.close();
  const now = await openDatabase(where);
  expect(await now.models.Machine.count()).toBe(450);
  expect(await now.models.DocumentRevision.count({ where: { kind: 'record' } })).toBe(451);
  const [row] = await now.sequelize.query<Record<string, unknown>>(
    `SELECT r.value AS record, m.revision, m.stateName, u.variantId AS unitsVariant, m.variantId FROM machines m
     JOIN units u ON u.id = m.unitId JOIN variants v ON v.id = m.variantId
     JOIN document_revisions r ON r.kind = 'record' AND r.id = m.id AND r.revision = m.revision WHERE m.id = 'machine-449'`,
    { type: QueryTypes.SELECT },
  );
  expect(row).toMatchObject({ record: '{"n":"machine-449"}', revision: 3, stateName: 'as found' });
  // one whose newest revision held something else keeps both
  const seven = await now.models.DocumentRevision.findAll({
    where: { kind: 'record', id: 'machine-7' },
    order: [['revision', 'ASC']],
  });
  expect(seven.map((r) => [r.revision, r.value])).toEqual([
    [3, '{}'],
    [4, '{"n":"machine-7"}'],
  ]);
  expect((await now.models.Machine.findByPk('machine-7'))!.revision).toBe(4);
  expect(row!['unitsVariant']).toBe(row!['variantId']);
  expect(await now.models.Unit.count()).toBe(450);
  await now.close();
});

test('the two halves of one write stand or fall together', async () => {
  const first = await create(two());
  const second = (
    await call().post(`/api/machines/${first.id}/states`).send({ name: 'b' }).expect(201)
  ).body;
  // a sibling whose revision cannot be written
  await db().sequelize.query(
    `INSERT INTO document_revisions (kind, id, revision, value, putAside, note, createdAt) VALUES ('record', '${second.id}', 2, '{}', 0, '', '2026-01-01')`,
  );
  const deeper = structuredClone(first.record);
  deeper.finStacks[0].depthMm = 30;
  await put(first.id, 1, deeper).expect(500);
  const after = (await call().get(`/api/machines/${first.id}`)).body;
  expect(after.revision).toBe(1);
  expect(after.record.finStacks[0].depthMm).toBe(24);
});
