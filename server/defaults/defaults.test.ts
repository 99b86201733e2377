import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import pino from 'pino';
import request from 'supertest';
import { createApp } from '../app';
import { openDatabase, type Database } from '../database/openDatabase';
import { listQuery } from '../machines/machineList';
import { createMachineStore } from '../machines/machineStore';
import { temporaryFolder } from '../test-support/temporaryFolder';
import { createDefaultStore } from './defaultStore';

let db: Database;
let app: ReturnType<typeof createApp>;
const send = (method: 'get' | 'put' | 'delete', key: string, body?: object) => {
  const r = request(app)[method](`/api/defaults${key}`).set('Host', '127.0.0.1:4180');
  return body ? r.send(body) : r;
};

beforeEach(async () => {
  db = await openDatabase(temporaryFolder());
  app = createApp(db, null, pino({ level: 'silent' }));
});
afterEach(() => db.close());

test('a lab sets a default, changes it, and goes back; every change is kept', async () => {
  const entry = { value: 0.8, low: 0.7, high: 0.9, note: 'own wind tunnel' };
  await send('put', '/finStacks.uaFactor', entry).expect(200);
  await send('put', '/finStacks.uaFactor', { ...entry, value: 0.75 }).expect(200);
  const { body } = await send('get', '').expect(200);
  expect(body.items['finStacks.uaFactor']).toMatchObject({ ...entry, value: 0.75 });
  expect((await send('delete', '/finStacks.uaFactor').expect(200)).body.items).toEqual({});
  expect(await db.models.LabDefault.count()).toBe(3);
});

test.each<[string, string, object, number, string]>([
  ['an unknown key', '/no.such', { value: 1, low: 1, high: 1 }, 404, ''],
  ['a range the wrong way round', '/fans.psi', { value: 1, low: 1.2, high: 1.4 }, 422, 'low'],
  ['a share above one', '/fans.leakage', { value: 0.5, low: 0.1, high: 1.5 }, 422, 'high'],
  ['a slip of the unit', '/dies.thicknessMm', { value: 0.8, low: 0.7, high: 9000 }, 422, 'high'],
  ['zero where nothing may be zero', '/fans.phi', { value: 0, low: 0, high: 0.1 }, 422, 'value'],
  ['text', '/fans.phi', { value: 'much', low: 0, high: 0.1 }, 400, 'value'],
  ['more than asked for', '/fans.phi', { value: 0.1, low: 0.1, high: 0.1, x: 1 }, 400, ''],
])('%s is refused', async (_, key, body, status, path) => {
  const answer = await send('put', key, body).expect(status);
  if (path) expect(answer.body.errors.map((e: { path: string }) => e.path)).toContain(path);
  expect(await db.models.LabDefault.count()).toBe(0);
});

test('the list’s watts follow the lab’s defaults, and records stay as they are', async () => {
  const defaults = createDefaultStore(db);
  const store = createMachineStore(db, defaults.current);
  const record = JSON.parse(
    readFileSync(join(__dirname, '../../examples/two-fan-shared-pipes.json'), 'utf8'),
  );
  const made = await store.create(record);
  const watts = async () => (await store.list(listQuery.parse({}))).items[0]!;
  const before = await watts();
  await defaults.set('finStacks.uaFactor', { value: 0.5, low: 0.4, high: 0.6, note: '' });
  expect(await store.recompute()).toBe(1);
  const after = await watts();
  expect(after.togetherFullW!).toBeLessThan(before.togetherFullW! - 5);
  expect(after.updatedAt).toBe(before.updatedAt);
  expect((await store.read(made.id)).revision).toBe(1);
});

test('a library of the first version opens with everything in it', async () => {
  const folder = temporaryFolder();
  const first = await openDatabase(folder);
  const store = createMachineStore(first);
  const made = await store.create({ format: 'zugluft-record', formatVersion: 1 });
  await first.sequelize.query('DROP TABLE lab_defaults');
  await first.sequelize.query("DELETE FROM migrations WHERE name = '0002-lab-defaults'");
  await first.close();
  const again = await openDatabase(folder);
  expect((await createMachineStore(again).read(made.id)).record).toEqual(made.record);
  expect(await createDefaultStore(again).current()).toEqual({});
  await again.close();
});
