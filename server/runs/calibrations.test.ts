import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { openCase } from '@zugluft/core/case/openCase';
import { simulatedLogs } from '@zugluft/core/instruments/simulatedLogs';
import { parseRecord } from '@zugluft/core/record/parseRecord';
import { newRun, runWithLog } from '../test-support/newRun';
import { testServer } from '../test-support/testServer';

const { call, create, library } = testServer();

const EXAMPLE = join(__dirname, '../../examples/one-die.json');
const record = () => JSON.parse(readFileSync(EXAMPLE, 'utf8')) as object;
const open = openCase({ record: parseRecord(record()).record as never });
const logs = simulatedLogs(open, { seed: 1, loadS: 700, startedAtS: 4_000_000_000 });
const older = simulatedLogs(open, { seed: 1, loadS: 300, startedAtS: 1_700_000_000 });

test('a machine is fitted to its runs, version after version, and its estimate can stand on one', async () => {
  const { id } = await create(record());
  const url = `/api/machines/${id}/calibrations`;
  const none = await call().post(url).send({}).expect(422);
  expect(none.body.detail).toContain('one run with a log');
  expect((await call().get(`${url}/in-use`).expect(200)).body).toBeNull();
  const used = await runWithLog(call, id, logs.load, { load: { kind: 'stress', on: 'cpu' } });
  const left = await runWithLog(call, id, older.load, { use: 'leave-out' });
  const empty = newRun();
  await call().post(`/api/machines/${id}/runs`).send(empty).expect(201);
  const first = (await call().post(url).send({}).expect(201)).body;
  expect(first).toMatchObject({ version: 1, inUse: false, recordRevision: 1 });
  expect(first.runs).toEqual([
    { id: used.id, name: '', revision: 2, use: 'fit', states: 1, lacks: null },
    { id: left.id, name: '', revision: 2, use: 'leave-out', states: 0, lacks: null },
    {
      id: empty.id,
      name: '',
      revision: 1,
      use: 'fit',
      states: 0,
      lacks: 'this run holds no log yet',
    },
  ]);
  const at = first.answer.caps.find((c: { cap: unknown }) => c.cap === 40);
  expect(at.after.p95 - at.after.p05).toBeLessThan(at.before.p95 - at.before.p05);
  await call().post(url).send({}).expect(201);
  const list = (await call().get(url).expect(200)).body;
  expect(list.items.map((i: { version: number }) => i.version)).toEqual([2, 1]);

  await call().put(`${url}/in-use`).send({ version: 3 }).expect(404);
  const figures = (await call().put(`${url}/in-use`).send({ version: 1 }).expect(200)).body;
  expect(figures).toMatchObject({ version: 1, runs: 1, recordRevision: 1 });
  expect(figures.rows).toHaveLength(figures.count * figures.paths.length);
  expect(figures.rows.every(Number.isFinite)).toBe(true);
  await call().put(`${url}/in-use`).send({ version: 2 }).expect(200);
  expect((await call().get(url)).body.items.map((i: { inUse: boolean }) => i.inUse)).toEqual([
    true,
    false,
  ]);
  await call().put(`${url}/in-use`).send({ version: null }).expect(200);
  expect((await call().get(`${url}/in-use`)).body).toBeNull();
});

test('the library, the ladder’s first bands and predictions stand on the version in use, until the record changes', async () => {
  const { id, record: kept } = await create(record());
  await runWithLog(call, id, logs.load, { load: { kind: 'stress', on: 'cpu' } });
  const url = `/api/machines/${id}/calibrations`;
  const made = (await call().post(url).send({}).expect(201)).body;
  const full = made.answer.caps.find((c: { cap: unknown }) => c.cap === 'full');
  const listed = async () => {
    await library().list.load();
    await library().watts.settled();
    const [row] = (await call().get('/api/machines').expect(200)).body.items;
    return row.togetherFullW as number;
  };
  expect(await listed()).toBeCloseTo(full.before.p50, 6);
  await call().put(`${url}/in-use`).send({ version: 1 }).expect(200);
  expect(await listed()).toBeCloseTo(full.after.p50, 6);
  const { bands } = (await call().get(`/api/machines/${id}`)).body;
  expect(bands.find((b: { cap: unknown }) => b.cap === 'full').p50).toBeCloseTo(full.after.p50, 6);
  const foretold = async () => {
    const run = newRun({ load: { kind: 'stress', on: 'cpu' } });
    await call().post(`/api/machines/${id}/runs`).send(run).expect(201);
    const at = `/api/machines/${id}/runs/${run.id}/foretell`;
    return (await call().post(at).send({ cap: 'full' }).expect(200)).body.prediction;
  };
  expect((await foretold()).calibration).toBe(1);
  const changed = { ...kept, fans: [{ ...kept.fans[0], maxRpm: kept.fans[0].maxRpm - 200 }] };
  await call()
    .put(`/api/machines/${id}`)
    .set('If-Match', '"1"')
    .send({ record: changed })
    .expect(200);
  expect((await foretold()).calibration).toBeNull();
  // back to none
  await call().put(`${url}/in-use`).send({ version: null }).expect(200);
  expect(await listed()).not.toBeCloseTo(full.after.p50, 2);
});

