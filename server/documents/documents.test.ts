import { LABORATORY } from '@zugluft/core/documents/kinds';
import sharp from 'sharp';
import { newRun } from '../test-support/newRun';
import { testServer } from '../test-support/testServer';

const { call, create, record } = testServer();
const put = (url: string, seen: number, value: unknown) =>
  call().put(url).set('If-Match', `"${seen}"`).send({ value });

const picture = () =>
  sharp({ create: { width: 40, height: 30, channels: 3, background: '#cba' } })
    .png()
    .toBuffer();
const facts = { path: '', name: 'inside.png', caption: '', covers: [], exported: true };
const log = { format: 'zugluft-openup', formatVersion: 1 };

/** One document of each kind, as somebody would first find it, and another value for it. */
async function oneOfEach() {
  const machine = await create();
  const photo = (
    await call()
      .post(`/api/machines/${machine.id}/attachments?name=inside.png`)
      .set('Content-Type', 'application/octet-stream')
      .send(await picture())
      .expect(201)
  ).body;
  const run = (await call().post(`/api/machines/${machine.id}/runs`).send(newRun()).expect(201))
    .body;
  const settings = (await call().get(`/api/documents/settings/${LABORATORY}`)).body.value;
  const entry = { value: 1, low: 0.8, high: 1.2, note: '', since: '2026-11-01T10:00:00.000Z' };
  return [
    ['record', machine.id, { ...record(), extra: 'changed' }],
    ['log', machine.id, { ...log, note: 'opened' }],
    ['unit', machine.unit.id, { serial: 'FS-9' }],
    ['photo', photo.id, { ...facts, caption: 'the left fan' }],
    [
      'marks',
      photo.id,
      {
        references: [],
        marks: [
          {
            id: 'a',
            mark: {
              kind: 'length',
              points: [
                [1, 1],
                [2, 1],
              ],
            },
            figure: null,
          },
        ],
      },
    ],
    ['run', run.id, { ...run.run, firmware: '1.05' }],
    [
      'plans',
      machine.id,
      { format: 'zugluft-plans', formatVersion: 1, plans: [], note: 'none yet' },
    ],
    [
      'article',
      machine.id,
      { format: 'zugluft-article', formatVersion: 1, lead: 'Quiet, *mostly*.' },
    ],
    [
      'guesses',
      machine.id,
      {
        format: 'zugluft-guesses',
        formatVersion: 1,
        guesses: [{ id: 'a', by: 'Mara', at: '2026-11-01T10:00:00.000Z', cap: 36, watts: 80 }],
      },
    ],
    ['settings', LABORATORY, { ...settings, caps: { levelsDbA: [30] } }],
    ['defaults', LABORATORY, { 'fans.psi': entry }],
    ['day', LABORATORY, { format: 'zugluft-day', formatVersion: 1, hands: 2, acts: [] }],
  ] as const;
}

test('every kind is read, written, refused without a lock, kept with its history and stepped back by the same routes', async () => {
  const kinds = (await call().get('/api/documents').expect(200)).body.items;
  const all = await oneOfEach();
  expect(kinds.map((k: { kind: string }) => k.kind)).toEqual(all.map(([kind]) => kind));
  for (const [kind, id, value] of all) {
    const url = `/api/documents/${kind}/${id}`;
    const first = await call().get(url).expect(200);
    const seen = first.body.revision as number;
    expect(first.headers['etag']).toBe(`"${seen}"`);
    await call().put(url).send({ value }).expect(428);
    await put(url, seen + 7, value).expect(412);
    const changed = await put(url, seen, value).expect(200);
    expect(changed.body).toMatchObject({ kind, id, revision: seen + 1 });
    const history = (await call().get(`${url}/revisions`).expect(200)).body;
    expect(history.items[0]).toMatchObject({ revision: seen + 1, note: '' });
    expect((await call().get(`${url}/revisions/${seen + 1}`)).body.value).toEqual(
      changed.body.value,
    );
    // on to something else and back
    await put(url, seen + 1, first.body.value).expect(200);
    await call()
      .post(`${url}/revisions/${seen + 1}/restore`)
      .expect(428);
    await call()
      .post(`${url}/revisions/${seen + 1}/restore`)
      .set('If-Match', `"${seen + 1}"`)
      .expect(412);
    const back = await call()
      .post(`${url}/revisions/${seen + 1}/restore`)
      .set('If-Match', `"${seen + 2}"`)
      .expect(200);
    expect(back.body).toMatchObject({ revision: seen + 3, value: changed.body.value });
    const [newest] = (await call().get(`${url}/revisions`)).body.items;
    expect(newest.note).toBe(`stepped back to revision ${seen + 1}`);
    await call().get(`${url}/revisions/99`).expect(404);
  }
});

