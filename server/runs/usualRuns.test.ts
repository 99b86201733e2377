import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { openCase } from '@zugluft/core/case/openCase';
import { simulatedLogs } from '@zugluft/core/instruments/simulatedLogs';
import { usualOfRuns, type UsualOfRuns } from '@zugluft/core/library/runAnswers';
import { parseRecord } from '@zugluft/core/record/parseRecord';
import { runWithLog } from '../test-support/newRun';
import { testServer } from '../test-support/testServer';

jest.setTimeout(300_000);
const { call, create, settled } = testServer();

const RECORD = JSON.parse(readFileSync(join(__dirname, '../../examples/one-die.json'), 'utf8')) as {
  identity: object;
};
const LOG = simulatedLogs(openCase({ record: parseRecord(RECORD).record as never }), {
  seed: 1,
  loadS: 700,
  cpuLoadW: 12,
}).load;

async function machine(variant: string, score: number | null, load: object = {}): Promise<string> {
  const { id } = await create({ ...RECORD, identity: { ...RECORD.identity, variant } });
  await runWithLog(call, id, LOG, {
    load: { kind: 'benchmark', on: 'cpu', name: 'Forest Scene', score, ...load },
  });
  return id;
}

const usualOf = async (id: string): Promise<UsualOfRuns> => {
  const { body } = await call().get(`/api/machines/${id}/runs/usual`).expect(200);
  expect(usualOfRuns.safeParse(body).error?.issues).toBeUndefined();
  return body as UsualOfRuns;
};

test('a score is held against other machines under the load of the same name, in any letters', async () => {
  const own = await machine('own', 9000);
  await machine('a', 8000, { name: ' forest scene ' });
  await machine('b', 8100);
  await settled();
  const few = await usualOf(own);
  expect(few.items).toMatchObject([
    { unit: 'points', usual: { refused: true, machines: 2, needs: 3 } },
  ]);

  const third = await machine('c', 8200);
  // what is no score of this load, or is left out, tells nothing
  await machine('d', 100, { name: 'another scene' });
  await machine('e', null, { framesPerS: 90 });
  const { id: left } = await create({ ...RECORD, identity: { ...RECORD.identity, variant: 'f' } });
  await runWithLog(call, left, LOG, {
    load: { kind: 'benchmark', on: 'cpu', name: 'Forest Scene', score: 1 },
    use: 'leave-out',
  });
  await settled();
  const [told] = (await usualOf(own)).items;
  if (!told || told.usual.refused) throw new Error('refused');
  expect(told.usual.machines).toBe(3);
  expect(told.usual.p50).toBeGreaterThan(8000);
  expect(told.usual.p50).toBeLessThan(8200);
  expect(told.usual.p95).toBeLessThan(9000);
  // of its own runs none counts for what is usual
  const [other] = (await usualOf(third)).items;
  expect(other!.usual).toMatchObject({ refused: false, machines: 3 });

  // one that is put aside does not count any more
  const { revision } = (await call().get(`/api/machines/${third}`).expect(200)).body;
  await call()
    .post(`/api/machines/${third}/put-aside`)
    .set('If-Match', `"${revision}"`)
    .expect(200);
  expect((await usualOf(own)).items[0]!.usual).toEqual({ refused: true, machines: 2, needs: 3 });
});

test('a machine whose runs tell no score, or under a load without a name, has nothing to compare', async () => {
  const { id } = await create({ ...RECORD, identity: { ...RECORD.identity, variant: 'none' } });
  expect(await usualOf(id)).toEqual({ items: [] });
  await runWithLog(call, id, LOG, { load: { kind: 'stress', on: 'cpu', score: 40 } });
  expect(await usualOf(id)).toEqual({ items: [] });
});
