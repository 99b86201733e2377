import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { testLibrary, testServer } from '../test-support/testServer';
import { matchOf } from './listQuery';

const { call, create, record, settled } = testServer();
const example = (name: string) =>
  JSON.parse(readFileSync(join(__dirname, `../../examples/${name}.json`), 'utf8'));
const list = async (query: string) => {
  const answer = await call().get(`/api/machines?${query}`).expect(200);
  return answer.body as { items: Record<string, unknown>[]; total: number };
};
const models = async (query: string) => (await list(query)).items.map((m) => m['model']);
const named = (model: string, name = 'one-die', more: object = {}) => {
  const r = example(name);
  r.identity = { ...r.identity, maker: 'Tarnwick', model, ...more };
  return r;
};

test('words are found wherever they stand in the record, by their beginnings, in any order and case', async () => {
  const noted = named('Ledger 15', 'one-die', { modelCode: 'TL15-Ä2' });
  noted.fans[0].note = 'whistles at 3000 rpm, Müller bearing';
  const made = await create(noted);
  await create(named('Heron 16', 'two-fan-shared-pipes'));
  expect(await models('q=ledg')).toEqual(['Ledger 15']);
  expect(await models('q=ledger+TARN')).toEqual(['Ledger 15']);
  expect(await models('q=whistl')).toEqual(['Ledger 15']);
  expect(await models('q=muller')).toEqual(['Ledger 15']);
  expect(await models('q=tl15-a2')).toEqual(['Ledger 15']);
  expect(await models('q=edger')).toEqual([]);
  expect(await models('q=tarnwick')).toHaveLength(2);
  // asked for before it is there, so that the answer is remembered
  expect(await models('q=serene')).toEqual([]);
  // a word that leaves the record is no longer found
  const changed = structuredClone(made.record);
  changed.fans[0].note = 'serene';
  await call()
    .put(`/api/machines/${made.id}`)
    .set('If-Match', '"1"')
    .send({ record: changed })
    .expect(200);
  expect(await models('q=whistles')).toEqual([]);
  expect(await models('q=serene')).toEqual(['Ledger 15']);
});

test.each([
  '"',
  '*',
  'a OR b',
  'NEAR(',
  '(',
  "'; DROP TABLE machines; --",
  '-x',
  'words:',
  '😀',
  '%',
  '_',
])('what looks like syntax is searched for as it stands: %s', async (typed) => {
  await create(named('Heron 16'));
  const found = await list(`q=${encodeURIComponent(typed)}`);
  expect(found.total).toBe(0);
  expect((await list('')).total).toBe(1);
});

test('a query is quoted word by word', () => {
  expect(matchOf(' 8-core  45"W ')).toBe('"8-core"* "45W"*');
  expect(matchOf('" * -')).toBe('');
});

test('filters by parts, size, fin area, chamber and watts at a cap', async () => {
  const thin = named('Thin');
  thin.shell = { ...thin.shell, thicknessMm: 12, massKg: 1.1 };
  await create(thin);
  await create(named('Two', 'two-fan-shared-pipes'));
  await create(named('Four', 'four-fan-eight-pipes'));
  const unfinished = record();
  unfinished.identity = { model: 'Unfinished' };
  delete unfinished.fans[0].impellerDiameterMm;
  await create(unfinished);
  expect(await models('fansMin=2&fansMax=3')).toEqual(['Two']);
  expect(await models('pipesMin=4')).toEqual(['Four']);
  expect(await models('thicknessMax=12.5&massMax=1.2')).toEqual(['Thin']);
  await settled();
  const all = (await list('sort=-togetherAt36W')).items;
  const watts = all.map((m) => m['togetherAt36W'] as number | null);
  expect(watts[0]).toBeGreaterThan(watts[1]!);
  const between = (watts[0]! + watts[1]!) / 2;
  expect(await models(`wattsMin=${between}`)).toEqual(['Four']);
  expect(await models(`cap=28&wattsMin=${between}`)).toEqual([]);
  const areas = all.map((m) => m['finAreaCm2'] as number);
  expect(await models(`finAreaMin=${Math.max(...areas) - 1}`)).toEqual(['Four']);
  const chamber = all.filter((m) => m['chamber']).map((m) => m['model']);
  expect((await models('chamber=1')).sort()).toEqual(chamber.sort());
  for (const bad of [
    'fansMin=many',
    'cap=loud',
    'cap=14',
    'cap=70.5',
    'chamber=yes',
    'sort=record',
    'wattsMax=-1',
  ]) {
    await call().get(`/api/machines?${bad}`).expect(400);
  }
});

test('tags are put on many machines at once, all or nothing, and filtered by', async () => {
  const a = await create(named('A'));
  const b = await create(named('B'));
  const tag = (body: object) => call().post('/api/machines/tags').send(body);
  await tag({ ids: [a.id, b.id], add: ['Shortlist', 'stage use'] }).expect(200);
  await tag({ ids: [b.id], add: ['shortlist'], remove: ['STAGE USE'] }).expect(200);
  expect(await models('tag=shortlist')).toEqual(['A', 'B']);
  expect(await models('tag=Stage+use')).toEqual(['A']);
  expect((await list('')).items[0]!['tags']).toEqual(['shortlist', 'stage use']);
  expect((await call().get('/api/machines/tags')).body.items).toEqual([
    { tag: 'shortlist', count: 2 },
    { tag: 'stage use', count: 1 },
  ]);
  const nobody = '00000000-0000-4000-8000-000000000000';
  await tag({ ids: [a.id, nobody], add: ['lost'] }).expect(404);
  expect(await models('tag=lost')).toEqual([]);
  await tag({ ids: [a.id], add: [' '] }).expect(400);
  await tag({ ids: [a.id], add: ['x'.repeat(41)] }).expect(400);
  await tag({ ids: [], add: ['x'] }).expect(400);
  const many = (from: number) => Array.from({ length: 20 }, (_, i) => `t${from + i}`);
  await tag({ ids: [a.id], add: many(0) }).expect(200);
  await tag({ ids: [a.id], add: many(20) }).expect(422);
});

test('rows written before the program knew these columns are described when it starts', async () => {
  const library = await testLibrary();
  const { db, machines: store } = library;
  const made = await store.create(named('Two', 'two-fan-shared-pipes'));
  await db.sequelize.query("UPDATE machines SET describedBy = 0, fans = 9, searchText = 'old'");
  expect(await store.catchUp()).toBe(1);
  expect(await store.catchUp()).toBe(0);
  const row = (await db.models.Machine.findByPk(made.id))!;
  expect(row.fans).toBe(2);
  expect(row.revision).toBe(1);
  expect(row.searchText).toContain('tarnwick');
  await library.close();
});
