import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import pino from 'pino';
import request from 'supertest';
import { createApp } from '../app';
import { openDatabase, type Database } from '../database/openDatabase';
import { temporaryFolder } from './temporaryFolder';

const EXAMPLE = join(__dirname, '../../examples/one-die.json');

/** An application over an empty library, made anew for each test of the file that calls this. */
export function testServer() {
  let db: Database;
  let app: ReturnType<typeof createApp>;
  beforeEach(async () => {
    db = await openDatabase(temporaryFolder());
    app = createApp(db, null, pino({ level: 'silent' }));
  });
  afterEach(() => db.close());
  const host = (r: request.Test) => r.set('Host', '127.0.0.1:4180');
  const call = () => ({
    get: (url: string) => host(request(app).get(url)),
    post: (url: string) => host(request(app).post(url)),
    put: (url: string) => host(request(app).put(url)),
    delete: (url: string) => host(request(app).delete(url)),
  });
  const record = () => JSON.parse(readFileSync(EXAMPLE, 'utf8'));
  const create = async (r: unknown = record()) =>
    (await call().post('/api/machines').send({ record: r }).expect(201)).body;
  return { call, create, record, db: () => db, app: () => app };
}
