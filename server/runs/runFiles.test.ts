import { csvOf, generatedLog } from '@zugluft/core/test-support/generatedLog';
import { strToU8, unzipSync, zipSync } from 'fflate';
import Papa from 'papaparse';
import pino from 'pino';
import request from 'supertest';
import { createApp } from '../app';
import { asBytes } from '../test-support/asBytes';
import { newRun, runWithLog } from '../test-support/newRun';
import { testLibrary, testServer } from '../test-support/testServer';

const { call, create, library } = testServer();

const LEVELS = [
  { forS: 30, cpuW: 6, gpuW: 0 },
  { forS: 600, cpuW: 25, gpuW: 0 },
];
const csv = csvOf(generatedLog(LEVELS, { levelDbA: () => 38 }));
const bytesOf = async (path: string): Promise<Buffer> => {
  const answer = await call().get(path).buffer(true).parse(asBytes).expect(200);
  return answer.body as Buffer;
};
const bring = (machineId: string, body: Uint8Array) =>
  call()
    .post(`/api/machines/${machineId}/runs/import`)
    .set('Content-Type', 'application/octet-stream')
    .send(Buffer.from(body));

test('a run goes out as a zip and comes back to another machine with its log, its figures and what was foretold', async () => {
  const { id } = await create();
  const run = await runWithLog(call, id, csv, { name: 'first', extra: { kept: [1, null] } });
  await library().db.models.Run.update(
    {
      prediction: JSON.stringify({
        madeAt: '2026-01-01T00:00:00.000Z',
        cap: 'full',
        watts: { p05: 1, p50: 2, p95: 3 },
      }),
    },
    { where: { id: run.id } },
  );
  const zip = await bytesOf(`/api/machines/${id}/runs/${run.id}/run.zip`);
  const files = unzipSync(zip);
  expect(Object.keys(files).sort()).toEqual(['logs/1-load.csv', 'run.json', 'samples.csv']);
  expect(Buffer.from(files['logs/1-load.csv']!).toString()).toBe(csv);
  const samples = Papa.parse<string[]>(Buffer.from(files['samples.csv']!).toString().trim()).data;
  expect(samples[0]).toEqual(['timeS', 'cpuPowerW', 'gpuPowerW', 'cpuC', 'gpuC', 'levelDbA']);
  // a header and one row for each half second
  expect(samples).toHaveLength(1 + 1260);

  const other = await create();
  const back = (await bring(other.id, zip).expect(201)).body;
  // the id is the first machine’s run already
  expect(back.id).not.toBe(run.id);
  expect(back.run).toMatchObject({ name: 'first', extra: { kept: [1, null] } });
  expect(back.run.prediction).toBeUndefined();
  const now = (await call().get(`/api/machines/${other.id}/runs`)).body.items[0];
  expect(now.prediction).toMatchObject({ watts: { p50: 2 }, imported: true });
  const [before, after] = await Promise.all(
    [`${id}/runs/${run.id}`, `${other.id}/runs/${back.id}`].map(
      async (at) => (await call().get(`/api/machines/${at}/analysis`).expect(200)).body.steady,
    ),
  );
  expect(after).toEqual(before);
  // once more into the machine that has it: it stays as it is
  expect((await bring(id, zip).expect(200)).body.revision).toBe(run.revision);
});

test('samples of a run are a log that the program reads, with the same figures', async () => {
  const { id } = await create();
  const run = await runWithLog(call, id, csv);
  const url = `/api/machines/${id}/runs`;
  const files = unzipSync(await bytesOf(`${url}/${run.id}/run.zip`));
  const again = await runWithLog(call, id, Buffer.from(files['samples.csv']!).toString());
  const steady = async (at: string) =>
    (await call().get(`${url}/${at}/analysis`).expect(200)).body.steady[0].cpuPowerW.mean;
  expect(await steady(again.id)).toBeCloseTo(await steady(run.id), 4);
});

