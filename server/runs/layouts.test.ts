import { newRun, runWithLog } from '../test-support/newRun';
import { testServer } from '../test-support/testServer';
import { csvOf, generatedLog } from '@zugluft/core/test-support/generatedLog';

const { call, create } = testServer();
const rows = (from: number) =>
  Array.from(
    { length: 60 },
    (_, i) =>
      `01/02/2026 10:${String(from + Math.floor(i / 60)).padStart(2, '0')}:${String(i % 60).padStart(2, '0')},45,7`,
  ).join('\n');
const dated = (from: number) => `Time,CPU power [W],Mystery\n${rows(from)}\n`;
const LAYOUT = { time: { format: 'day-month' } };

const begin = async () => {
  const { id } = await create();
  const made = (await call().post(`/api/machines/${id}/runs`).send(newRun()).expect(201)).body;
  const at = `/api/machines/${id}/runs/${made.id}`;
  return {
    at,
    send: (text: string) =>
      call()
        .post(`${at}/logs?file=a.csv`)
        .set('Content-Type', 'application/octet-stream')
        .send(Buffer.from(text)),
  };
};

test('what allows two readings is asked once; what was said holds for every log with that header', async () => {
  const { at, send } = await begin();
  const asked = await send(dated(10)).expect(422);
  expect(asked.body.detail).toMatch(/day-month or month-day/);
  const { sha256 } = asked.body;
  const said = { sha256, file: 'a.csv', layout: LAYOUT };
  const taken = (await call().post(`${at}/layout`).send(said).expect(200)).body;
  expect(taken).toMatchObject({ sha256, rows: 60, layout: LAYOUT });
  // another day, another machine
  const other = await begin();
  const again = (await other.send(dated(20)).expect(201)).body;
  expect(again.layout).toEqual(LAYOUT);
  // another logger is another question
  await other.send(dated(20).replace('Mystery', 'Riddle')).expect(422);
});

test('a log without a column of times asks which one holds them; what no word can mend asks nothing', async () => {
  const { at, send } = await begin();
  const rows60 = Array.from({ length: 60 }, (_, i) => `${i},45`).join('\n');
  const asked = (await send(`Beat,CPU power [W]\n${rows60}\n`).expect(422)).body;
  expect(asked.asks).toEqual(['Beat', 'CPU power [W]']);
  const layout = { time: { column: 'Beat', format: 'seconds' } };
  const said = { sha256: asked.sha256, file: 'a.csv', layout };
  expect((await call().post(`${at}/layout`).send(said).expect(200)).body).toMatchObject({
    rows: 60,
    durationS: 59,
  });
  const broken = (await send('Time [s],CPU power [W]\n0,45\n5,46\n3,47\n').expect(422)).body;
  expect(broken.asks).toBeUndefined();
  expect(broken.sha256).toBeUndefined();
});

test('a log of a new header says that nobody has looked at it; confirmed once it does not', async () => {
  const { at, send } = await begin();
  const text = `Time [s],CPU power [W],Mystery\n${Array.from({ length: 60 }, (_, i) => `${i},45,7`).join('\n')}\n`;
  const first = (await send(text).expect(201)).body;
  expect(first.layout).toBeNull();
  expect(first.sample).toEqual(['45', '7']);
  const layout = { channels: [{ column: 'Mystery', is: 'skinC' }] };
  const said = { sha256: first.sha256, file: 'a.csv', layout };
  const told = (await call().post(`${at}/layout`).send(said).expect(200)).body;
  expect(told.channels.map((c: { is: string }) => c.is)).toEqual(['cpuPowerW', 'skinC']);
  expect((await send(text).expect(201)).body.channels).toEqual(told.channels);
});

test('a layout that does not fit is refused and not remembered; bytes that are not here are missed', async () => {
  const { at, send } = await begin();
  const { sha256 } = (await send(dated(10)).expect(422)).body;
  const wrong = { sha256, file: 'a.csv', layout: { channels: [{ column: 'None', is: 'skinC' }] } };
  expect((await call().post(`${at}/layout`).send(wrong).expect(422)).body.detail).toMatch(
    /no column/,
  );
  await send(dated(10)).expect(422);
  await call()
    .post(`${at}/layout`)
    .send({ ...wrong, sha256: 'b'.repeat(64) })
    .expect(404);
  await call()
    .post(`${at}/layout`)
    .send({ ...wrong, layout: { channels: [{ column: 'x', is: 'nonsense' }] } })
    .expect(400);
});

test('what each run sustained is told for marks, told anew where the run changed', async () => {
  const { id } = await create();
  const csv = csvOf(
    generatedLog(
      [
        { forS: 30, cpuW: 6, gpuW: 0 },
        { forS: 400, cpuW: 25, gpuW: 0 },
      ],
      { levelDbA: () => 38 },
    ),
  );
  const run = await runWithLog(call, id, csv);
  await call().post(`/api/machines/${id}/runs`).send(newRun()).expect(201);
  const steady = async () => (await call().get(`/api/machines/${id}/runs/steady`)).body.items;
  const [first, second] = await steady();
  expect(first.states[0].means.cpuPowerW.mean).toBeCloseTo(25, 0);
  expect(second).toMatchObject({ states: [], lacks: expect.stringMatching(/no log/) });
  await call()
    .put(`/api/documents/run/${run.id}`)
    .set('If-Match', `"${run.revision}"`)
    .send({ value: { ...run.run, steady: [{ fromS: 5, toS: 20, chosenBy: 'person' }] } })
    .expect(200);
  expect((await steady())[0].states[0].means.cpuPowerW.mean).toBeCloseTo(6, 0);
});

test('every run of the library is held against its record, and says what it lacks', async () => {
  const { id } = await create();
  const csv = csvOf(
    generatedLog(
      [
        { forS: 30, cpuW: 6, gpuW: 0 },
        { forS: 400, cpuW: 25, gpuW: 0 },
      ],
      { levelDbA: () => 38 },
    ),
  );
  const run = await runWithLog(call, id, csv, { name: 'first', use: 'hold-out' });
  await call().post(`/api/machines/${id}/runs`).send(newRun()).expect(201);
  const { body } = await call().get('/api/runs').expect(200);
  expect(body.total).toBe(2);
  const told = body.items.find((r: { id: string }) => r.id === run.id);
  expect(told).toMatchObject({ machineId: id, name: 'first', use: 'hold-out', lacks: null });
  const { measuredW, p05, p50, p95, inBand, held } = told.against;
  expect(measuredW).toBeCloseTo(25, 0);
  expect(p05).toBeLessThan(p50);
  expect(inBand).toBe(held ? measuredW <= p95 : measuredW >= p05 && measuredW <= p95);
  // a default of the laboratory changes what its record foretells
  await call()
    .put('/api/defaults/finStacks.uaFactor')
    .set('If-Match', '"0"')
    .send({ value: 0.4, low: 0.3, high: 0.5, note: '' })
    .expect(200);
  const [again] = (await call().get('/api/runs').expect(200)).body.items.filter(
    (r: { id: string }) => r.id === run.id,
  );
  expect(again.against.p50).toBeLessThan(0.95 * p50);
  const planned = body.items.find((r: { id: string }) => r.id !== run.id);
  expect(planned).toMatchObject({ against: null, lacks: expect.stringMatching(/no log/) });
  await call().get('/api/runs?page=0').expect(400);
});
