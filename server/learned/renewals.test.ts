import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { openCase } from '@zugluft/core/case/openCase';
import { simulatedLogs } from '@zugluft/core/instruments/simulatedLogs';
import { wearAnswer, type WearAnswer } from '@zugluft/core/library/wearAnswer';
import { parseRecord } from '@zugluft/core/record/parseRecord';
import { runWithLog } from '../test-support/newRun';
import { testServer } from '../test-support/testServer';

jest.setTimeout(300_000);
const { call, create, settled } = testServer();

const EXAMPLE = join(__dirname, '../../examples/one-die.json');
const LINT = 'upkeep.lintPerThousandHours';
const HOURS = 3000;

/** Dustier than anybody saw: a third of what was open in each thousand hours. */
const FILLED = 1 - (1 - 0.33) ** (HOURS / 1000);

const record = (lint: number) => {
  const {
    settings: _,
    finStacks,
    ...rest
  } = JSON.parse(readFileSync(EXAMPLE, 'utf8')) as {
    identity: object;
    settings: unknown;
    finStacks: object[];
  };
  return { ...rest, finStacks: finStacks.map((s) => ({ ...s, lintShare: lint })) };
};

/** A machine with a run before its fins were cleaned and one after, and the plan that names both. */
async function renewed(seed: number, hoursSince: number | null): Promise<string> {
  const glance = record(0.2);
  const { id } = await create({
    ...glance,
    identity: { ...glance.identity, model: `Drift ${seed}` },
  });
  const log = (lint: number) => {
    const truth = openCase({ record: parseRecord(record(lint)).record as never });
    const load = { kind: 'stress', on: 'cpu' };
    return runWithLog(call, id, simulatedLogs(truth, { seed, loadS: 700 }).load, { load });
  };
  const before = await log(FILLED);
  const after = await log(0);
  await putPlan(id, 0, {
    runBefore: before.id,
    runAfter: after.id,
    hoursSince,
  });
  return id;
}

const putPlan = async (id: string, revision: number, own: object) =>
  call()
    .put(`/api/documents/plans/${id}`)
    .set('If-Match', `"${revision}"`)
    .send({
      value: {
        format: 'zugluft-plans',
        formatVersion: 1,
        plans: [
          {
            id: 'clean',
            madeAt: '2026-11-20T10:00:00.000Z',
            recordRevision: 1,
            cap: 'full',
            levers: [
              {
                id: 'clean',
                name: 'Clean fins, fans and mesh',
                change: [{ path: 'finStacks.fins.lintShare', to: 0 }],
                moves: 'cooling',
              },
            ],
            promised: {
              wattsGained: { p05: 1, p50: 2, p95: 3 },
              dbSaved: { p05: 0, p50: 1, p95: 2 },
              kelvinSaved: { p05: 1, p50: 4, p95: 8 },
              chanceNoticeable: 0.8,
              tooSmallToFeel: false,
            },
            steps: [],
            ...own,
          },
        ],
      },
    })
    .expect(200);

const wear = async (): Promise<WearAnswer> => {
  const { body } = await call().get('/api/learned/wear').expect(200);
  expect(wearAnswer.safeParse(body).error?.issues).toBeUndefined();
  return body as WearAnswer;
};

test('renewals with a run before and one after tell how fast dust gathers; those that cannot say why', async () => {
  expect(await wear()).toEqual({ renewals: [], rates: [] });
  const first = await renewed(1, HOURS);
  await settled();
  const one = await wear();
  expect(one.renewals).toHaveLength(1);
  expect(one.renewals[0]).toMatchObject({
    machineId: first,
    planId: 'clean',
    plan: 'Clean fins, fans and mesh',
    hoursSince: HOURS,
    why: null,
  });
  const [rate] = one.renewals[0]!.rates;
  expect(rate!.key).toBe(LINT);
  // faster than the 12 % that are built in
  expect(rate!.p50).toBeGreaterThan(0.2);
  // one machine is no laboratory
  expect(one.rates).toMatchObject([{ key: LINT, machines: 1, offered: null }]);

  await renewed(2, HOURS);
  const unknown = await renewed(3, null);
  await settled();
  const all = await wear();
  expect(all.renewals.map((r) => r.why).filter(Boolean)).toEqual([
    'hours of use since the fins were last clean are not known',
  ]);
  expect(all.renewals.find((r) => r.machineId === first)).toEqual(one.renewals[0]);
  const [told] = all.rates;
  expect(told).toMatchObject({ key: LINT, machines: 2 });
  expect(told!.mean).toBeGreaterThan(one.rates[0]!.mean);
  expect(told!.deviation).toBeLessThan(1);
  expect(told!.offered!.value).toBeGreaterThan(0.12);
  expect(told!.offered!.low).toBeGreaterThan(0.03);

  // hours typed later are read anew
  const plan = (await call().get(`/api/documents/plans/${unknown}`).expect(200)).body;
  await call()
    .put(`/api/documents/plans/${unknown}`)
    .set('If-Match', '"1"')
    .send({
      value: { ...plan.value, plans: [{ ...plan.value.plans[0], hoursSince: 2 * HOURS }] },
    })
    .expect(200);
  const slower = (await wear()).renewals.find((r) => r.machineId === unknown)!;
  expect(slower.why).toBeNull();
  expect(slower.rates[0]!.p50).toBeLessThan(rate!.p50);
});

test('a run that is gone, a record that is no longer there and hours that cannot be are said', async () => {
  const id = await renewed(4, HOURS);
  await putPlan(id, 1, { runBefore: 'gone', runAfter: 'gone too', hoursSince: HOURS });
  const why = async () => (await wear()).renewals.find((r) => r.machineId === id)?.why;
  expect(await why()).toBe('one of its runs is no longer there');
  const runs = (await call().get(`/api/machines/${id}/runs`).expect(200)).body.items as {
    id: string;
  }[];
  const both = { runBefore: runs[0]!.id, runAfter: runs[1]!.id };
  await putPlan(id, 2, { ...both, recordRevision: 40 });
  expect(await why()).toBe('the record as it was then is no longer there');
  const now = (await call().get(`/api/documents/plans/${id}`).expect(200)).body;
  const refused = await call()
    .put(`/api/documents/plans/${id}`)
    .set('If-Match', '"3"')
    .send({ value: { ...now.value, plans: [{ ...now.value.plans[0], hoursSince: -1 }] } })
    .expect(400);
  expect(refused.body.errors[0]).toMatchObject({
    path: 'value.plans.0.hoursSince',
    message: 'must be at least 0',
  });
  const { revision } = (await call().get(`/api/machines/${id}`).expect(200)).body;
  await call().post(`/api/machines/${id}/put-aside`).set('If-Match', `"${revision}"`).expect(200);
  expect((await wear()).renewals.some((r) => r.machineId === id)).toBe(false);
});
