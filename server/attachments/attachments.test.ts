import { existsSync, readdirSync, writeFileSync, mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { deflateSync } from 'node:zlib';
import sharp from 'sharp';
import { asBytes } from '../test-support/asBytes';
import { testServer } from '../test-support/testServer';
import { createFileFolder } from './fileFolder';
import { typeByContent } from './imageWork';

const { call, create, db } = testServer();

const plain = (width = 64, height = 48) =>
  sharp({ create: { width, height, channels: 3, background: '#e8e2d0' } });
const jpeg = () => plain().jpeg().toBuffer();
const send = (id: string, bytes: Uint8Array, query = 'name=bottom.jpg') =>
  call()
    .post(`/api/machines/${id}/attachments?${query}`)
    .set('Content-Type', 'application/octet-stream')
    .send(Buffer.from(bytes));
const bytesOf = async (url: string): Promise<Buffer> =>
  (await call().get(url).buffer(true).parse(asBytes).expect(200)).body as Buffer;
const pixel = async (bytes: Buffer, x: number, y: number) => {
  const { data, info } = await sharp(bytes)
    .removeAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  return [...data.subarray((y * info.width + x) * 3, (y * info.width + x) * 3 + 3)];
};
const facts = (a: Record<string, unknown>, change: object) => {
  const { path, name, caption, covers, exported } = a;
  return { path, name, caption, covers, exported, ...change };
};

test('a photo keeps its time, loses its place, and stands upright', async () => {
  const { id } = await create();
  const taken = await plain(60, 40)
    .jpeg()
    .withMetadata({ orientation: 6 })
    .withExifMerge({
      IFD0: { Make: 'Invented' },
      IFD2: { DateTimeOriginal: '2026:03:02 10:11:12' },
      IFD3: { GPSLatitudeRef: 'N', GPSLatitude: '51/1 3/1 0/1' },
    })
    .toBuffer();
  expect((await sharp(taken).metadata()).exif).toBeDefined();
  expect(taken.includes('Invented')).toBe(true);
  const { body } = await send(id, taken, 'name=bottom.jpg&path=fans.fan').expect(201);
  expect(body).toMatchObject({
    type: 'image/jpeg',
    path: 'fans.fan',
    takenAt: '2026-03-02T10:11:12',
    exported: true,
    widthPx: 40,
    heightPx: 60,
  });
  const kept = await bytesOf(`/api/machines/${id}/attachments/${body.id}/content`);
  expect((await sharp(kept).metadata()).exif).toBeUndefined();
  expect(kept.includes('Invented')).toBe(false);
  expect(kept.length).toBe(body.bytes);
});

test.each(['jpeg', 'png', 'webp'] as const)(
  '%s: boxes are burned into copies and small pictures, not into the kept photo',
  async (kind) => {
    const { id } = await create();
    const photo = await plain(400, 300)[kind]().toBuffer();
    const { body } = await send(id, photo, `name=label.${kind}`).expect(201);
    const url = `/api/machines/${id}/attachments/${body.id}`;
    const before = await bytesOf(`${url}/small`);
    const change = facts(body, { covers: [[0.25, 0.25, 0.5, 0.5]], caption: 'label' });
    const changed = await call().put(url).set('If-Match', '"1"').send(change).expect(200);
    expect(changed.body).toMatchObject({ revision: 2, caption: 'label' });
    const copy = await bytesOf(`${url}/copy`);
    const near = (rgb: number[], to: number[]) => rgb.every((v, i) => Math.abs(v - to[i]!) < 12);
    expect(near(await pixel(copy, 200, 150), [20, 32, 27])).toBe(true);
    expect(near(await pixel(copy, 104, 80), [20, 32, 27])).toBe(true);
    expect(near(await pixel(copy, 90, 60), [232, 226, 208])).toBe(true);
    expect(near(await pixel(await bytesOf(`${url}/content`), 200, 150), [232, 226, 208])).toBe(
      true,
    );
    const small = await bytesOf(`${url}/small?boxes=1`);
    expect(near(await pixel(small, 180, 135), [20, 32, 27])).toBe(true);
    expect(near(await pixel(before, 180, 135), [232, 226, 208])).toBe(true);
  },
);

test('a box between pixels covers every pixel that it touches, and no other', async () => {
  const { id } = await create();
  const { body } = await send(id, await plain(100, 100).png().toBuffer(), 'name=l.png').expect(201);
  const url = `/api/machines/${id}/attachments/${body.id}`;
  // from 10.6 to 19.4 pixels across, from 30.6 to 39.4 down
  const covers = [[0.106, 0.306, 0.088, 0.088]];
  await call().put(url).set('If-Match', '"1"').send(facts(body, { covers })).expect(200);
  const copy = await bytesOf(`${url}/copy`);
  for (const [x, y] of [
    [10, 30],
    [19, 30],
    [10, 39],
    [19, 39],
  ] as const) {
    expect(await pixel(copy, x, y)).toEqual([20, 32, 27]);
  }
  for (const [x, y] of [
    [9, 35],
    [20, 35],
    [15, 29],
    [15, 40],
  ] as const) {
    expect(await pixel(copy, x, y)).toEqual([232, 226, 208]);
  }
});

test('a paper is taken, stays out of exports until said otherwise, and takes no boxes', async () => {
  const { id } = await create();
  const { body } = await send(
    id,
    Buffer.from('%PDF-1.4\nservice sheet\n%%EOF\n'),
    'name=sheet.pdf',
  ).expect(201);
  expect(body).toMatchObject({ type: 'application/pdf', exported: false, widthPx: null });
  const url = `/api/machines/${id}/attachments/${body.id}`;
  await call()
    .put(url)
    .set('If-Match', '"1"')
    .send(facts(body, { covers: [[0, 0, 1, 1]] }))
    .expect(422);
  await call()
    .put(url)
    .set('If-Match', '"1"')
    .send(facts(body, { exported: true }))
    .expect(200);
  const open = await call().get(`${url}/content`).expect(200);
  expect(open.headers['content-type']).toBe('application/pdf');
  expect(open.headers['x-content-type-options']).toBe('nosniff');
  await call().get(`${url}/small`).expect(404);
});

/** A PNG of one colour whose header says how large it is; nothing of it has to be drawn to know. */
const hugePng = (width: number, height: number) => {
  const crcTable = Array.from({ length: 256 }, (_, n) => {
    let c = n;
    for (let k = 0; k < 8; k++) c = c & 1 ? 0xedb88320 ^ (c >>> 1) : c >>> 1;
    return c >>> 0;
  });
  const chunk = (type: string, data: Buffer) => {
    const body = Buffer.concat([Buffer.from(type), data]);
    let crc = 0xffffffff;
    for (const b of body) crc = crcTable[(crc ^ b) & 255]! ^ (crc >>> 8);
    const head = Buffer.alloc(4);
    const tail = Buffer.alloc(4);
    head.writeUInt32BE(data.length);
    tail.writeUInt32BE((crc ^ 0xffffffff) >>> 0);
    return Buffer.concat([head, body, tail]);
  };
  const ihdr = Buffer.alloc(13);
  ihdr.writeUInt32BE(width, 0);
  ihdr.writeUInt32BE(height, 4);
  ihdr.set([1, 0, 0, 0, 0], 8);
  const rows = Buffer.alloc(height * (1 + Math.ceil(width / 8)));
  return Buffer.concat([
    Buffer.from('\x89PNG\r\n\x1a\n', 'latin1'),
    chunk('IHDR', ihdr),
    chunk('IDAT', deflateSync(rows)),
    chunk('IEND', Buffer.alloc(0)),
  ]);
};

test('what lies just outside each bound is refused with words', async () => {
  const { id } = await create();
  const photo = await jpeg();
  const large = await send(id, Buffer.concat([photo, Buffer.alloc(26 * 1024 * 1024)]));
  expect(large.status).toBe(413);
  expect(large.body.detail).toMatch(/25 MB/);
  const text = await send(id, Buffer.from('Dear colleague, this is no picture.'), 'name=photo.png');
  expect(text.status).toBe(415);
  expect(text.body.detail).toMatch(/by its content/);
  const drawing = await send(
    id,
    Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"><script/></svg>'),
  );
  expect(drawing.status).toBe(415);
  const half = await send(id, photo.subarray(0, photo.length / 2));
  expect(half.status).toBe(422);
  expect(half.body.detail).toMatch(/broken/);
  expect((await send(id, Buffer.alloc(0)).expect(422)).body.detail).toMatch(/empty/);
  const many = await send(id, hugePng(10_000, 6001));
  expect(many.status).toBe(422);
  expect(many.body.detail).toMatch(/60 megapixels|at most 60/);
  await send(id, hugePng(10_000, 6000), 'name=wide.png').expect(201);
  await send(id, photo, `name=${'x'.repeat(201)}`).expect(400);
  await send('00000000-0000-4000-8000-000000000000', photo).expect(404);
  await call().get('/api/machines/00000000-0000-4000-8000-000000000000/attachments').expect(404);
  expect((await call().get(`/api/machines/${id}/attachments`)).body.total).toBe(1);
});

test.each([[[0.5, 0.5, 0.6, 0.1]], [[0, 0, 0, 0.1]], [[-0.1, 0, 0.5, 0.5]], [[0, 0, 1]]])(
  'a box that is none, %j, is refused at its place',
  async (box) => {
    const { id } = await create();
    const { body } = await send(id, await jpeg()).expect(201);
    const answer = await call()
      .put(`/api/machines/${id}/attachments/${body.id}`)
      .set('If-Match', '"1"')
      .send(facts(body, { covers: [box] }));
    expect(answer.status).toBe(400);
    expect(answer.body.errors[0].path).toMatch(/^covers\.0/);
  },
);

test('names in emoji, right-to-left and scripts come back as they were; paths in them lead nowhere', async () => {
  const { id } = await create();
  for (const name of [
    'Fan 😀.jpg',
    'מאוורר.jpg',
    '<script>alert(1)</script>.jpg',
    '../../etc/passwd',
  ]) {
    const { body } = await send(id, await jpeg(), `name=${encodeURIComponent(name)}`).expect(201);
    expect(body.name).toBe(name);
    const copy = await call().get(`/api/machines/${id}/attachments/${body.id}/copy`).expect(200);
    expect(copy.headers['content-disposition']).not.toMatch(/[<>]|\.\./);
  }
});

test('of two windows the later one is told; put aside and brought back', async () => {
  const { id } = await create();
  const { body } = await send(id, await jpeg()).expect(201);
  const url = `/api/machines/${id}/attachments/${body.id}`;
  await call().put(url).send(facts(body, {})).expect(428);
  await call()
    .put(url)
    .set('If-Match', '"1"')
    .send(facts(body, { caption: 'first' }))
    .expect(200);
  const late = await call()
    .put(url)
    .set('If-Match', '"1"')
    .send(facts(body, { caption: 'second' }));
  expect(late.status).toBe(412);
  expect(late.body.current).toMatchObject({ caption: 'first', revision: 2 });
  await call().post(`${url}/put-aside`).expect(428);
  await call().post(`${url}/put-aside`).set('If-Match', '"2"').expect(200);
  expect((await call().get(`/api/machines/${id}/attachments`)).body.total).toBe(0);
  expect((await call().get(`/api/machines/${id}/attachments?aside=1`)).body.total).toBe(1);
  await call().post(`${url}/bring-back`).set('If-Match', '"2"').expect(412);
  await call().post(`${url}/bring-back`).set('If-Match', '"3"').expect(200);
  expect((await call().get(`/api/machines/${id}/attachments`)).body.items[0].caption).toBe('first');
  // a photo of one machine is none of another’s
  const other = await create();
  await call().get(`/api/machines/${other.id}/attachments/${body.id}/content`).expect(404);
});

test('the same bytes lie in the folder once; what was left half written goes, the rest stays', async () => {
  const { id } = await create();
  const photo = await jpeg();
  const [a, b] = [(await send(id, photo)).body, (await send(id, photo)).body];
  expect(a.sha256).toBe(b.sha256);
  const folder = join(db().folder, 'files', a.sha256.slice(0, 2));
  expect(readdirSync(folder)).toEqual([a.sha256]);
  mkdirSync(join(db().folder, 'thumbnails'), { recursive: true });
  writeFileSync(join(folder, '.half'), 'half');
  await createFileFolder(db().folder).tidy();
  expect(readdirSync(folder)).toEqual([a.sha256]);
  expect(existsSync(join(folder, a.sha256))).toBe(true);
});

test('kinds are told by content alone', () => {
  expect(typeByContent(Buffer.from('RIFF\0\0\0\0WEBPVP8 '))).toBe('image/webp');
  expect(typeByContent(Buffer.from('RIFF\0\0\0\0WAVEfmt '))).toBeNull();
  expect(typeByContent(Buffer.from('GIF89a, and more bytes'))).toBeNull();
  expect(typeByContent(Buffer.from('%PDF'))).toBeNull();
});

test('what is sent twice under one id is taken once; an id of another machine is refused', async () => {
  const { id } = await create();
  const other = await create();
  const own = '0b7c9d1e-1111-4222-8333-444455556666';
  const first = await send(id, await jpeg(), `name=a.jpg&id=${own}`).expect(201);
  expect(first.body.id).toBe(own);
  const again = await send(id, await jpeg(), `name=a.jpg&id=${own}`).expect(200);
  expect(again.body).toEqual(first.body);
  expect(await db().models.Attachment.count()).toBe(1);
  await send(other.id, await jpeg(), `name=a.jpg&id=${own}`).expect(409);
  await send(id, await jpeg(), 'name=a.jpg&id=mine').expect(400);
});

test('the same photo sent ten times at once is one photo and ten answers', async () => {
  const { id } = await create();
  const bytes = await jpeg();
  const answers = await Promise.all(Array.from({ length: 10 }, () => send(id, bytes).expect(201)));
  expect(new Set(answers.map((a) => a.body.id)).size).toBe(1);
  expect((await call().get(`/api/machines/${id}/attachments`)).body.total).toBe(1);
  // sent once more later it is another one
  await send(id, bytes).expect(201);
  expect((await call().get(`/api/machines/${id}/attachments`)).body.total).toBe(2);
});

test('a picture as long as a street is refused, one longer than a packed picture may be is covered all the same', async () => {
  const { id } = await create();
  const long = await plain(40_000, 2).png().toBuffer();
  const refused = await send(id, long, 'name=a.png').expect(422);
  expect(refused.body.detail).toMatch(/40000 × 2 px/);
  const wide = await plain(17_000, 40).png().toBuffer();
  const { body } = await send(id, wide, 'name=a.png').expect(201);
  const url = `/api/machines/${id}/attachments/${body.id}`;
  await call()
    .put(url)
    .set('If-Match', '"1"')
    .send(facts(body, { covers: [[0, 0, 0.5, 1]] }))
    .expect(200);
  const small = await bytesOf(`${url}/small`);
  const { width } = await sharp(small).metadata();
  // hidden in the small picture too
  expect((await pixel(small, Math.floor(width! * 0.25), 0))[0]).toBeLessThan(60);
  expect((await pixel(small, Math.floor(width! * 0.75), 0))[0]).toBeGreaterThan(180);
});
