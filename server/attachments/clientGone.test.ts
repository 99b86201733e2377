import { once } from 'node:events';
import { createServer, get, type ClientRequest } from 'node:http';
import type { AddressInfo } from 'node:net';
import sharp from 'sharp';
import { testServer } from '../test-support/testServer';
import type { PictureAnswer, PictureJob } from './pictureJobs';

const jobs: { column: number; done: (answer: PictureAnswer) => void }[] = [];
const { app, create, call } = testServer(
  (job: PictureJob) =>
    new Promise<PictureAnswer>((done) => {
      if (job.do === 'tile') jobs.push({ column: job.column, done });
    }),
);

test('a piece of a photo that nobody waits for any more is not made; those behind it are', async () => {
  const { id } = await create();
  const bytes = await sharp({
    create: { width: 60, height: 40, channels: 3, background: '#888' },
  })
    .jpeg()
    .toBuffer();
  const added = await call()
    .post(`/api/machines/${id}/attachments?name=top.jpg`)
    .set('Content-Type', 'application/octet-stream')
    .send(bytes)
    .expect(201);
  const server = createServer(app()).listen(0, '127.0.0.1');
  await once(server, 'listening');
  const { port } = server.address() as AddressInfo;
  let closed = 0;
  server.on('connection', (socket) => socket.once('close', () => closed++));
  const ask = (column: number): ClientRequest => {
    const path = `/api/machines/${id}/attachments/${added.body.id}/tiles/${column}/0`;
    const asked = get({ host: '127.0.0.1', port, path, agent: false });
    asked.on('error', () => undefined);
    return asked;
  };
  const until = async (isSo: () => boolean | Promise<boolean>) => {
    while (!(await isSo())) await new Promise((resolve) => setTimeout(resolve, 5));
  };
  const arrived = () =>
    new Promise<number>((resolve, reject) =>
      server.getConnections((error, n) => (error ? reject(error) : resolve(n))),
    );
  const first = once(ask(1), 'response');
  await until(() => jobs.length === 1);
  const gone = ask(2);
  await until(async () => (await arrived()) === 2);
  const last = once(ask(3), 'response');
  await until(async () => (await arrived()) === 3);
  gone.destroy();
  await until(() => closed === 1);
  const tile = new Uint8Array([0xff, 0xd8, 0xff, 0xd9]);
  jobs[0]!.done({ tile });
  await until(() => jobs.length === 2);
  jobs[1]!.done({ tile });
  for (const [answer] of [await first, await last]) {
    expect(answer.statusCode).toBe(200);
    answer.resume();
  }
  expect(jobs.map((j) => j.column)).toEqual([1, 3]);
  server.close();
  server.closeAllConnections();
});
