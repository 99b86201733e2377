import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { unzipSync } from 'fflate';
import { asBytes } from '../test-support/asBytes';
import { testServer } from '../test-support/testServer';

jest.setTimeout(240_000);
const { call, create, record, settled, library } = testServer();

const binary = (url: string) => call().get(url).buffer(true).parse(asBytes);

test('a report in every form, of the record as it stands', async () => {
  const { id } = await create();
  await settled();
  const url = `/api/machines/${id}/report`;
  const page = await call()
    .get(`${url}?cap=36`)
    .expect(200)
    .expect('Content-Type', /text\/html/);
  expect(page.text).toContain('record revision 1');
  expect(page.text).toContain('Velmara Quill 14');
  expect(page.headers['content-disposition']).toBeUndefined();
  const pdf = await binary(`${url}?as=pdf&save=1&paper=LETTER`).expect(200);
  expect((pdf.body as Buffer).subarray(0, 5).toString()).toBe('%PDF-');
  expect(pdf.headers['content-disposition']).toMatch(/^attachment; filename=.*\.pdf$/);
  const zip = await binary(`${url}?as=md`).expect(200).expect('Content-Type', 'application/zip');
  const names = Object.keys(unzipSync(new Uint8Array(zip.body as Buffer)));
  expect(names.map((n) => n.replace(/^.*[.]/, '')).sort()).toEqual(['md', 'png', 'svg']);
  const data = (await call().get(`${url}?as=json&cap=32`).expect(200)).body;
  expect(data).toMatchObject({
    format: 'zugluft-report',
    cap: 32,
    trace: { record: 'revision 1', draws: 400, seed: 1 },
  });
  const csv = await call()
    .get(`${url}?as=csv`)
    .expect(200)
    .expect('Content-Type', /text\/csv/);
  expect(csv.text).toMatch(/^figure,cap/);
  const card = await binary(`${url}?as=card-png&size=800x450`).expect('Content-Type', 'image/png');
  expect((card.body as Buffer).subarray(1, 4).toString()).toBe('PNG');
  await call()
    .get(`${url}?as=svg`)
    .expect(200)
    .expect('Content-Type', /image\/svg/);
});

test('the laboratory’s caps and rubric are followed', async () => {
  const { id } = await create();
  await call()
    .put('/api/settings/caps')
    .set('If-Match', '"0"')
    .send({ levelsDbA: [30, 38] })
    .expect(200);
  const data = (await call().get(`/api/machines/${id}/report?as=json`).expect(200)).body;
  expect(data.at.map((a: { cap: number }) => a.cap)).toEqual([30, 38]);
  expect(data.cap).toBe(38);
});

test.each([
  ['as=docx', 'as'],
  ['cap=loud', 'cap'],
  ['cap=500', 'cap'],
  ['units=cubits', 'units'],
  ['paper=A0', 'paper'],
  ['size=9x9', 'size'],
  ['ratio=3:0', 'ratio'],
  ['ratio=many', 'ratio'],
  ['more=1', 'more'],
])('%s is refused at its field', async (query, path) => {
  const { id } = await create();
  const { body } = await call().get(`/api/machines/${id}/report?${query}`).expect(400);
  expect(body.errors[0].path).toBe(path);
});

test('a ratio that somebody chose is the report’s too', async () => {
  const file = join(__dirname, '../../examples/two-fan-shared-pipes.json');
  const { id } = await create(JSON.parse(readFileSync(file, 'utf8')));
  const data = (await call().get(`/api/machines/${id}/report?as=json&ratio=1:4`).expect(200)).body;
  for (const { cpuW, gpuW } of data.at) expect(gpuW / cpuW).toBeCloseTo(4, 6);
});

test('what the reviewer wrote stands in it, and nothing of it is markup', async () => {
  const { id } = await create();
  const url = `/api/documents/article/${id}`;
  const value = {
    format: 'zugluft-article',
    formatVersion: 1,
    lead: 'Quiet *for its size*. <script>alert(1)</script>',
  };
  await call().put(url).set('If-Match', '"0"').send({ value }).expect(200);
  const html = (await call().get(`/api/machines/${id}/report`).expect(200)).text;
  expect(html).toContain('Quiet <em>for its size</em>. &lt;script');
  expect(html).not.toContain('<script');
  const tooLong = { ...value, closing: 'x'.repeat(10_001) };
  const { body } = await call()
    .put(url)
    .set('If-Match', '"1"')
    .send({ value: tooLong })
    .expect(400);
  expect(body.errors[0]).toEqual({
    path: 'value.closing',
    message: 'must be at most 10,000 characters',
  });
});

test('what is not complete, or not there, has no report', async () => {
  const { format, formatVersion, identity } = record();
  const { id } = await create({ format, formatVersion, identity });
  const { body } = await call().get(`/api/machines/${id}/report`).expect(409);
  expect(body.detail).toContain('not complete');
  await call().get('/api/machines/00000000-0000-4000-8000-000000000000/report').expect(404);
  await call().get('/api/machines/nothing/report').expect(400);
  expect((await call().get(`/api/machines/${id}/peers`).expect(200)).body.peers).toBeNull();
});

test('peers are the machines of its kind that are in use, with the chance that each sustains more', async () => {
  const thin = record();
  const { id } = await create(thin);
  const named = (variant: string, change: object = {}) => ({
    ...thin,
    identity: { ...thin.identity, variant },
    ...change,
  });
  const warm = await create(
    named('warm room', { room: { ...thin.room, temperatureC: { value: 30, origin: 'measured' } } }),
  );
  // the others alone could tell what counting says, and none was run
  expect((await call().get(`/api/machines/${id}/peers`)).body.counted).toEqual({
    refused: true,
    machines: 0,
    needs: 12,
  });
  // the laboratory's own rule, which it changes
  const points = async () => (await call().get(`/api/machines/${id}/peers`)).body.points;
  const usual = await points();
  expect(usual).toMatchObject({ machines: 0, offShare: null });
  const { fans } = thin as { fans: unknown[] };
  const rule = { wattsPerFan: 100, wattsPerPipe: 0, wattsPer100Cm2: 0 };
  await call().put('/api/settings/points').set('If-Match', '"0"').send(rule).expect(200);
  expect((await points()).watts).toBe(100 * fans.length);
  await call()
    .put('/api/settings/points')
    .set('If-Match', '"1"')
    .send({ wattsPerFan: 0, wattsPerPipe: 0, wattsPer100Cm2: 0 })
    .expect(200);
  expect(await points()).toBeNull();
  await create(
    named('thick', { shell: { ...thin.shell, thicknessMm: { value: 40, origin: 'measured' } } }),
  );
  const aside = await create(named('put aside'));
  await call().post(`/api/machines/${aside.id}/put-aside`).set('If-Match', '"1"').expect(200);
  await settled();
  const url = `/api/machines/${id}/peers`;
  const { body } = await call().get(`${url}?cap=36`).expect(200);
  expect(body.cap).toBe(36);
  expect(body.peers.items.map((p: { id: string }) => p.id)).toEqual([id, warm.id]);
  expect(body.peers.rank.of).toBe(2);
  const [own, other] = body.peers.items;
  expect(own).toMatchObject({ isOwn: true, chance: null });
  expect(other.chance).toBeLessThan(0.5);
  // the middle of the laboratory’s caps where none is asked for
  expect((await call().get(url).expect(200)).body.cap).toBe(36);
  expect((await call().get(`${url}?cap=33`).expect(200)).body.peers).toBeNull();
  expect(await library().list.rows()).toHaveLength(4);
});
