import { readdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import type { ImportItem } from '@zugluft/core/library/answers';
import { strToU8, unzipSync, zipSync } from 'fflate';
import Papa from 'papaparse';
import pino from 'pino';
import sharp from 'sharp';
import request from 'supertest';
import { createApp } from '../app';
import { Problem } from '../security/problem';
import { testLibrary, testServer } from '../test-support/testServer';
import { createImporter } from './importPlan';
import { readImport } from './readImport';
import { receiveFile } from './receiveFile';

const { call, create, record, settled, db: library, library: whole } = testServer();
const example = (name: string) =>
  JSON.parse(readFileSync(join(__dirname, `../../examples/${name}.json`), 'utf8'));
const send = (bytes: Uint8Array | string, query = '') =>
  call()
    .post(`/api/exchange/import?name=file${query}`)
    .set('Content-Type', 'application/octet-stream')
    .send(Buffer.from(bytes as string));
const actions = async (bytes: Uint8Array | string, query = '') => {
  const { body } = await send(bytes, query).expect(200);
  return (body.items as { action: string; label: string; reasons: { message: string }[] }[]).map(
    (i) => i.action,
  );
};
const total = async () => (await call().get('/api/machines')).body.total as number;
const download = async (path: string): Promise<Buffer> => {
  const answer = await call()
    .get(path)
    .buffer(true)
    .parse((res, done) => {
      const chunks: Buffer[] = [];
      res.on('data', (c: Buffer) => chunks.push(c));
      res.on('end', () => done(null, Buffer.concat(chunks)));
    })
    .expect(200);
  return answer.body as Buffer;
};

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
  const importer = createImporter(db, machines, documents, attachments, opened.takeRun);
  const finder = { byId: async () => null, byName: async () => null };
  const received = await receiveFile(Readable.from([Buffer.from(zip)]), db.folder);
  const { candidates, close } = await readImport(received, 'zip', finder);
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

test('CSV goes out without formulas and changes machines when it comes back', async () => {
  const r = record();
  r.identity.variant = '=HYPERLINK("http://evil")';
  const made = await create(r);
  const text = (await download('/api/exchange/machines.csv')).toString();
  expect(text).toContain(`'=HYPERLINK`);
  expect(await actions(text)).toEqual(['same']);
  const rows = Papa.parse<Record<string, string>>(text.replace(/^\ufeff/, ''), { header: true });
  const changed = { ...rows.data[0]!, 'shell.thicknessMm': '15.2 ± 0.1 measured' };
  await send(Papa.unparse([changed]), '&apply=1').expect(200);
  const after = (await call().get(`/api/machines/${made.id}`)).body.record;
  expect(after.shell.thicknessMm).toEqual({ value: 15.2, plusMinus: 0.1, origin: 'measured' });
  expect(after.identity.variant).toBe(r.identity.variant);
  const parts = (await download('/api/exchange/parts.csv')).toString();
  expect(await actions(parts)).toEqual(['same']);
  // one figure of one part, as a spreadsheet would change it
  const cells = Papa.parse<Record<string, string>>(parts.replace(/^\ufeff/, ''), { header: true });
  const fan = cells.data.find((row) => row['list'] === 'fans')!;
  const faster = Papa.unparse([{ ...fan, maxRpm: '5400 label' }]);
  await send(faster, '&apply=1').expect(200);
  expect((await call().get(`/api/machines/${made.id}`)).body.record.fans[0].maxRpm).toEqual({
    value: 5400,
    origin: 'label',
  });
});

test('machines.csv tells the watts at the laboratory’s caps, follows them, and leaves blank what is not computed', async () => {
  await create();
  const row = async () =>
    Papa.parse<Record<string, string>>(
      (await download('/api/exchange/machines.csv')).toString().replace(/^\ufeff/, ''),
      { header: true },
    ).data[0]!;
  const columns = (r: Record<string, string>) => Object.keys(r).filter((k) => /^together/.test(k));
  expect(columns(await row()).length).toBeGreaterThan(0);
  await settled();
  const listed = (await call().get('/api/machines')).body.items[0];
  const told = await row();
  expect(columns(told)).toContain('togetherAt36W');
  for (const c of columns(told)) {
    expect(Number(told[c])).toBeCloseTo(listed[c], 2);
    // beside them what firmware and adapter leave
    const set = Number(told[c.replace('together', 'configured')]);
    expect(set).toBeGreaterThan(0);
    expect(set).toBeLessThanOrEqual(Number(told[c]) + 0.01);
  }
  await call()
    .put('/api/settings/caps')
    .set('If-Match', '"0"')
    .send({ levelsDbA: [31, 33.5] })
    .expect(200);
  const other = await row();
  expect(columns(other)).toEqual(
    expect.arrayContaining(['togetherAt31W', 'togetherAt33.5W', 'togetherOffW', 'togetherFullW']),
  );
  expect(columns(other)).not.toContain('togetherAt36W');
  await settled();
  expect(Number((await row())['togetherAt33.5W'])).toBeGreaterThan(0);
  // computed by an older program: not told as if it still held
  await library().sequelize.query("UPDATE machines SET wattsBy = 'older'");
  expect((await row())['togetherAt33.5W']).toBe('');
  // figures that are computed are not taken from a file
  expect(await actions((await download('/api/exchange/machines.csv')).toString())).toEqual([
    'same',
  ]);
});

test('machines.csv has the state as a column: untouched it changes nothing, changed it renames, new it names', async () => {
  const made = await create();
  await call()
    .put(`/api/machines/${made.id}/state-name`)
    .set('If-Match', '"1"')
    .send({ name: 'cleaned; =new paste' })
    .expect(200);
  const file = (await download('/api/exchange/machines.csv')).toString();
  expect(await actions(file)).toEqual(['same']);
  const semicolons = Papa.unparse(
    Papa.parse<Record<string, string>>(file.replace(/^\ufeff/, ''), { header: true }).data.slice(
      0,
      1,
    ),
    { delimiter: ';' },
  );
  expect(await actions(semicolons)).toEqual(['same']);
  const renamed = file.replace('cleaned; =new paste', 'five years old');
  expect(await actions(renamed)).toEqual(['changed']);
  await send(renamed, '&apply=1').expect(200);
  const now = (await call().get(`/api/machines/${made.id}`)).body;
  expect(now).toMatchObject({ stateName: 'five years old', revision: 3, record: made.record });
  const rows = Papa.parse<Record<string, string>>(file.replace(/^\ufeff/, ''), {
    header: true,
  }).data;
  const other = { ...rows[0]!, id: '', 'identity.variant': 'another', state: 'as sent in' };
  await send(Papa.unparse([other]), '&apply=1').expect(200);
  const list = (await call().get('/api/machines?q=another')).body.items;
  expect(list.map((m: { stateName: string }) => m.stateName)).toEqual(['as sent in']);
  const long = Papa.unparse([{ ...other, 'identity.variant': 'third', state: 'x'.repeat(81) }]);
  expect(await actions(long)).toEqual(['refused']);
});

test('a maker’s name in any script finds its family and comes in once', async () => {
  const first = record();
  Object.assign(first.identity, { maker: 'Ökobook', model: 'Ёлка 15', variant: 'Straße' });
  const { id } = await create(first);
  const again = structuredClone(first);
  Object.assign(again.identity, { maker: 'ÖKOBOOK', model: 'ёлка 15', variant: 'STRASSE' });
  expect(await actions(JSON.stringify(again))).toEqual(['changed']);
  again.identity.variant = 'another';
  await create(again);
  const { items } = (await call().get(`/api/machines/${id}/family`)).body;
  expect(items).toHaveLength(2);
});

test('a row without the library’s id changes the only machine of its name, and only in its columns', async () => {
  const made = await create(example('two-fan-shared-pipes'));
  const { maker, model, variant } = made.record.identity;
  const csv = Papa.unparse([
    {
      'identity.maker': maker,
      'identity.model': model,
      'identity.variant': variant,
      'shell.thicknessMm': '21',
    },
  ]);
  const { body } = await send(csv, '&apply=1').expect(200);
  expect(body.items[0]).toMatchObject({ action: 'changed', machineId: made.id, changed: 1 });
  const after = (await call().get(`/api/machines/${made.id}`)).body.record;
  expect(after).toEqual({ ...made.record, shell: { ...made.record.shell, thicknessMm: 21 } });
});

test('a file of which any row cannot be read is refused whole, by its line; a row that cannot be is refused alone', async () => {
  const head = 'identity.maker,identity.model,identity.variant,shell.widthMm';
  const refused = async (lines: string[]) => {
    const { body } = await send([head, ...lines, ''].join('\n'), '&apply=1').expect(422);
    return body.detail as string;
  };
  const good = 'Oslund,Drift 15,A,355';
  // an open quote swallows all that follows into one cell
  const open = await refused([good, 'Oslund,Drift 16,"B,356', good, good]);
  expect(open).toMatch(/line 3: a quote is opened and never closed\. Nothing of the file/);
  expect(await refused([good, 'Oslund,Drift 15'])).toMatch(/line 3: .*fewer columns/);
  expect(await refused(['Oslund,"Drift\n15",A,355', 'Oslund,Drift 15,A,355,1'])).toMatch(
    /line 4: .*more columns/,
  );
  expect(await refused(['Oslund,"Drift" 15,A,355'])).toMatch(/line 2: /);
  expect(await total()).toBe(0);
  // empty lines between rows are none
  expect(await actions([head, '', good, ',,,', ''].join('\n'))).toEqual(['new']);
  const wide = `${head}\nOslund,Drift 15,A,9000\nOslund,Drift 15,B,wide\nOslund,Drift 15,C,14 leagues\n${good}`;
  const two = (await send(wide, '&apply=1').expect(200)).body.items;
  expect(two[0].reasons[0]).toMatchObject({ path: 'shell.widthMm' });
  expect(two.map((i: { action: string }) => i.action)).toEqual([
    'refused',
    'refused',
    'refused',
    'new',
  ]);
  expect(await actions(`${head}\n${good}`, '&apply=1')).toEqual(['same']);
  expect(await total()).toBe(1);
});

test('one row of parts that cannot be taken refuses its machine, by its line, and no other', async () => {
  const [a, b] = [await create(), await create({ ...record(), identity: { model: 'other' } })];
  const parts = `id,list,part,depthMm\n${a.id},finStacks,x,20\n${b.id},finStacks,y,21\n${a.id},wheels,z,3\n${a.id},finStacks, ,22\n`;
  const { items } = (await send(parts, '&apply=1').expect(200)).body;
  expect(items.map((i: { action: string }) => i.action)).toEqual(['refused', 'changed']);
  expect(items[0].reasons).toEqual([
    { path: 'line 4', message: expect.stringMatching(/wheels/) },
    { path: 'line 5', message: expect.stringMatching(/no part/) },
  ]);
  expect((await call().get(`/api/machines/${a.id}`)).body.record).toEqual(a.record);
  const stacks = (await call().get(`/api/machines/${b.id}`)).body.record.finStacks;
  expect(stacks.find((s: { id: string }) => s.id === 'y')).toMatchObject({ depthMm: 21 });
});

test('a machine that somebody else changed meanwhile is named, and the others are taken', async () => {
  const { db, machines, documents, attachments, takeRun } = whole();
  const importer = createImporter(db, machines, documents, attachments, takeRun);
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

test('what is taken at one door is taken at every other, and what is too much is refused at each', async () => {
  const made = await create();
  const json = (r: ReturnType<ReturnType<typeof call>['post']>, text: string) =>
    r.set('Content-Type', 'application/json').send(text);
  const doors: Record<string, (text: string) => Promise<number>> = {
    post: async (r) => (await json(call().post('/api/machines'), `{"record":${r}}`)).status,
    put: async (r) =>
      (await json(call().put(`/api/machines/${made.id}`).set('If-Match', '"1"'), `{"record":${r}}`))
        .status,
    import: async (r) => {
      const { status, body } = await send(r, '&apply=1');
      return status === 200 && body.items[0].action !== 'refused' ? 200 : 400;
    },
  };
  const nested = (levels: number) => '['.repeat(levels) + ']'.repeat(levels);
  /** A record with more in it, as its text. */
  const grown = (extra: string) =>
    JSON.stringify({ ...record(), extra: 0 }).replace('"extra":0', `"extra":${extra}`);
  for (const [name, door] of Object.entries(doors)) {
    for (const [what, extra] of [
      ['too deep', nested(40)],
      ['5,000 levels', nested(5000)],
      ['too many values', `[${'1,'.repeat(100_000)}1]`],
      ['U+0000', '"a\\u0000b"'],
      ['too large', `"${'x'.repeat(1024 * 1024)}"`],
    ] as const) {
      const status = await door(grown(extra));
      expect([name, what, status >= 400 && status < 500]).toEqual([name, what, true]);
    }
  }
  // much, but not too much: it goes out and comes back
  const deep = '['.repeat(20) + `[${'1,'.repeat(90_000)}1]` + ']'.repeat(20);
  const large = JSON.parse(grown(deep)) as object;
  const { id } = (await call().post('/api/machines').send({ record: large }).expect(201)).body;
  const file = await download(`/api/exchange/machines/${id}.json`);
  expect(JSON.parse(file.toString())).toEqual(large);
  expect(file.length).toBeLessThan(1024 * 1024);
});

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

test.each([
  ['nothing', '', /empty/],
  ['a picture', Buffer.from([0x89, 0x50, 0x4e, 0x47, 0, 1, 2]), /neither JSON nor CSV/],
  ['prose', 'Dear colleague,\nhere is the file.', /none of the columns/],
  ['half a record', '{"format":"zugluft-record"', /well-formed/],
  ['bytes that are no text', Buffer.from([0x7b, 0xff, 0xfe]), /UTF-8/],
  ['half a zip', Buffer.from('PK\u0003\u0004rubbish that ends here'), /unpacked|refused/],
])('%s is refused as a whole, with words', async (_, bytes, words) => {
  const answer = await send(bytes);
  if (answer.status === 200) expect(answer.body.items).toEqual([]);
  else {
    expect(answer.status).toBe(422);
    expect(answer.body.detail).toMatch(words);
  }
});

test('JSON 40 levels deep is refused, 32 levels are taken', async () => {
  const nested = (levels: number) => {
    let inside: unknown = 1;
    for (let i = 0; i < levels - 1; i++) inside = { x: inside };
    return JSON.stringify({ ...record(), extra: inside });
  };
  expect((await send(nested(40))).body.detail).toMatch(/32 levels/);
  expect(await actions(nested(32))).toEqual(['new']);
  expect((await send(nested(33))).status).toBe(422);
});

test('a zip bomb is stopped while it unpacks', async () => {
  const bomb = zipSync({ 'records/a.json': new Uint8Array(30 * 1024 * 1024) }, { level: 9 });
  expect(bomb.length).toBeLessThan(60_000);
  const answer = await send(bomb);
  expect(answer.status).toBe(422);
  expect(answer.body.detail).toMatch(/more than is taken/);
  // one that lies about what it unpacks to
  const lie = Buffer.from(zipSync({ 'records/a.json': strToU8(JSON.stringify(record())) }));
  const central = lie.indexOf(Buffer.from([0x50, 0x4b, 1, 2]));
  lie.writeUInt32LE(10, central + 24);
  const { body } = await send(lie).expect(200);
  expect(body.items[0]).toMatchObject({
    action: 'refused',
    reasons: [{ message: 'cannot be unpacked' }],
  });
});

test('names of 10 000 characters, emoji, right-to-left text and scripts', async () => {
  const named = (model: string) => JSON.stringify({ ...record(), identity: { model } });
  expect(await actions(named('x'.repeat(10_000)))).toEqual(['refused']);
  for (const model of ['Heron 😀', 'דגם עשר', '<script>alert(1)</script>', '../../etc/passwd']) {
    const { body } = await send(named(model), '&apply=1').expect(200);
    const made = (await call().get(`/api/machines/${body.items[0].machineId}`)).body;
    expect(made.record.identity.model).toBe(model);
    const answer = await call().get(`/api/exchange/machines/${made.id}.json`).expect(200);
    expect(answer.headers['content-disposition']).not.toMatch(/[<>]|\.\./);
  }
});

test('a file of more than 25 MB is refused before it is read', async () => {
  const answer = await send(Buffer.alloc(25 * 1024 * 1024 + 1, 0x20));
  expect(answer.status).toBe(413);
  expect(answer.body.detail).toMatch(/25 MB/);
});

test('a record of a machine that is in no library by that name is new; two of one name are left apart', async () => {
  await create(example('one-die'));
  await create(example('one-die'));
  expect(await actions(JSON.stringify(example('one-die')))).toEqual(['new']);
  expect(
    await actions(JSON.stringify([example('one-die'), example('two-fan-shared-pipes')])),
  ).toEqual(['new', 'new']);
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

describe('counts', () => {
  const TABLE = [
    'maker,model,variant,fans,fanDiameterMm,stackWidthMm,stackDepthMm,finCount',
    'Brackenfold,Heron 16,counted,2,58,70,24,64',
    'Velmara,Quill 14,counted,1,50,60,18,300',
    'Tarnwick,Ledger 15,counted,two,60,80,30,70',
  ].join('\r\n');

  test('a table makes a machine of every row, each with watts and a band; refused rows are named by their fields', async () => {
    const { body } = await send(TABLE, '&apply=1').expect(200);
    const items = body.items as ImportItem[];
    expect(items.map((i) => i.action)).toEqual(['new', 'refused', 'refused']);
    expect(items[1]).toMatchObject({ label: 'file, line 3', name: 'Velmara Quill 14 counted' });
    expect(items[1]!.reasons[0]).toEqual({
      path: 'finCount',
      message: expect.stringMatching(/pitch of only 0.20 mm/),
    });
    expect(items[2]!.reasons[0]).toMatchObject({ path: 'fans' });
    await settled();
    const list = await call().get('/api/machines?q=counted').expect(200);
    const [row] = list.body.items;
    expect(row).toMatchObject({ model: 'Heron 16', complete: true, fans: 2, pipes: 2 });
    expect(row.togetherAt36WP05).toBeLessThan(row.togetherAt36W);
    expect(row.togetherAt36WP95).toBeGreaterThan(row.togetherAt36W);
    // once more: nothing new, nothing changed
    expect((await actions(TABLE))[0]).toBe('same');
  });

  test('a count as JSON is a machine too', async () => {
    const count = { ...example('count-two-fans'), variant: 'as JSON' };
    expect(await actions(JSON.stringify([count, { ...count, fans: 0 }]))).toEqual([
      'new',
      'refused',
    ]);
  });
});
