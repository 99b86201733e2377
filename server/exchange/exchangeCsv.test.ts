import type { ImportItem } from '@zugluft/core/library/answers';
import Papa from 'papaparse';
import { example, exchangeAt } from '../test-support/exchange';
import { testServer } from '../test-support/testServer';

const { call, create, record, settled, db: library } = testServer();
const { send, actions, total, download } = exchangeAt(call);

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
  expect(open).toMatch(/line 3: a quote is opened and never closed$/);
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
