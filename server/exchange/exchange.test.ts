import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import type { ImportItem } from '@zugluft/core/library/answers';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import pino from 'pino';
import request from 'supertest';
import { createApp } from '../app';
import { Problem } from '../security/problem';
import { example, exchangeAt } from '../test-support/exchange';
import { testLibrary, testServer } from '../test-support/testServer';
import { createImporter } from './importPlan';
import { readImport } from './readImport';
import { doTextJob } from './textPieces';
import { receiveFile } from './receiveFile';

const { call, create, record, db: library, library: whole } = testServer();
const { send, actions, total, download } = exchangeAt(call);

test('a record goes out and comes back the same, unknown fields too; the preview writes nothing', async () => {
  const made = await create({ ...example('two-fan-shared-pipes'), extra: { kept: [1, null] } });
  const file = await download(`/api/exchange/machines/${made.id}.json`);
  expect(JSON.parse(file.toString())).toEqual(made.record);
  expect(await actions(file)).toEqual(['same']);
  const deeper = JSON.parse(file.toString());
  deeper.finStacks[0].depthMm = 31;
  const preview = (await send(JSON.stringify(deeper)).expect(200)).body;
  expect(preview).toMatchObject({
    applied: false,
    items: [
      {
        action: 'changed',
        machineId: made.id,
        changed: 1,
        first: [{ path: 'finStacks.fins-left.depthMm', before: 24, after: 31 }],
      },
    ],
  });
  expect((await call().get(`/api/machines/${made.id}`)).body.revision).toBe(1);
  await send(JSON.stringify(deeper), '&apply=1').expect(200);
  const after = (await call().get(`/api/machines/${made.id}`)).body;
  expect(after.revision).toBe(2);
  expect(after.record).toEqual(deeper);
  deeper.finStacks[0].depthMm = 32;
  await send(JSON.stringify(deeper), '&apply=1&changed=skip').expect(200);
  expect((await call().get(`/api/machines/${made.id}`)).body.revision).toBe(2);
  await send(JSON.stringify(deeper), '&apply=1&changed=new').expect(200);
  expect(await total()).toBe(2);
});

test('a whole library goes into an empty one: variants, units, states and tags are back, serial numbers are not', async () => {
  const a = await create(example('two-fan-shared-pipes'));
  const b = (await call().post(`/api/machines/${a.id}/states`).send({ name: 'cleaned' })).body;
  await call().put(`/api/machines/${a.id}/unit`).set('If-Match', '"1"').send({
    serial: 'SECRET-7',
    source: 'lent',
  });
  await call()
    .post('/api/machines/tags')
    .send({ ids: [a.id], add: ['stage'] });
  const zip = await download('/api/exchange/library.zip');
  expect(Object.keys(unzipSync(zip)).filter((f) => !f.startsWith('records/'))).toEqual(
    expect.arrayContaining(['machines.csv', 'parts.csv', 'manifest.json']),
  );
  for (const content of Object.values(unzipSync(zip))) {
    expect(Buffer.from(content).includes('SECRET-7')).toBe(false);
  }
  expect(await actions(zip)).toEqual(['same', 'same']);
  const opened = await testLibrary();
  const { db } = opened;
  const other = createApp(opened, null, pino({ level: 'silent' }));
  const at = (r: ReturnType<ReturnType<typeof request>['get']>) => r.set('Host', '127.0.0.1:4180');
  const answer = await at(
    request(other)
      .post('/api/exchange/import?apply=1')
      .set('Content-Type', 'application/octet-stream'),
  ).send(zip);
  expect(answer.body.items.map((i: { action: string }) => i.action)).toEqual(['new', 'new']);
  const read = async (id: string) => (await at(request(other).get(`/api/machines/${id}`))).body;
  const [backA, backB] = [await read(a.id), await read(b.id)];
  expect(backA.record).toEqual(a.record);
  expect(backB).toMatchObject({ stateName: 'cleaned', variantId: backA.variantId });
  expect(backB.unit).toMatchObject({ id: backA.unit.id, facts: { source: 'lent' } });
  const list = (await at(request(other).get('/api/machines?tag=stage'))).body;
  expect(list.items.map((m: { id: string }) => m.id)).toEqual([a.id]);
  await db.close();
});

