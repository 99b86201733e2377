import { appendFileSync, mkdirSync, readdirSync, symlinkSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { csvOf, generatedLog } from '@zugluft/core/test-support/generatedLog';
import { newRun } from '../test-support/newRun';
import { testServer } from '../test-support/testServer';
import { createInbox } from './inbox';

const { call, create, library } = testServer();

const lines = csvOf(
  generatedLog([
    { forS: 30, cpuW: 6, gpuW: 0 },
    { forS: 400, cpuW: 25, gpuW: 0 },
  ]),
).split('\n');
const inbox = () => {
  mkdirSync(library().inbox.folder, { recursive: true });
  return library().inbox.folder;
};

/** A run that follows files of the inbox. */
async function following(...names: string[]) {
  const { id } = await create();
  const run = newRun({ follows: names });
  const url = `/api/machines/${id}/runs`;
  await call().post(url).send(run).expect(201);
  return { url: `${url}/${run.id}`, run };
}

test('the folder is told: logs alone, the newest first', async () => {
  expect((await call().get('/api/inbox').expect(200)).body).toMatchObject({ files: [], more: 0 });
  const folder = inbox();
  writeFileSync(join(folder, 'load.csv'), lines.join('\n'));
  writeFileSync(join(folder, 'notes.md'), 'nothing');
  writeFileSync(join(folder, '.hidden.csv'), 'nothing');
  mkdirSync(join(folder, 'folder.csv'));
  symlinkSync('/etc/hostname', join(folder, 'link.csv'));
  const { files } = (await call().get('/api/inbox').expect(200)).body;
  expect(files.map((f: { name: string }) => f.name)).toEqual(['load.csv']);
});

test('a log that grows is analysed as far as its lines are whole, then taken as it is', async () => {
  const { url, run } = await following('load.csv');
  await call().get(`${url}/analysis`).expect(404);
  const path = join(inbox(), 'load.csv');
  // opened by the logger, nothing written yet
  writeFileSync(path, '');
  expect((await call().get(`${url}/analysis`).expect(404)).body.detail).toBe(
    'load.csv: no row to read yet',
  );
  writeFileSync(path, `${lines.slice(0, 301).join('\n')}\n${lines[301]!.slice(0, 4)}`);
  const first = (await call().get(`${url}/analysis`).expect(200)).body;
  expect(first.log).toMatchObject({ rows: 300, problems: [] });
  expect(first.against).toBeNull();
  appendFileSync(path, `${lines[301]!.slice(4)}\n${lines.slice(302).join('\n')}`);
  const then = (await call().get(`${url}/analysis`).expect(200)).body;
  expect(then.log.rows).toBeGreaterThan(800);
  expect((await call().get(`${url}/series?pixels=10`)).body.lastS).toBeGreaterThan(400);
  // what was read before it grew is gone
  const samples = readdirSync(join(library().db.folder, 'samples'));
  expect(samples.filter((n) => n.startsWith('growing'))).toHaveLength(1);
  const taken = (await call().post(`${url}/take`).send({ file: 'load.csv' }).expect(201)).body;
  expect(taken).toMatchObject({ file: 'load.csv', kind: 'csv', rows: lines.length - 2 });
  const log = { id: 'log-1', file: 'load.csv', kind: 'csv', sha256: taken.sha256 };
  await call()
    .put(`/api/documents/run/${run.id}`)
    .set('If-Match', '"1"')
    .send({ value: { ...run, follows: [], logs: [log] } })
    .expect(200);
  const held = (await call().get(`${url}/analysis`).expect(200)).body;
  expect(held.log.rows).toBe(lines.length - 2);
  expect(held.against).not.toBeNull();
});

test('what cannot be read of a log that grows is told, and what was read before it stays', async () => {
  const { url } = await following('load.csv');
  const path = join(inbox(), 'load.csv');
  writeFileSync(path, `${lines.slice(0, 301).join('\n')}\n`);
  await call().get(`${url}/analysis`).expect(200);
  appendFileSync(path, '3,1,1,1,1,1\n');
  const then = (await call().get(`${url}/analysis`).expect(200)).body;
  expect(then.log.rows).toBe(300);
  expect(then.log.problems).toEqual([
    {
      row: 302,
      column: 'load.csv',
      message: expect.stringContaining('lies before the one above it'),
    },
  ]);
});

test('nothing but a log of the folder is followed or taken', async () => {
  const folder = inbox();
  symlinkSync('/etc/hostname', join(folder, 'link.csv'));
  const { url } = await following();
  for (const file of ['../library.sqlite', '/etc/passwd', 'a/b.csv', '.hidden.csv', 'x.db']) {
    await call().post(`${url}/take`).send({ file }).expect(422);
  }
  for (const file of ['link.csv', 'missing.csv']) {
    await call().post(`${url}/take`).send({ file }).expect(404);
  }
  const other = await following('../../etc/passwd.csv');
  await call().get(`${other.url}/analysis`).expect(422);
});

test('lines end where they end in UTF-16 too', async () => {
  const box = createInbox(inbox());
  const path = join(box.folder, 'wide.csv');
  const whole = Buffer.from('\ufeffTime,CPU power [W]\r\n0,45\r\n', 'utf16le');
  writeFileSync(path, Buffer.concat([whole, Buffer.from('1,4', 'utf16le')]));
  expect(await box.wholeLines(await box.file('wide.csv'))).toBe(whole.length);
});