test('the document alone is taken; its logs are missed in words', async () => {
  const { id } = await create();
  const run = newRun({
    logs: [{ id: 'log-1', file: 'gone.csv', kind: 'csv', sha256: 'a'.repeat(64) }],
  });
  const { body } = await bring(id, strToU8(JSON.stringify(run))).expect(201);
  const answer = await call().get(`/api/machines/${id}/runs/${body.id}/analysis`).expect(404);
  expect(answer.body.detail).toMatch(/not here/);
  // as JSON it is taken as well
  const plain = newRun({ name: 'typed' });
  const made = await call().post(`/api/machines/${id}/runs/import`).send(plain).expect(201);
  expect(made.body.run).toMatchObject({ name: 'typed' });
  // it goes out again as far as it is here
  const files = unzipSync(await bytesOf(`/api/machines/${id}/runs/${body.id}/run.zip`));
  expect(Object.keys(files)).toEqual(['run.json']);
});

test.each([
  ['nothing', new Uint8Array(0), /empty/],
  ['prose', strToU8('Dear colleague'), /neither a zip nor JSON/],
  ['no run', strToU8('{"format":"zugluft-record"}'), /run/],
  ['half a zip', strToU8('PKhalf'), /unpacked/],
  ['a zip without a run', zipSync({ 'a.txt': strToU8('x') }), /no run\.json/],
  [
    'a zip of two',
    zipSync({ 'a/run.json': strToU8('{}'), 'b/run.json': strToU8('{}') }),
    /more than one/,
  ],
  ['a zip with a broken run', zipSync({ 'run.json': strToU8('{') }), /JSON/],
])('%s is refused in words, and nothing is written', async (_, bytes, words) => {
  const { id } = await create();
  const answer = await bring(id, bytes);
  expect([400, 422]).toContain(answer.status);
  expect(JSON.stringify(answer.body)).toMatch(words);
  expect((await call().get(`/api/machines/${id}/runs`)).body.total).toBe(0);
});

test('a log that is not the one the run names is refused', async () => {
  const { id } = await create();
  const run = newRun({
    logs: [{ id: 'log-1', file: 'load.csv', kind: 'csv', sha256: 'a'.repeat(64) }],
  });
  const zip = zipSync({
    'run.json': strToU8(JSON.stringify(run)),
    'logs/1-load.csv': strToU8(csv),
  });
  expect((await bring(id, zip).expect(422)).body.detail).toMatch(/not the log that the run names/);
  expect((await call().get(`/api/machines/${id}/runs`)).body.total).toBe(0);
});

test('runs go with the library into an empty one, and steady.csv tells what each sustained', async () => {
  const { id } = await create();
  const run = await runWithLog(call, id, csv, { name: '=1+1', use: 'hold-out' });
  const text = (await bytesOf('/api/exchange/steady.csv')).toString().replace(/^\ufeff/, '');
  const [row] = Papa.parse<Record<string, string>>(text, { header: true }).data;
  expect(row).toMatchObject({
    machine: id,
    run: run.id,
    name: "'=1+1",
    use: 'hold-out',
    on: 'both',
  });
  expect(Math.abs(Number(row!['cpuPowerW']) - 25)).toBeLessThan(0.5);
  expect(Number(row!['cpuPowerW ±'])).toBeGreaterThan(0.1);
  expect(Math.abs(Number(row!['levelDbA']) - 38)).toBeLessThan(0.5);

  const zip = await bytesOf('/api/exchange/library.zip');
  expect(Object.keys(unzipSync(zip))).toEqual(
    expect.arrayContaining(['steady.csv', expect.stringMatching(/^runs\/.*\/001\/run\.json$/)]),
  );
  const opened = await testLibrary();
  const app = createApp(opened, null, pino({ level: 'silent' }));
  const at = (r: request.Test) => r.set('Host', '127.0.0.1:4180');
  const send = () =>
    at(request(app).post('/api/exchange/import?apply=1'))
      .set('Content-Type', 'application/octet-stream')
      .send(zip);
  expect((await send()).body.items).toMatchObject([{ action: 'new', runs: 1, reasons: [] }]);
  const runs = (await at(request(app).get(`/api/machines/${id}/runs`))).body.items;
  expect(runs).toMatchObject([{ id: run.id, run: { name: '=1+1', use: 'hold-out' } }]);
  const analysis = await at(request(app).get(`/api/machines/${id}/runs/${run.id}/analysis`));
  expect(analysis.status).toBe(200);
  // a second time it brings nothing
  expect((await send()).body.items).toMatchObject([{ action: 'same', runs: 0 }]);
  await opened.close();
});
