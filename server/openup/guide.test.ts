import { unzipSync, strFromU8 } from 'fflate';
import sharp from 'sharp';
import { asBytes } from '../test-support/asBytes';
import { testServer } from '../test-support/testServer';

const { call, create } = testServer();
const log = {
  format: 'zugluft-openup',
  formatVersion: 1,
  steps: [
    { id: 'cover', name: 'Base cover off', act: 'cover', state: 'done' },
    {
      id: 'bat',
      name: 'Battery plug out',
      needs: ['cover'],
      reaches: ['battery-off'],
      state: 'done',
    },
    { id: 'fan', name: 'Fan <out>', needs: ['bat'], state: 'done' },
  ],
};
const machine = async () => {
  const { id } = await create();
  await call().put(`/api/machines/${id}/log`).set('If-Match', '"0"').send({ log }).expect(200);
  return id as string;
};
const binary = (url: string) => call().get(url).buffer(true).parse(asBytes).expect(200);

test('a guide is one page, or Markdown with its photos; boxes are burned in and papers stay out', async () => {
  const id = await machine();
  const at = `/api/machines/${id}/attachments`;
  const add = async (bytes: Buffer, name: string) =>
    (
      await call()
        .post(`${at}?name=${name}&path=log.steps.cover`)
        .set('Content-Type', 'application/octet-stream')
        .send(bytes)
        .expect(201)
    ).body;
  const white = sharp({ create: { width: 80, height: 60, channels: 3, background: '#fff' } });
  const { id: photo, path, name, exported } = await add(await white.png().toBuffer(), 'a.png');
  await add(Buffer.from('%PDF-1.4 with a serial number'), 'sheet.pdf');
  await call()
    .put(`${at}/${photo}`)
    .set('If-Match', '"1"')
    .send({ path, name, exported, looked: true, caption: '', covers: [[0, 0, 0.5, 1]] })
    .expect(200);

  const page = await call().get(`/api/machines/${id}/guide.html`).expect(200);
  expect(page.headers['content-type']).toMatch(/^text\/html/);
  expect(page.headers['content-disposition']).toBeUndefined();
  expect(page.text).toMatch(/Fan &lt;out(&gt;|>)/);
  expect(page.text.match(/<img /g)).toHaveLength(1);
  const saved = await call()
    .get(`/api/machines/${id}/guide.html?save=1&goal=battery-off`)
    .expect(200);
  expect(saved.headers['content-disposition']).toMatch(/attachment; filename=.*battery-off\.html/);
  expect(saved.text).not.toMatch(/Fan &lt;out(&gt;|>)/);

  const files = unzipSync((await binary(`/api/machines/${id}/guide.zip`)).body as Buffer);
  expect(Object.keys(files).sort()).toEqual(['guide.md', 'photos/1.webp']);
  expect(strFromU8(files['guide.md']!)).toContain('](photos/1.webp)');
  const { data } = await sharp(files['photos/1.webp']!).removeAlpha().raw().toBuffer({
    resolveWithObject: true,
  });
  expect(data[0]!).toBeLessThan(60);
  expect(data[79 * 3]!).toBeGreaterThan(240);
});

test('a goal that no step reaches has no guide; nonsense is refused', async () => {
  const id = await machine();
  const none = await call().get(`/api/machines/${id}/guide.html?goal=board`).expect(404);
  expect(none.body.detail).toMatch(/no step/);
  await call().get(`/api/machines/${id}/guide.html?goal=moon`).expect(400);
  await call().get('/api/machines/00000000-0000-4000-8000-000000000000/guide.html').expect(404);
});

test('siblings of the same model whose opening was logged, this one and empty ones left out', async () => {
  const a = await machine();
  const b = (
    await call().post(`/api/machines/${a}/variants`).send({ name: 'with a chamber' }).expect(201)
  ).body;
  const siblings = async (id: string) =>
    (await call().get(`/api/machines/${id}/log/siblings`).expect(200)).body.items;
  expect(await siblings(b.id)).toMatchObject([{ id: a, steps: 3, screws: 0 }]);
  expect(await siblings(a)).toEqual([]);
  // what was put aside is no template
  const seen = (await call().get(`/api/machines/${a}`)).headers['etag']!;
  await call().post(`/api/machines/${a}/put-aside`).set('If-Match', seen).expect(200);
  expect(await siblings(b.id)).toEqual([]);
});
