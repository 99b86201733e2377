import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { strToU8, unzipSync, zipSync } from 'fflate';
import pino from 'pino';
import sharp from 'sharp';
import request from 'supertest';
import { createApp } from '../app';
import { example, exchangeAt } from '../test-support/exchange';
import { testLibrary, testServer } from '../test-support/testServer';

const { call, create, db: library } = testServer();
const { send, actions, download } = exchangeAt(call);

test('a photo that is missing on the disk is named in the export, which is whole', async () => {
  const { id } = await create();
  const png = await sharp({ create: { width: 40, height: 30, channels: 3, background: '#cba' } })
    .png()
    .toBuffer();
  const photo = (
    await call()
      .post(`/api/machines/${id}/attachments?name=inside.png`)
      .set('Content-Type', 'application/octet-stream')
      .send(png)
      .expect(201)
  ).body;
  await call()
    .put(`/api/machines/${id}/attachments/${photo.id}`)
    .set('If-Match', '"1"')
    .send({ path: '', name: 'inside.png', caption: '', covers: [], exported: true, looked: true })
    .expect(200);
  rmSync(join(library().folder, 'files', photo.sha256.slice(0, 2), photo.sha256));
  const zip = unzipSync(await download('/api/exchange/library.zip'));
  const manifest = JSON.parse(Buffer.from(zip['manifest.json']!).toString());
  expect(manifest.machines[0]).toMatchObject({
    attachments: [],
    missing: [{ name: 'inside.png', id: photo.id, why: expect.stringMatching(/missing/) }],
  });
  await call().get(`/api/machines/${id}/attachments/${photo.id}/content`).expect(404);
  expect(await actions(await download('/api/exchange/library.zip'))).toEqual(['same']);
});

test('photos go out with their boxes burned in and come back once; papers only where that was said', async () => {
  const made = await create(example('one-die'));
  const at = `/api/machines/${made.id}/attachments`;
  const add = async (bytes: Buffer, name: string) =>
    (
      await call()
        .post(`${at}?name=${name}&path=fans.fan`)
        .set('Content-Type', 'application/octet-stream')
        .send(bytes)
        .expect(201)
    ).body;
  const white = sharp({ create: { width: 80, height: 60, channels: 3, background: '#fff' } });
  const photo = await add(await white.png().toBuffer(), 'label.png');
  await add(Buffer.from('%PDF-1.4 with a serial number'), 'sheet.pdf');
  const { path, name, exported } = photo;
  const facts = { path, name, exported, caption: 'label', covers: [[0, 0, 0.5, 1]] };
  await call().put(`${at}/${photo.id}`).set('If-Match', '"1"').send(facts).expect(200);
  // covered alone is not looked at: it stays until somebody says so
  const before = await download('/api/exchange/library.zip');
  expect(Object.keys(unzipSync(before)).filter((f) => f.startsWith('photos/'))).toEqual([]);
  await call()
    .put(`${at}/${photo.id}`)
    .set('If-Match', '"2"')
    .send({ ...facts, looked: true })
    .expect(200);
  const marks = {
    references: [
      { id: 'r', what: 'ruler', item: { kind: 'length', from: [1, 1], to: [71, 1], mm: 70 } },
    ],
    marks: [
      {
        id: 'a',
        mark: {
          kind: 'length',
          points: [
            [1, 1],
            [41, 1],
          ],
        },
        figure: 'fans.fan.impellerDiameterMm',
      },
    ],
  };
  await call()
    .put(`/api/documents/marks/${photo.id}`)
    .set('If-Match', '"0"')
    .send({ value: marks })
    .expect(200);
  await library().models.Attachment.update({ focalPx: 91.5 }, { where: { id: photo.id } });
  const zip = await download('/api/exchange/library.zip');
  const files = Object.keys(unzipSync(zip)).filter((f) => f.startsWith('photos/'));
  expect(files).toEqual([expect.stringMatching(/^photos\/.*\/001\.png$/)]);
  const { data } = await sharp(unzipSync(zip)[files[0]!]!).removeAlpha().raw().toBuffer({
    resolveWithObject: true,
  });
  expect([...data.subarray(0, 3)]).toEqual([20, 32, 27]);
  expect([...data.subarray(79 * 3, 80 * 3)]).toEqual([255, 255, 255]);
  // here nothing is new
  expect((await send(zip).expect(200)).body.items[0]).toMatchObject({ action: 'same', photos: 0 });

  const opened = await testLibrary();
  const other = opened.db;
  const app = createApp(opened, null, pino({ level: 'silent' }));
  const post = (query: string) =>
    request(app)
      .post(`/api/exchange/import${query}`)
      .set('Host', '127.0.0.1:4180')
      .set('Content-Type', 'application/octet-stream')
      .send(zip);
  expect((await post('')).body.items[0]).toMatchObject({ action: 'new', photos: 1 });
  expect((await post('?apply=1')).body.items[0]).toMatchObject({ action: 'new', photos: 1 });
  expect((await post('?apply=1')).body.items[0]).toMatchObject({ action: 'same', photos: 0 });
  expect(await other.models.Attachment.count()).toBe(1);
  const back = (await other.models.Attachment.findOne())!;
  expect(back).toMatchObject({ id: photo.id, path: 'fans.fan', caption: 'label', covers: '[]' });
  expect(back.focalPx).toBe(91.5);
  expect((await opened.documents.read('marks', photo.id)).value).toEqual(marks);
  await other.close();
  // a photo that was tampered with is named, its machine taken
  const broken = unzipSync(zip);
  broken[files[0]!] = strToU8('no picture at all');
  const another = await testLibrary();
  const third = another.db;
  const item = (
    await request(createApp(another, null, pino({ level: 'silent' })))
      .post('/api/exchange/import?apply=1')
      .set('Host', '127.0.0.1:4180')
      .set('Content-Type', 'application/octet-stream')
      .send(Buffer.from(zipSync(broken)))
  ).body.items[0];
  expect(item).toMatchObject({ action: 'new', photos: 0, reasons: [{ path: files[0] }] });
  expect(await third.models.Machine.count()).toBe(1);
  await third.close();
});