/** A library zip whose records were changed by somebody. */
const tampered = (zip: Buffer, change: (r: ReturnType<typeof example>, at: number) => void) => {
  const files = unzipSync(zip);
  let at = 0;
  for (const name of Object.keys(files).filter((f) => f.startsWith('records/'))) {
    const r = JSON.parse(Buffer.from(files[name]!).toString());
    change(r, at++);
    files[name] = strToU8(JSON.stringify(r));
  }
  return zipSync(files);
};

test('two states of a variant come back changed: the first carries to the second, which is then the same', async () => {
  const a = await create(example('two-fan-shared-pipes'));
  await call().post(`/api/machines/${a.id}/states`).send({ name: 'cleaned' }).expect(201);
  const zip = tampered(await download('/api/exchange/library.zip'), (r) => {
    r.finStacks[0].depthMm = 30;
  });
  expect(await actions(zip)).toEqual(['changed', 'changed']);
  expect(await actions(zip, '&apply=1')).toEqual(['changed', 'same']);
  const family = (await call().get(`/api/machines/${a.id}/family`)).body.items;
  for (const { id } of family) {
    const now = (await call().get(`/api/machines/${id}`)).body;
    expect(now.revision).toBe(2);
    expect(now.record.finStacks[0].depthMm).toBe(30);
  }
});

test('machines of one variant whose cooling differs do not become one variant here', async () => {
  const a = await create(example('two-fan-shared-pipes'));
  await call().post(`/api/machines/${a.id}/states`).send({ name: 'cleaned' }).expect(201);
  const zip = tampered(await download('/api/exchange/library.zip'), (r, at) => {
    r.finStacks[0].depthMm = 30 + at;
  });
  const opened = await testLibrary();
  const { db, machines, documents, attachments } = opened;
  const importer = createImporter(
    db,
    machines,
    documents,
    attachments,
    opened.takeRun,
    opened.editionTravel,
  );
  const finder = { byId: async () => null, byName: async () => null };
  const received = await receiveFile(Readable.from([Buffer.from(zip)]), db.folder);
  const { candidates, close } = await readImport(received, 'zip', finder, doTextJob);
  const done: ImportItem[] = [];
  for await (const item of importer.apply(candidates, 'update')) done.push(item);
  expect(done.map((i) => i.action)).toEqual(['new', 'new']);
  const rows = await db.models.Machine.findAll();
  expect(new Set(rows.map((r) => r.variantId)).size).toBe(2);
  // none is written once the one who asked is gone
  const again = importer.apply(
    candidates.map((lazy) => async () => {
      const { id: _, ...c } = await lazy();
      return c;
    }),
    'new',
  );
  await again.next();
  await again.return(undefined);
  expect(await db.models.Machine.count()).toBe(3);
  close();
  await db.close();
});

test('a machine that somebody else changed meanwhile is named, and the others are taken', async () => {
  const { db, machines, documents, attachments, takeRun, editionTravel } = whole();
  const importer = createImporter(db, machines, documents, attachments, takeRun, editionTravel);
  const a = await create();
  const next = (model: string) => ({ ...record(), identity: { model } });
  const busy = async () => {
    // between its plan and its writing: as another window would
    const read = jest.spyOn(machines, 'update');
    read.mockImplementationOnce(async () => {
      throw new Problem(412, 'Changed', 'the record was changed meanwhile');
    });
    return { label: 'a', id: a.id, record: { ...a.record, extra: 1 } };
  };
  const done: ImportItem[] = [];
  const list = [busy, async () => ({ label: 'b', record: next('fresh') })];
  for await (const item of importer.apply(list, 'update')) done.push(item);
  expect(done.map((i) => [i.action, i.reasons.map((r) => r.message)])).toEqual([
    ['refused', ['the record was changed meanwhile']],
    ['new', []],
  ]);
  jest.restoreAllMocks();
});

