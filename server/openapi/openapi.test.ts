import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import sharp from 'sharp';
import { z } from 'zod';
import { runWithLog } from '../test-support/newRun';
import { testServer } from '../test-support/testServer';
import { openApiDocument } from './openApiDocument';
import { ROUTES } from './routes';

const { call, create, app } = testServer();

interface Layer {
  route?: { path: string; methods: Record<string, boolean> };
  handle?: { stack?: Layer[] };
}

/** Every route that the running application has: method and the last part of its address. */
function routesOf(stack: readonly Layer[]): { method: string; path: string }[] {
  return stack.flatMap(({ route, handle }) =>
    route
      ? Object.keys(route.methods).map((method) => ({ method, path: String(route.path) }))
      : routesOf(handle?.stack ?? []),
  );
}

test('the document in docs is that of this program', () => {
  expect(readFileSync(join(__dirname, '../../docs/format/openapi.json'), 'utf8')).toBe(
    openApiDocument(),
  );
});

test('every route of the running server is described, and nothing else', () => {
  const running = routesOf((app() as unknown as { router: { stack: Layer[] } }).router.stack);
  expect(running).toHaveLength(ROUTES.length);
  const shape = (path: string) => path.replace(/:\w+/g, '{}').replace(/\{\w+\}/g, '{}');
  const described = ROUTES.map((r) => `${r.method} ${shape(r.path)}`);
  for (const { method, path } of running) {
    const tail = shape(path === '/' ? '' : path);
    expect(described.some((d) => d.startsWith(`${method} `) && d.endsWith(tail))).toBe(true);
  }
});

/** An address with something that is there in place of each parameter. */
async function addresses() {
  const machine = await create();
  const picture = await sharp({
    create: { width: 40, height: 30, channels: 3, background: '#cba' },
  })
    .png()
    .toBuffer();
  const photo = (
    await call()
      .post(`/api/machines/${machine.id}/attachments?name=a.png`)
      .set('Content-Type', 'application/octet-stream')
      .send(picture)
      .expect(201)
  ).body;
  const rows = Array.from({ length: 240 }, (_, i) => `${i},${25 + (i % 2)},70,3000`);
  const load = ['Time [s],CPU power [W],CPU temperature [°C],fanRpm.fan', ...rows, ''].join('\n');
  const run = await runWithLog(call, machine.id, load);
  const log = { format: 'zugluft-openup', formatVersion: 1, steps: [{ id: 'a', name: 'Cover' }] };
  await call().put(`/api/machines/${machine.id}/log`).set('If-Match', '"0"').send({ log });
  const edition = (await call().post(`/api/machines/${machine.id}/editions`).send({}).expect(201))
    .body;
  const values: Record<string, string> = {
    id: machine.id,
    file: photo.id,
    run: run.id,
    number: String(edition.number),
    name: edition.files[0].name,
    revision: '1',
    kind: 'record',
    key: 'fans.psi',
    table: 'machines',
    column: '0',
    row: '0',
  };
  return (path: string) =>
    path
      .replace('settings/{key}', 'settings/rubric')
      .replace(/\{(\w+)\}/g, (_, name: string) => values[name]!);
}

test('what is read is answered as described', async () => {
  const at = await addresses();
  for (const { method, path, answer } of ROUTES) {
    if (method !== 'get') continue;
    const found = await call().get(at(path)).buffer(true);
    expect([path, found.status]).toEqual([path, 200]);
    if (typeof answer === 'string') {
      expect(found.headers['content-type']).toMatch(new RegExp(`^${answer.replace('*', '.*')}`));
    } else {
      const read = z.safeParse(answer, found.body);
      expect([path, read.error?.issues]).toEqual([path, undefined]);
    }
  }
});

test('every change says that it needs the revision seen, and needs it', async () => {
  const at = await addresses();
  for (const { method, path, lock } of ROUTES) {
    if (!lock) continue;
    const send = { put: call().put, post: call().post, delete: call().delete }[
      method as 'put' | 'post' | 'delete'
    ];
    const body = path.endsWith('state-name')
      ? { name: 'dusty' }
      : path === '/api/machines/{id}'
        ? { record: {} }
        : path.endsWith('/log')
          ? { log: {} }
          : path.endsWith('{kind}/{id}')
            ? { value: {} }
            : {};
    const answer = await send(at(path)).send(method === 'delete' ? undefined : body);
    expect([method, path, answer.status]).toEqual([method, path, 428]);
  }
});