test('marks of a photo that is here already come as one more revision; of a machine taken as new its figures name its own photo', async () => {
  const given = example('one-die') as { fans: Record<string, unknown>[] };
  const made = await create(given);
  const at = `/api/machines/${made.id}/attachments`;
  const white = sharp({ create: { width: 80, height: 60, channels: 3, background: '#fff' } });
  const photo = (
    await call()
      .post(`${at}?name=top.png&path=`)
      .set('Content-Type', 'application/octet-stream')
      .send(await white.png().toBuffer())
      .expect(201)
  ).body;
  const { path, name, exported } = photo;
  await call()
    .put(`${at}/${photo.id}`)
    .set('If-Match', '"1"')
    .send({ path, name, exported, caption: '', covers: [], looked: true })
    .expect(200);
  const marksTo = (mm: number) => ({
    references: [
      { id: 'r', what: 'ruler', item: { kind: 'length', from: [1, 1], to: [71, 1], mm } },
    ],
    marks: [],
  });
  const mark = (seen: number, mm: number) =>
    call()
      .put(`/api/documents/marks/${photo.id}`)
      .set('If-Match', `"${seen}"`)
      .send({ value: marksTo(mm) })
      .expect(200);
  const marks = async (id: string) => {
    const { value, revision } = (await call().get(`/api/documents/marks/${id}`).expect(200)).body;
    return { mm: value.references[0]?.item.mm, revision };
  };
  await mark(0, 70);
  const fan = given.fans[0]!;
  const record = {
    ...given,
    fans: [
      {
        ...fan,
        impellerDiameterMm: { value: 55, origin: 'photo', photo: photo.id, mark: 'circle-1' },
      },
      ...given.fans.slice(1),
    ],
  };
  await call().put(`/api/machines/${made.id}`).set('If-Match', '"1"').send({ record }).expect(200);
  const zip = await download('/api/exchange/library.zip');

  // marked otherwise since: left, or taken as one more revision, once
  await mark(1, 35);
  await send(zip, '&apply=1&changed=skip').expect(200);
  expect(await marks(photo.id)).toEqual({ mm: 35, revision: 2 });
  await send(zip, '&apply=1&changed=update').expect(200);
  expect(await marks(photo.id)).toEqual({ mm: 70, revision: 3 });
  await send(zip, '&apply=1&changed=update').expect(200);
  expect(await marks(photo.id)).toEqual({ mm: 70, revision: 3 });

  // the record changed since, and the file's is taken as a machine of its own
  const depth = { ...record, shell: { ...(record as { shell?: object }).shell, thicknessMm: 31 } };
  await call()
    .put(`/api/machines/${made.id}`)
    .set('If-Match', '"2"')
    .send({ record: depth })
    .expect(200);
  const [item] = (await send(zip, '&apply=1&changed=new').expect(200)).body.items;
  expect(item).toMatchObject({ action: 'changed', photos: 1, reasons: [] });
  expect(item.machineId).not.toBe(made.id);
  const [own] = (await call().get(`/api/machines/${item.machineId}/attachments`)).body.items;
  expect(own.id).not.toBe(photo.id);
  expect(await marks(own.id)).toEqual({ mm: 70, revision: 1 });
  const other = (await call().get(`/api/machines/${item.machineId}`)).body.record;
  expect(other.fans[0].impellerDiameterMm).toMatchObject({ photo: own.id, mark: 'circle-1' });
  const first = (await call().get(`/api/machines/${made.id}`)).body.record;
  expect(first.fans[0].impellerDiameterMm.photo).toBe(photo.id);
});