test('a record of a machine that is in no library by that name is new; two of one name are left apart', async () => {
  await create(example('one-die'));
  await create(example('one-die'));
  expect(await actions(JSON.stringify(example('one-die')))).toEqual(['new']);
  expect(
    await actions(JSON.stringify([example('one-die'), example('two-fan-shared-pipes')])),
  ).toEqual(['new', 'new']);
});

test('words for readers go out with their machine and come into another library', async () => {
  const made = await create(example('one-die'));
  const value = { format: 'zugluft-article', formatVersion: 1, lead: 'Quiet *for its size*.' };
  await call()
    .put(`/api/documents/article/${made.id}`)
    .set('If-Match', '"0"')
    .send({ value })
    .expect(200);
  const zip = await download('/api/exchange/library.zip');
  expect(Object.keys(unzipSync(zip)).some((name) => name.startsWith('articles/'))).toBe(true);
  const opened = await testLibrary();
  await request(createApp(opened, null, pino({ level: 'silent' })))
    .post('/api/exchange/import?apply=1')
    .set('Host', '127.0.0.1:4180')
    .set('Content-Type', 'application/octet-stream')
    .send(Buffer.from(zip))
    .expect(200);
  expect((await opened.documents.read('article', made.id)).value).toEqual(value);
  await opened.close();
});

test('an import tells of each machine as it is done, and leaves no file behind', async () => {
  const two = JSON.stringify([example('one-die'), example('two-fan-shared-pipes')]);
  const answer = await send(two, '&apply=1').set('Accept', 'application/x-ndjson').expect(200);
  const lines = answer.text
    .trim()
    .split('\n')
    .map((l) => JSON.parse(l));
  expect(lines).toHaveLength(4);
  expect(lines[0]).toEqual({ of: 2 });
  expect(lines[1].item.action).toBe('new');
  expect(lines[3]).toEqual({ done: true });
  expect(readdirSync(join(library().folder, 'incoming'))).toEqual([]);
});

test('a list in which one machine stands twice makes it once, and the later one changes it, whatever lies between', async () => {
  const named = (variant: string, massKg: number) => {
    const own = record();
    return { ...own, identity: { ...own.identity, variant }, shell: { ...own.shell, massKg } };
  };
  const list = [
    ...Array.from({ length: 20 }, (_, i) => named(`v ${i}`, 2)),
    named('V  3', 2.5),
    named('v 19', 2),
    ...Array.from({ length: 3 }, (_, i) => named(`w ${i}`, 2)),
  ];
  const { items } = (await send(JSON.stringify(list), '&apply=1').expect(200)).body;
  const actions = items.map((i: { action: string }) => i.action);
  expect(actions.slice(0, 20)).toEqual(Array(20).fill('new'));
  expect(actions.slice(20)).toEqual(['changed', 'same', 'new', 'new', 'new']);
  expect(items[20].machineId).toBe(items[3].machineId);
  const { total } = (await call().get('/api/machines')).body;
  expect(total).toBe(23);
});

test('a machine whose record is not as it should be is named in the export, and keeps nothing else from going out', async () => {
  const broken = await create();
  const whole = await create();
  await library().sequelize.query(
    'UPDATE document_revisions SET value = \'{"format":"dreams"}\' WHERE kind = \'record\' AND id = ?',
    { replacements: [broken.id] },
  );
  const files = unzipSync(await download('/api/exchange/library.zip'));
  const list = JSON.parse(strFromU8(files['manifest.json']!));
  expect(list.machines.map((m: { id: string }) => m.id)).toEqual([whole.id]);
  expect(list.left).toMatchObject([
    { id: broken.id, why: expect.stringMatching(/not as it should/) },
  ]);
  for (const kind of ['machines', 'parts', 'steady']) {
    expect((await download(`/api/exchange/${kind}.csv`)).toString()).not.toContain(broken.id);
  }
});
