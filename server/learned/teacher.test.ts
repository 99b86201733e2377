import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { openCase } from '@zugluft/core/case/openCase';
import { simulatedLogs } from '@zugluft/core/instruments/simulatedLogs';
import { learnedAnswer, type LearnedAnswer } from '@zugluft/core/library/learnedAnswer';
import { parseRecord } from '@zugluft/core/record/parseRecord';
import { runWithLog } from '../test-support/newRun';
import { testServer } from '../test-support/testServer';

jest.setTimeout(300_000);
const { call, create, settled } = testServer();

const EXAMPLE = join(__dirname, '../../examples/one-die.json');
/** Without settings, which would hold the watts before the cooling does. */
const record = () => {
  const { settings: _, ...rest } = JSON.parse(readFileSync(EXAMPLE, 'utf8')) as {
    identity: object;
    settings: unknown;
  };
  return rest;
};

/** The answer's lines. */
async function learn(): Promise<{
  lines: Record<string, unknown>[];
  learned: LearnedAnswer | null;
}> {
  const { text } = await call()
    .post('/api/learned')
    .buffer(true)
    .parse((res, done) => {
      let all = '';
      res.on('data', (c: Buffer) => (all += c.toString('utf8')));
      res.on('end', () => done(null, all));
    })
    .expect(200)
    .then((r) => ({ text: r.body as string }));
  const lines = text
    .trimEnd()
    .split('\n')
    .map((l) => JSON.parse(l) as Record<string, unknown>);
  return { lines, learned: (lines.at(-1)!['learned'] as LearnedAnswer) ?? null };
}

/** A machine whose fins, board and die contact carry less than is built in, run and fitted. */
async function taught(seed: number): Promise<string> {
  const truth = openCase({
    record: parseRecord(record()).record as never,
    overrides: new Map([
      ['finStacks.uaFactor', 0.5 + 0.015 * seed],
      ['shell.boardWK', 0.03 + 0.004 * seed],
      ['dies.interface.contactM2KW', 7e-6],
    ]),
  });
  const { id } = await create({
    ...record(),
    identity: { ...record().identity, model: `Drift ${seed}` },
  });
  const logs = simulatedLogs(truth, { seed, loadS: 700 });
  await runWithLog(call, id, logs.load, { load: { kind: 'stress', on: 'cpu' } });
  const url = `/api/machines/${id}/calibrations`;
  await call().post(url).send({}).expect(201);
  await call().put(`${url}/in-use`).send({ version: 1 }).expect(200);
  return id;
}

test('machines that stand on runs teach about the next one; too few do not', async () => {
  expect((await call().get('/api/learned').expect(200)).body).toEqual({ learned: null });
  const none = await call().post('/api/learned').expect(422);
  expect(none.body.detail).toContain('at least 5 machines');
  const ids: string[] = [];
  for (let seed = 1; seed <= 4; seed++) ids.push(await taught(seed));
  await settled();
  const few = await learn();
  expect(few.learned).toBeNull();
  expect(few.lines.at(-1)!['problem']).toContain('there are 4 machines');
  ids.push(await taught(5));
  await settled();
  const { lines, learned } = await learn();
  expect(lines.slice(0, -1)).toEqual(ids.map((_, i) => ({ done: i + 1, of: 5 })));
  expect(learnedAnswer.safeParse(learned).error?.issues).toBeUndefined();
  expect(learned!.machines.map((m) => m.id).sort()).toEqual([...ids].sort());
  expect(learned!.lacking).toEqual([]);
  // all of them carry less than is built in: that is learned, and foretells each from the others
  expect(learned!.after.offShare).toBeLessThan(learned!.before.offShare);
  const fins = learned!.factors.find((f) => f.key === 'finStacks.uaFactor')!;
  expect(fins.mean).toBeLessThan(0);
  expect(learned!.kinds).toHaveLength(1);
  expect(learned!.kinds[0]).toMatchObject({ machines: 5, runs: 5 });
  expect(learned!.kinds[0]!.biasShare).toBeLessThan(0);
  expect((await call().get('/api/learned').expect(200)).body.learned).toEqual(learned);
});