test('the log of an opening goes out with its machine and comes back once, as one more revision where it changed', async () => {
  const made = await create(example('one-die'));
  const log = {
    format: 'zugluft-openup',
    formatVersion: 1,
    steps: [{ id: 'cover', name: 'Base cover off', note: 'tethered 😀' }],
  };
  const put = (seen: number, body: object) =>
    call().put(`/api/machines/${made.id}/log`).set('If-Match', `"${seen}"`).send({ log: body });
  await put(0, log).expect(200);
  const zip = await download('/api/exchange/library.zip');
  expect((await send(zip).expect(200)).body.items[0]).toMatchObject({
    action: 'same',
    log: 'same',
  });

  // gone on here meanwhile: the file's one is put on top, and what stood here stays in the history
  await put(1, { ...log, steps: [] }).expect(200);
  expect((await send(zip)).body.items[0]).toMatchObject({ action: 'same', log: 'changed' });
  await send(zip, '&apply=1&changed=skip').expect(200);
  expect((await call().get(`/api/machines/${made.id}/log`)).body.revision).toBe(2);
  await send(zip, '&apply=1').expect(200);
  const now = (await call().get(`/api/machines/${made.id}/log`)).body;
  expect(now).toMatchObject({ revision: 3, log: { steps: [{ note: 'tethered 😀' }] } });

  const opened = await testLibrary();
  const other = opened.db;
  const post = (file: Uint8Array) =>
    request(createApp(opened, null, pino({ level: 'silent' })))
      .post('/api/exchange/import?apply=1')
      .set('Host', '127.0.0.1:4180')
      .set('Content-Type', 'application/octet-stream')
      .send(Buffer.from(file));
  expect((await post(zip)).body.items[0]).toMatchObject({ action: 'new', log: 'new' });
  expect((await other.models.Document.findOne({ where: { kind: 'log' } }))!).toMatchObject({
    id: made.id,
    revision: 1,
  });
  // a log that was tampered with refuses its machine, with the file's name
  const files = unzipSync(zip);
  const name = Object.keys(files).find((f) => f.startsWith('logs/'))!;
  files[name] = strToU8('{"format":"something"}');
  const refused = (await post(zipSync(files))).body.items[0];
  expect(refused.action).toBe('refused');
  expect(refused.reasons[0].message).toContain(name);
  await other.close();
});
