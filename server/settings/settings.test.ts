import { DEFAULT_RULES } from '@zugluft/core/service/houseRules';
import { testServer } from '../test-support/testServer';

const { call, db } = testServer();
const get = async () => (await call().get('/api/settings').expect(200)).body;

test('built in until a lab decides; every decision is kept, the newest holds', async () => {
  expect(await get()).toEqual({ 'house-rules': DEFAULT_RULES, rubric: {} });
  await call()
    .put('/api/settings/house-rules')
    .send({ ...DEFAULT_RULES, battery: 'take-out' })
    .expect(200);
  const own = { slots: { best: 100, worst: 50, weight: 3 } };
  const answer = await call().put('/api/settings/rubric').send(own).expect(200);
  expect(answer.body).toMatchObject({ 'house-rules': { battery: 'take-out' }, rubric: own });
  await call().put('/api/settings/rubric').send({}).expect(200);
  expect((await get()).rubric).toEqual({});
  expect(await db().models.LabSetting.count()).toBe(3);
});

test.each([
  ['house-rules', { battery: 'explode' }, 'battery'],
  ['rubric', { slots: { best: 1, worst: 1, weight: 1 } }, 'slots.worst'],
  ['rubric', { slots: { best: -1, worst: 1e9, weight: 'much' } }, 'slots.weight'],
])('%s: nonsense is refused at its place', async (key, body, path) => {
  const answer = await call().put(`/api/settings/${key}`).send(body).expect(400);
  expect(answer.body.errors.map((e: { path: string }) => e.path)).toContain(path);
  expect(await db().models.LabSetting.count()).toBe(0);
});

test('no such setting', async () => {
  await call().put('/api/settings/toString').send({}).expect(404);
});
