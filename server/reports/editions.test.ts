import { unzipSync } from 'fflate';
import { asBytes } from '../test-support/asBytes';
import { testServer } from '../test-support/testServer';

jest.setTimeout(300_000);
const { call, create, record, settled } = testServer();

const binary = (url: string) => call().get(url).buffer(true).parse(asBytes);

/** Other wordings make other editions. */
const write = (id: string, seen: number, lead: string) =>
  call()
    .put(`/api/documents/article/${id}`)
    .set('If-Match', `"${seen}"`)
    .send({ value: { format: 'zugluft-article', formatVersion: 1, lead } })
    .expect(200);

test('an edition stays what it was, whatever comes after, and the next one tells what is new', async () => {
  const { id } = await create();
  await settled();
  const url = `/api/machines/${id}/editions`;
  expect((await call().get(url).expect(200)).body).toMatchObject({ items: [], total: 0 });
  await write(id, 0, 'Quiet.');
  const first = (await call().post(url).send({ cap: 36 }).expect(201)).body;
  expect(first).toMatchObject({ number: 1, recordRevision: 1, cap: '36', changes: null });
  const endings = first.files.map((f: { name: string }) => f.name.replace(/^.*\./, ''));
  expect([...new Set(endings)].sort()).toEqual(['csv', 'html', 'json', 'md', 'pdf', 'png', 'svg']);
  const html = first.files[0].name as string;
  const pageUrl = `${url}/1/files/${encodeURIComponent(html)}`;
  const page = (
    await call()
      .get(pageUrl)
      .expect(200)
      .expect('Content-Type', /text\/html/)
  ).text;
  expect(page).toContain('Edition 1, ');
  expect(page).toContain('Quiet.');

  // nothing is new: none is made
  const refused = await call().post(url).send({ cap: 36 }).expect(409);
  expect(refused.body.detail).toContain('since edition 1');

  // the record and the words go on
  const changed = record();
  changed.room = { ...changed.room, temperatureC: 29 };
  await call()
    .put(`/api/machines/${id}`)
    .set('If-Match', '"1"')
    .send({ record: changed })
    .expect(200);
  await write(id, 1, 'Quiet, but warm.');
  const second = (await call().post(url).send({ cap: 36 }).expect(201)).body;
  expect(second.number).toBe(2);
  expect(second.changes.words).toEqual(['To begin with']);
  expect(second.changes.record).toMatchObject([{ path: 'room.temperatureC', after: 29 }]);
  const at36 = second.changes.figures.find(
    (f: { figure: string; cap: string }) => f.figure === 'sustained' && f.cap === '36',
  );
  // a warmer room carries less
  expect(at36.after.value).toBeLessThan(at36.before.value);
  expect((await call().get(`${url}/2`).expect(200)).body).toEqual(second);
  expect((await call().get(`${url}/1`).expect(200)).body).toEqual(first);

  // byte for byte
  expect((await call().get(pageUrl).expect(200)).text).toBe(page);
  const zip = await binary(`${url}/1/edition.zip`).expect(200);
  const inside = unzipSync(new Uint8Array(zip.body as Buffer));
  expect(Object.keys(inside)).toEqual(first.files.map((f: { name: string }) => f.name));
  for (const { name, bytes } of first.files) expect(inside[name]!.length).toBe(bytes);
  expect(Buffer.from(inside[html]!).toString()).toBe(page);
  const list = (await call().get(url).expect(200)).body;
  expect(list.items.map((e: { number: number }) => e.number)).toEqual([2, 1]);
});

test('published twice at once there is one next edition', async () => {
  const { id } = await create();
  await settled();
  const url = `/api/machines/${id}/editions`;
  const both = await Promise.all([call().post(url).send({}), call().post(url).send({})]);
  expect(both.map((r) => r.status).sort()).toEqual([201, 409]);
  expect((await call().get(url)).body.total).toBe(1);
});

test('what is not there, or cannot be asked, is told', async () => {
  const { id } = await create();
  const url = `/api/machines/${id}/editions`;
  await call().get(`${url}/1`).expect(404);
  await call().get(`${url}/0`).expect(400);
  await call().get(`${url}/x`).expect(400);
  await call().get(`${url}?page=0`).expect(400);
  await call().post(url).send({ cap: 500 }).expect(400);
  await call().post(url).send({ as: 'pdf' }).expect(400);
  await call().get('/api/machines/no-id/editions').expect(400);
  await call().get(`/api/machines/${crypto.randomUUID()}/editions`).expect(404);
  await call().post(`/api/machines/${crypto.randomUUID()}/editions`).send({}).expect(404);
  const { format, formatVersion, identity } = record();
  const half = await create({ format, formatVersion, identity });
  await call().post(`/api/machines/${half.id}/editions`).send({}).expect(409);
});