test('a run is foretold before its log, by nobody but the program, and held against it', async () => {
  const { id } = await create(record());
  const runs = `/api/machines/${id}/runs`;
  const typed = { madeAt: '2026-01-01T00:00:00Z', cap: 'full', watts: { p05: 1, p50: 2, p95: 3 } };
  await call()
    .post(runs)
    .send(newRun({ prediction: typed }))
    .expect(422);
  const run = newRun({ load: { kind: 'stress', on: 'cpu' } });
  await call().post(runs).send(run).expect(201);
  await call()
    .put(`/api/documents/run/${run.id}`)
    .set('If-Match', '"1"')
    .send({ value: { ...run, prediction: typed } })
    .expect(422);
  await call().post(`${runs}/${run.id}/foretell`).send({ cap: 'loud' }).expect(400);
  const kept = (await call().post(`${runs}/${run.id}/foretell`).send({ cap: 'full' }).expect(200))
    .body;
  expect(kept.prediction).toMatchObject({
    cap: 'full',
    on: 'cpu',
    recordRevision: 1,
    calibration: null,
  });
  expect(kept.revision).toBe(1);
  const taken = (
    await call()
      .post(`${runs}/${run.id}/logs?file=load.csv`)
      .set('Content-Type', 'application/octet-stream')
      .send(Buffer.from(logs.load))
      .expect(201)
  ).body;
  const value = {
    ...run,
    logs: [{ id: 'log-1', file: 'load.csv', kind: 'csv', sha256: taken.sha256 }],
  };
  await call()
    .put(`/api/documents/run/${run.id}`)
    .set('If-Match', '"1"')
    .send({ value })
    .expect(200);
  const late = await call().post(`${runs}/${run.id}/foretell`).send({ cap: 'full' }).expect(409);
  expect(late.body.detail).toContain('cannot be foretold any more');
  const { foretold } = (await call().get(`${runs}/${run.id}/analysis`).expect(200)).body;
  expect(foretold.watts).toMatchObject(kept.prediction.watts);
  expect(foretold.watts.measured).toBeGreaterThan(5);
  expect(foretold.logIsOlder).toBe(false);
});

test('a log that is older than its prediction is told', async () => {
  const { id } = await create(record());
  const runs = `/api/machines/${id}/runs`;
  const run = newRun({ load: { kind: 'stress', on: 'cpu' } });
  await call().post(runs).send(run).expect(201);
  await call().post(`${runs}/${run.id}/foretell`).send({ cap: 'full' }).expect(200);
  const log = (
    await call()
      .post(`${runs}/${run.id}/logs?file=old.csv`)
      .set('Content-Type', 'application/octet-stream')
      .send(Buffer.from(older.load))
      .expect(201)
  ).body;
  const value = {
    ...run,
    logs: [{ id: 'log-1', file: 'old.csv', kind: 'csv', sha256: log.sha256 }],
    steady: [{ fromS: 60, toS: 300, chosenBy: 'person' }],
  };
  await call()
    .put(`/api/documents/run/${run.id}`)
    .set('If-Match', '"1"')
    .send({ value })
    .expect(200);
  const { foretold } = (await call().get(`${runs}/${run.id}/analysis`).expect(200)).body;
  expect(foretold.logIsOlder).toBe(true);
});

test('a fit that nobody waits for any more keeps nothing', async () => {
  const { id } = await create(record());
  await runWithLog(call, id, logs.load);
  const gone = new AbortController();
  gone.abort();
  await expect(library().calibrations.make(id, gone.signal)).rejects.toThrow('cancelled');
  expect((await call().get(`/api/machines/${id}/calibrations`)).body.total).toBe(0);
});
