import { NO_MARKS, type PhotoMarks } from '@zugluft/core/photo/photoMarks';
import sharp from 'sharp';
import { testServer } from '../test-support/testServer';
import { TILE_PX } from './pictureJobs';

const { call, create } = testServer();

/** A light strip of 100 px on black, from x = 300 on, all the way down; 1 px is 0.1 mm. */
const strip = () =>
  sharp({ create: { width: 1200, height: 700, channels: 3, background: '#000' } }).composite([
    {
      input: { create: { width: 100, height: 700, channels: 3, background: '#fff' } },
      left: 300,
      top: 0,
    },
  ]);
const add = async (id: string, bytes: Buffer) =>
  (
    await call()
      .post(`/api/machines/${id}/attachments?name=top.jpg`)
      .set('Content-Type', 'application/octet-stream')
      .send(bytes)
      .expect(201)
  ).body as { id: string; focalPx: number | null };
const RULER = {
  id: 'r',
  what: 'ruler',
  item: {
    kind: 'length' as const,
    from: [100, 600] as [number, number],
    to: [1100, 600] as [number, number],
    mm: 100,
  },
};
const MARKS: PhotoMarks = {
  references: [RULER],
  marks: [
    {
      id: 'wide',
      mark: {
        kind: 'strip',
        points: [
          [296, 300],
          [404, 300],
        ],
      },
      figure: 'heatPipes.pipe.flattenedWidthMm',
    },
    {
      id: 'long',
      mark: {
        kind: 'length',
        points: [
          [100, 100],
          [600, 100],
        ],
      },
      figure: null,
    },
  ],
};
const measure = (machine: string, photo: string, marks: unknown) =>
  call()
    .post(`/api/machines/${machine}/attachments/${photo}/measures`)
    .send(marks as object);

test('a photo keeps what the camera wrote of its lens, and is measured with its light', async () => {
  const { id } = await create();
  const bytes = await strip()
    .jpeg({ quality: 95 })
    .withExifMerge({ IFD2: { FocalLengthIn35mmFilm: '26' } })
    .toBuffer();
  const photo = await add(id, bytes);
  expect(photo.focalPx).toBeCloseTo((26 / 43.27) * Math.hypot(1200, 700), 3);
  const { body } = await measure(id, photo.id, MARKS).expect(200);
  expect(body.faults).toEqual([]);
  expect(body.scale.mmPerPx).toBeCloseTo(0.1, 6);
  expect(body.marks[0].value).toBeCloseTo(10, 1);
  expect(body.marks[1]).toMatchObject({ id: 'long', unit: 'mm' });
  expect(body.marks[1].value).toBeCloseTo(50, 6);
});

test('what is wrong with one mark holds up no other; without anything of known size there are no millimetres', async () => {
  const { id } = await create();
  const photo = await add(id, await strip().jpeg().toBuffer());
  const far = {
    id: 'far',
    mark: {
      kind: 'length',
      points: [
        [1, 1],
        [5000, 1],
      ],
    },
    figure: null,
  };
  const { body } = await measure(id, photo.id, { ...MARKS, marks: [far, ...MARKS.marks] });
  expect(body.faults).toEqual([
    {
      path: 'marks.0.mark.points.1',
      message: '(5000, 1) lies outside the picture of 1200 × 700 px',
    },
  ]);
  expect(body.marks.map((m: { value: number | null }) => m.value === null)).toEqual([
    true,
    false,
    false,
  ]);
  const none = (await measure(id, photo.id, { ...MARKS, references: [] }).expect(200)).body;
  expect(none.scale).toBeNull();
  expect(none.marks.every((m: { value: number | null }) => m.value === null)).toBe(true);
  await measure(id, photo.id, {
    ...MARKS,
    marks: [{ ...far, mark: { ...far.mark, kind: 'odd' } }],
  }).expect(400);
});

test('pieces at full size, as far as the photo reaches; a picture that fits a screen', async () => {
  const { id } = await create();
  const photo = await add(id, await strip().png().toBuffer());
  const at = `/api/machines/${id}/attachments/${photo.id}`;
  const piece = async (path: string) =>
    sharp((await call().get(`${at}/${path}`).buffer(true).expect(200)).body as Buffer)
      .raw()
      .toBuffer({ resolveWithObject: true });
  const first = await piece('tiles/0/0');
  expect(first.info).toMatchObject({ width: TILE_PX, height: TILE_PX });
  const grey = (x: number) => first.data[(10 * TILE_PX + x) * first.info.channels]!;
  expect([grey(290) < 30, grey(350) > 225, grey(410) < 30]).toEqual([true, true, true]);
  expect((await piece('tiles/2/1')).info).toMatchObject({ width: 1200 - 1024, height: 700 - 512 });
  await call().get(`${at}/tiles/3/0`).expect(404);
  await call().get(`${at}/tiles/-1/0`).expect(400);
  expect((await piece('view')).info).toMatchObject({ width: 1200, height: 700 });
});

test('a paper is not measured, and marks belong to a photo that is there', async () => {
  const { id } = await create();
  const paper = await add(id, Buffer.from('%PDF-1.4 a sheet'));
  await measure(id, paper.id, NO_MARKS).expect(422);
  const put = (photo: string) =>
    call().put(`/api/documents/marks/${photo}`).set('If-Match', '"0"').send({ value: NO_MARKS });
  await put(paper.id).expect(422);
  await put('5d0d6d0e-0000-4000-8000-000000000000').expect(404);
});

test('marks follow the new name of the part that they measure', async () => {
  const made = await create();
  const photo = await add(made.id, await strip().jpeg().toBuffer());
  const [pipe] = made.record.heatPipes as { id: string }[];
  const value = {
    ...MARKS,
    marks: MARKS.marks.map((m) => ({
      ...m,
      figure: m.figure && `heatPipes.${pipe!.id}.flattenedWidthMm`,
    })),
  };
  await call()
    .put(`/api/documents/marks/${photo.id}`)
    .set('If-Match', '"0"')
    .send({ value })
    .expect(200);
  const text = JSON.stringify(made.record).replaceAll(`"${pipe!.id}"`, '"pipe-new"');
  await call()
    .put(`/api/machines/${made.id}`)
    .set('If-Match', '"1"')
    .send({ record: JSON.parse(text) })
    .expect(200);
  const { body } = await call().get(`/api/documents/marks/${photo.id}`).expect(200);
  expect(body.revision).toBe(2);
  expect(body.value.marks.map((m: { figure: string | null }) => m.figure)).toEqual([
    'heatPipes.pipe-new.flattenedWidthMm',
    null,
  ]);
});