test('its own address and the one for every kind show the same document', async () => {
  const { id, unit } = await create();
  await put(`/api/documents/unit/${unit.id}`, 1, { serial: 'FS-9' }).expect(200);
  expect((await call().get(`/api/machines/${id}`)).body.unit).toEqual({
    id: unit.id,
    revision: 2,
    facts: { serial: 'FS-9' },
  });
  await put(`/api/documents/log/${id}`, 0, { ...log, note: 'opened' }).expect(200);
  expect((await call().get(`/api/machines/${id}/log`)).body).toMatchObject({
    revision: 1,
    log: { note: 'opened' },
  });
});

test('who saw an older version is shown both, and the figures that differ', async () => {
  const made = await create();
  const url = `/api/machines/${made.id}`;
  const send = (seen: number, change: (r: ReturnType<typeof record>) => void) => {
    const r = structuredClone(made.record);
    change(r);
    return call().put(url).set('If-Match', `"${seen}"`).send({ record: r });
  };
  await send(1, (r) => (r.shell.massKg = 2.5)).expect(200);
  const stale = (await send(1, (r) => (r.finStacks[0].depthMm = 33)).expect(412)).body;
  expect(stale.current).toMatchObject({ id: made.id, revision: 2 });
  expect(stale.theirs).toMatchObject({ revision: 2, value: { shell: { massKg: 2.5 } } });
  expect(stale.seen).toEqual({ revision: 1, value: made.record });
  expect(stale.differs.map((d: { path: string }) => d.path).sort()).toEqual([
    expect.stringMatching(/^finStacks\..*\.depthMm$/),
    'shell.massKg',
  ]);
  // a revision that never was
  expect((await send(40, () => undefined).expect(412)).body.seen).toBeNull();
});

test('a write whose answer was lost is taken once and answered as its own', async () => {
  const { id } = await create();
  const url = `/api/documents/log/${id}`;
  const write = (seen: number, note: string, key?: string) => {
    const r = put(url, seen, { ...log, note });
    return key ? r.set('Idempotency-Key', key) : r;
  };
  await write(0, 'mine', 'write-0001').expect(200);
  const again = await write(0, 'mine', 'write-0001').expect(200);
  expect(again.body).toMatchObject({ revision: 1, value: { note: 'mine' } });
  // somebody else's write of the same words is not one's own
  await write(0, 'mine', 'write-0002').expect(412);
  // somebody wrote on top of it meanwhile: it has arrived, and what stands there now is told
  await write(1, 'theirs').expect(200);
  expect((await write(0, 'mine', 'write-0001').expect(200)).body).toMatchObject({
    revision: 2,
    value: { note: 'theirs' },
  });
  await write(2, 'x', 'no spaces').expect(400);
});

test('putting aside and bringing back are revisions of their own; only some kinds can be', async () => {
  const made = await create();
  const url = `/api/documents/record/${made.id}`;
  await call().post(`${url}/put-aside`).expect(428);
  const aside = await call().post(`${url}/put-aside`).set('If-Match', '"1"').expect(200);
  expect(aside.body.putAsideAt).not.toBeNull();
  expect((await call().get('/api/machines')).body.total).toBe(0);
  const back = await call().post(`${url}/bring-back`).set('If-Match', '"2"').expect(200);
  expect(back.body).toMatchObject({ revision: 3, putAsideAt: null, value: made.record });
  const { items } = (await call().get(`${url}/revisions`)).body;
  expect(items.map((r: { note: string; putAside: boolean }) => [r.note, r.putAside])).toEqual([
    ['brought back', false],
    ['put aside', true],
    ['', false],
  ]);
  await call().post(`/api/documents/log/${made.id}/put-aside`).set('If-Match', '"0"').expect(405);
});

