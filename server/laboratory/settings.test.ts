import { DEFAULT_RULES } from '@zugluft/core/service/houseRules';
import { testServer } from '../test-support/testServer';

const { call, create, settled, library } = testServer();
const get = async () => (await call().get('/api/settings').expect(200)).body;
const put = (key: string, seen: number, body: object) =>
  call().put(`/api/settings/${key}`).set('If-Match', `"${seen}"`).send(body);
const revisions = () => library().db.models.DocumentRevision.count({ where: { kind: 'settings' } });
const USUAL = { levelsDbA: [28, 32, 36, 40, 45] };

test('built in until a lab decides; every decision is kept, the newest holds', async () => {
  expect(await get()).toEqual({
    'house-rules': DEFAULT_RULES,
    rubric: {},
    caps: USUAL,
    noticeable: { watts: 3, db: 1, kelvin: 2 },
    points: { wattsPerFan: 15, wattsPerPipe: 10, wattsPer100Cm2: 5 },
    felt: { ask: false },
  });
  await put('house-rules', 0, { ...DEFAULT_RULES, battery: 'take-out' }).expect(200);
  const own = { slots: { best: 100, worst: 50, weight: 3 } };
  const answer = await put('rubric', 1, own).expect(200);
  expect(answer.body).toMatchObject({ 'house-rules': { battery: 'take-out' }, rubric: own });
  expect(answer.headers['etag']).toBe('"2"');
  await put('rubric', 2, {}).expect(200);
  expect((await get()).rubric).toEqual({});
  expect(await revisions()).toBe(3);
});

test('a setting is not written over what its writer did not see', async () => {
  await call().put('/api/settings/rubric').send({}).expect(428);
  await put('rubric', 0, { slots: { best: 90, worst: 20, weight: 1 } }).expect(200);
  const stale = await put('house-rules', 0, DEFAULT_RULES).expect(412);
  expect(stale.body.current.rubric).toHaveProperty('slots');
  expect(stale.body.theirs.revision).toBe(1);
  expect(stale.body.seen.value.rubric).toEqual({});
  expect(await revisions()).toBe(1);
});

test.each([
  ['house-rules', { battery: 'explode' }, 'battery'],
  ['rubric', { slots: { best: 1, worst: 1, weight: 1 } }, 'slots.worst'],
  ['rubric', { slots: { best: -1, worst: 1e9, weight: 'much' } }, 'slots.weight'],
  ['caps', { levelsDbA: [14.9] }, 'levelsDbA.0'],
  ['caps', { levelsDbA: [36, 70.1] }, 'levelsDbA.1'],
  ['caps', { levelsDbA: [] }, 'levelsDbA'],
  ['caps', { levelsDbA: [30, 30] }, 'levelsDbA'],
  ['caps', { levelsDbA: Array.from({ length: 13 }, (_, i) => 20 + i) }, 'levelsDbA'],
  ['caps', { levelsDbA: ['loud'] }, 'levelsDbA.0'],
  ['caps', { levels: [30] }, 'levels'],
  ['noticeable', { watts: 0, db: 1, kelvin: 2 }, 'watts'],
  ['noticeable', { watts: 3, db: 'loud', kelvin: 2 }, 'db'],
  ['noticeable', { watts: 3, db: 1, kelvin: 51 }, 'kelvin'],
  ['points', { wattsPerFan: -1 }, 'wattsPerFan'],
  ['points', { wattsPerPipe: 1001 }, 'wattsPerPipe'],
])('%s: nonsense is refused at its place', async (key, body, path) => {
  const answer = await put(key, 0, body).expect(400);
  expect(answer.body.errors.map((e: { path: string }) => e.path)).toContain(path);
  expect(await revisions()).toBe(0);
});

test('settings that a version before kept, or sends, have what is noticed and the points built in', async () => {
  await put('noticeable', 0, { watts: 5, db: 2, kelvin: 4 }).expect(200);
  expect((await get()).noticeable).toEqual({ watts: 5, db: 2, kelvin: 4 });
  await put('points', 1, { wattsPerFan: 9 }).expect(200);
  expect((await get()).points.wattsPerFan).toBe(9);
  const { noticeable: _, points: __, ...older } = await get();
  await call()
    .put('/api/documents/settings/laboratory')
    .set('If-Match', '"2"')
    .send({ value: older })
    .expect(200);
  expect(await get()).toMatchObject({
    noticeable: { watts: 3, db: 1, kelvin: 2 },
    points: { wattsPerFan: 15 },
  });
});

test('no such setting', async () => {
  await put('toString', 0, {}).expect(404);
});

test('the library follows the laboratory’s caps: columns, order, filter', async () => {
  await create();
  const list = async (query = '') => {
    await settled();
    return (await call().get(`/api/machines${query}`).expect(200)).body;
  };
  expect((await list()).caps).toEqual(['off', 28, 32, 36, 40, 45, 'full']);
  const sent = await put('caps', 0, { levelsDbA: [38.5, 24] }).expect(200);
  expect(sent.body.caps.levelsDbA).toEqual([24, 38.5]);
  const { caps, items, pending } = await list('?sort=-togetherAt38.5W');
  expect(caps).toEqual(['off', 24, 38.5, 'full']);
  expect(pending).toBe(0);
  const [row] = items;
  expect(row['togetherAt38.5W']).toBeGreaterThan(row.togetherAt24W);
  expect(row).not.toHaveProperty('togetherAt36W');
  expect((await list('?cap=24&wattsMin=1000')).total).toBe(0);
  // any other cap can be asked for, and is computed from then on
  await list('?cap=50&wattsMin=1');
  expect((await list('?cap=50&wattsMin=1')).total).toBe(1);
});
