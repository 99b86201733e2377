import { readdirSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { csvOf, generatedLog } from '@zugluft/core/test-support/generatedLog';
import { newRun, runWithLog } from '../test-support/newRun';
import { testServer } from '../test-support/testServer';

const { call, create, library } = testServer();

const LEVELS = [
  { forS: 30, cpuW: 6, gpuW: 0 },
  { forS: 28, cpuW: 40, gpuW: 0 },
  { forS: 600, cpuW: 25, gpuW: 0 },
];
const csv = csvOf(generatedLog(LEVELS, { levelDbA: () => 38 }));
const send = (url: string, body: string | Buffer) =>
  call().post(url).set('Content-Type', 'application/octet-stream').send(Buffer.from(body));

test('a run is made once, listed, changed with a lock, put aside and brought back', async () => {
  const { id } = await create();
  const run = newRun({ name: 'first' });
  const url = `/api/machines/${id}/runs`;
  const made = (await call().post(url).send(run).expect(201)).body;
  expect(made).toMatchObject({ id: run.id, machineId: id, revision: 1, run });
  // sent twice after a cut
  expect((await call().post(url).send(run).expect(200)).body).toEqual(made);
  const other = await create();
  await call().post(`/api/machines/${other.id}/runs`).send(run).expect(409);
  expect((await call().get(url).expect(200)).body).toMatchObject({ total: 1, items: [made] });
  const document = `/api/documents/run/${run.id}`;
  await call().put(document).send({ value: run }).expect(428);
  await call()
    .put(document)
    .set('If-Match', '"1"')
    .send({ value: { ...run, id: other.id } })
    .expect(422);
  await call()
    .put(document)
    .set('If-Match', '"1"')
    .send({ value: { ...run, use: 'hold-out' } })
    .expect(200);
  expect((await call().get(url)).body.items[0]).toMatchObject({
    revision: 2,
    run: { use: 'hold-out' },
  });
  await call().post(`${document}/put-aside`).set('If-Match', '"2"').expect(200);
  expect((await call().get(url)).body.total).toBe(0);
  expect((await call().get(`${url}?aside=1`)).body.total).toBe(1);
});

test('what is no run is refused at its field', async () => {
  const { id } = await create();
  const answer = await call()
    .post(`/api/machines/${id}/runs`)
    .send(newRun({ load: { kind: 'dance', on: 'both' } }))
    .expect(400);
  expect(answer.body.errors[0].path).toBe('load.kind');
  await call()
    .post(`/api/machines/${id}/runs`)
    .send(newRun({ id: 'mine' }))
    .expect(422);
});

test('a log is taken, told, analysed against the machine’s record, and drawn', async () => {
  const { id } = await create();
  const run = await runWithLog(call, id, csv, { backgroundDbA: 19 });
  const url = `/api/machines/${id}/runs/${run.id}`;
  const told = (await send(`${url}/logs?file=again.csv`, csv).expect(201)).body;
  expect(told).toMatchObject({
    rows: 1316,
    stepS: 0.5,
    durationS: 657.5,
    problems: [],
    bytes: Buffer.byteLength(csv),
  });
  expect(told.channels.map((c: { is: string }) => c.is)).toEqual([
    'cpuPowerW',
    'gpuPowerW',
    'cpuC',
    'gpuC',
    'levelDbA',
  ]);
  const analysis = (await call().get(`${url}/analysis`).expect(200)).body;
  expect(analysis.segments.map((s: { kind: string }) => s.kind)).toEqual([
    'idle',
    'short',
    'sustained',
  ]);
  expect(analysis.settled).toBe(true);
  expect(analysis.steady[0].cpuPowerW.mean).toBeCloseTo(25, 0);
  expect(analysis.against.cap).toBeCloseTo(37.9, 0);
  const series = (await call().get(`${url}/series?pixels=100`).expect(200)).body;
  expect(series.lastS).toBe(657.5);
  expect(series.channels.cpuPowerW.most).toHaveLength(100);
  expect(Math.max(...series.channels.cpuPowerW.most)).toBeGreaterThan(39);
  const near = (await call().get(`${url}/series?fromS=100&toS=110&pixels=5`).expect(200)).body;
  expect(Math.min(...near.channels.cpuPowerW.least)).toBeGreaterThan(20);
  await call().get(`${url}/series?fromS=10&toS=5`).expect(422);
});

test('the window of a person rules', async () => {
  const { id } = await create();
  const run = await runWithLog(call, id, csv, {
    steady: [{ fromS: 500, toS: 600, chosenBy: 'person' }],
  });
  const analysis = (await call().get(`/api/machines/${id}/runs/${run.id}/analysis`)).body;
  expect(analysis.steady).toHaveLength(1);
  expect(analysis.steady[0]).toMatchObject({ fromS: 500, toS: 600, chosenBy: 'person' });
});

test('samples that are lost are read again from the log', async () => {
  const { id } = await create();
  const run = await runWithLog(call, id, csv);
  const folder = join(library().db.folder, 'samples');
  expect(readdirSync(folder)).toHaveLength(1);
  rmSync(folder, { recursive: true });
  await call().get(`/api/machines/${id}/runs/${run.id}/analysis`).expect(200);
  expect(readdirSync(folder)).toHaveLength(1);
});

describe('a log that cannot be taken', () => {
  const logs = async (body: string, query = '') => {
    const { id } = await create();
    const made = (await call().post(`/api/machines/${id}/runs`).send(newRun()).expect(201)).body;
    return send(`/api/machines/${id}/runs/${made.id}/logs?file=bad.csv${query}`, body);
  };

  test('names file, row and column', async () => {
    const answer = await logs('Time [s],CPU power [W]\n0,45\n5,46\n3,47\n');
    expect(answer.status).toBe(422);
    expect(answer.body.detail).toBe(
      'bad.csv:row 4:column 1: its time lies before the one above it',
    );
  });

  test('empty, of two readings, and with a layout that answers the question', async () => {
    expect((await logs('')).body.detail).toBe('bad.csv:row 1:column 1: the file is empty');
    const dated = 'Time,CPU power [W]\n01/02/2026 10:00:00,45\n01/02/2026 10:00:01,46\n';
    expect((await logs(dated)).body.detail).toContain('may be day-month or month-day');
    const layout = encodeURIComponent(JSON.stringify({ time: { format: 'day-month' } }));
    expect((await logs(dated, `&layout=${layout}`)).status).toBe(201);
    expect((await logs(dated, '&layout=no')).status).toBe(422);
  });

  test('leaves nothing half behind', async () => {
    await logs('nothing\n');
    const folder = join(library().db.folder, 'files');
    const names = readdirSync(folder, { recursive: true }) as string[];
    expect(names.filter((n) => n.includes('.'))).toEqual([]);
    const samples = readdirSync(library().db.folder).includes('samples')
      ? readdirSync(join(library().db.folder, 'samples'))
      : [];
    expect(samples).toEqual([]);
  });
});

test('a run without a log has nothing to say yet; one of another machine is not found', async () => {
  const { id } = await create();
  const made = (await call().post(`/api/machines/${id}/runs`).send(newRun()).expect(201)).body;
  await call().get(`/api/machines/${id}/runs/${made.id}/analysis`).expect(404);
  const other = await create();
  await call().get(`/api/machines/${other.id}/runs/${made.id}/analysis`).expect(404);
});