test('what cannot be is refused with its place, and unknown kinds, ids and bodies too', async () => {
  const { id, unit } = await create();
  const wrong = await put(`/api/documents/record/${id}`, 1, {
    ...record(),
    finStacks: [{ id: 'a', depthMm: -4 }],
  }).expect(422);
  expect(wrong.body.errors[0].path).toBe('value.finStacks.0.depthMm');
  const long = await put(`/api/documents/unit/${unit.id}`, 1, { serial: 'x'.repeat(81) });
  expect(long.status).toBe(400);
  expect(long.body.errors[0].path).toBe('value.serial');
  const nobody = '00000000-0000-4000-8000-000000000000';
  for (const kind of ['record', 'log', 'unit', 'photo', 'settings', 'defaults']) {
    await call().get(`/api/documents/${kind}/${nobody}`).expect(404);
    await call().get(`/api/documents/${kind}/${nobody}/revisions`).expect(404);
  }
  await call().get(`/api/documents/dream/${id}`).expect(400);
  await call().get('/api/documents/record/a%20b').expect(400);
  await call().put(`/api/documents/log/${id}`).set('If-Match', '"0"').send({}).expect(400);
  await call()
    .put(`/api/documents/log/${id}`)
    .set('If-Match', '7')
    .send({ value: log })
    .expect(428);
});

test('a document goes out as a file of its own without what stays here', async () => {
  const { id, unit } = await create();
  await put(`/api/documents/unit/${unit.id}`, 1, { serial: 'FS-9', source: 'lent' }).expect(200);
  const file = await call().get(`/api/documents/unit/${unit.id}/export`).expect(200);
  expect(file.headers['content-disposition']).toMatch(/attachment/);
  expect(file.body).toEqual({ source: 'lent' });
  expect((await call().get(`/api/documents/record/${id}/export`)).body).toEqual(record());
  await call().get(`/api/documents/settings/${LABORATORY}/export`).expect(405);
});

test('boxes over a paper are refused by every address', async () => {
  const { id } = await create();
  const paper = (
    await call()
      .post(`/api/machines/${id}/attachments?name=sheet.pdf`)
      .set('Content-Type', 'application/octet-stream')
      .send(Buffer.from('%PDF-1.4\n%%EOF\n'))
      .expect(201)
  ).body;
  const covered = { ...facts, name: 'sheet.pdf', covers: [[0, 0, 0.5, 0.5]] };
  await put(`/api/documents/photo/${paper.id}`, 1, covered).expect(422);
});

test('photos of a part follow its new name, each with a revision that says so', async () => {
  const machine = await create();
  const [fan] = machine.record.fans;
  const add = async (path: string) =>
    (
      await call()
        .post(`/api/machines/${machine.id}/attachments?name=a.png&path=${path}`)
        .set('Content-Type', 'application/octet-stream')
        .send(await picture())
        .expect(201)
    ).body.id as string;
  const ids = [await add(`fans.${fan.id}`), await add(`fans.${fan.id}.maxRpm`), await add('')];
  const renamed = JSON.parse(
    JSON.stringify(machine.record).replaceAll(`"${fan.id}"`, '"fan-left"'),
  ) as unknown;
  await put(`/api/documents/record/${machine.id}`, 1, renamed).expect(200);
  const { items } = (await call().get(`/api/machines/${machine.id}/attachments`)).body;
  expect(items.map((a: { path: string }) => a.path)).toEqual([
    'fans.fan-left',
    'fans.fan-left.maxRpm',
    '',
  ]);
  const history = (await call().get(`/api/documents/photo/${ids[0]}/revisions`)).body.items;
  expect(history[0].note).toBe(`“${fan.id}” is now called “fan-left”`);
});
