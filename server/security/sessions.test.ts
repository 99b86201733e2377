import pino from 'pino';
import request from 'supertest';
import { createApp } from '../app';
import { testLibrary } from '../test-support/testServer';
import type { Library } from '../library';
import { LOOPBACK_ONLY, type Access } from './access';
import { hashPassphrase } from './passphrase';

const RECORD = { format: 'zugluft-record', formatVersion: 1 };
let library: Library;
let hashes: { member: string; guest: string };
beforeAll(async () => {
  hashes = {
    member: await hashPassphrase('quiet fans blow'),
    guest: await hashPassphrase('only looking'),
  };
});
beforeEach(async () => {
  library = await testLibrary();
});
afterEach(() => library.close());

/** An application that wants to be signed in to. */
function closed(change: Partial<Access> = {}) {
  const access = {
    ...LOOPBACK_ONLY,
    passphrase: hashes.member,
    guestPassphrase: hashes.guest,
    ...change,
  };
  const app = createApp(library, null, pino({ level: 'silent' }), null, access);
  const host = (r: request.Test) => r.set('Host', '127.0.0.1:4180');
  const call = {
    get: (url: string, cookie = '') => host(request(app).get(url)).set('Cookie', cookie),
    post: (url: string, cookie = '') => host(request(app).post(url)).set('Cookie', cookie),
    put: (url: string, cookie = '') => host(request(app).put(url)).set('Cookie', cookie),
    delete: (url: string, cookie = '') => host(request(app).delete(url)).set('Cookie', cookie),
  };
  const signIn = async (name: string, passphrase = 'quiet fans blow') => {
    const answer = await call.post('/api/session').send({ name, passphrase }).expect(200);
    const [cookie] = answer.headers['set-cookie'] as unknown as string[];
    return { cookie: cookie!.split(';')[0]!, said: cookie!, body: answer.body };
  };
  return { call, signIn };
}

test('without a session nothing is answered but whether it is there, and how to sign in', async () => {
  const { call } = closed();
  for (const url of [
    '/api/machines',
    '/api/machines/00000000-0000-4000-8000-000000000000',
    '/api/exchange/library.zip',
    '/api/settings',
    '/api/sessions',
    '/api/inbox',
  ]) {
    const { body } = await call.get(url).expect(401);
    expect(body.detail).toBe('sign in first');
  }
  await call.post('/api/machines').send({ record: RECORD }).expect(401);
  await call.get('/api/health').expect(200);
  const { body } = await call.get('/api/session').expect(200);
  expect(body).toEqual({ needed: true, name: null, role: null });
  // a cookie of nobody
  await call.get('/api/machines', `zugluft_session=${'a'.repeat(43)}`).expect(401);
});

test('who signs in is let in by a cookie that no script reads and no other site sends; each revision says who', async () => {
  const { call, signIn } = closed();
  const ada = await signIn('Ada');
  expect(ada.said).toMatch(/HttpOnly/);
  expect(ada.said).toMatch(/SameSite=Strict/);
  expect(ada.said).not.toMatch(/Secure/);
  expect(ada.body).toEqual({ needed: true, name: 'Ada', role: 'member' });
  const bo = await signIn('Bo');
  const made = (await call.post('/api/machines', ada.cookie).send({ record: RECORD }).expect(201))
    .body;
  await Promise.all(
    // at once, so that they share a transaction
    [ada, bo].map(({ cookie }, k) =>
      call
        .put(`/api/settings/${['caps', 'felt'][k]!}`, cookie)
        .set('If-Match', `"${k}"`)
        .send(k ? { ask: true } : { levelsDbA: [30] }),
    ),
  );
  await call
    .put(`/api/machines/${made.id}`, bo.cookie)
    .set('If-Match', '"1"')
    .send({ record: { ...RECORD, extra: 1 } })
    .expect(200);
  // many at once wait for each other: each is still its writer's
  const many = await Promise.all(
    Array.from({ length: 10 }, (_, k) =>
      call.post('/api/machines', [ada, bo][k % 2]!.cookie).send({ record: RECORD }),
    ),
  );
  for (const [k, { body }] of many.entries()) {
    const { items } = (
      await call.get(`/api/documents/record/${body.id}/revisions`, ada.cookie).expect(200)
    ).body;
    expect(items[0].by).toBe(k % 2 ? 'Bo' : 'Ada');
  }
  const history = await call
    .get(`/api/documents/record/${made.id}/revisions`, ada.cookie)
    .expect(200);
  expect(history.body.items.map((r: { by: string }) => r.by)).toEqual(['Bo', 'Ada']);
});

test('guests look at everything and change nothing', async () => {
  const { call, signIn } = closed();
  const { cookie, body } = await signIn('Gast', 'only looking');
  expect(body.role).toBe('guest');
  await call.get('/api/machines', cookie).expect(200);
  const refused = await call.post('/api/machines', cookie).send({ record: RECORD }).expect(403);
  expect(refused.body.detail).toMatch(/change nothing/);
  expect((await call.get('/api/machines', cookie)).body.total).toBe(0);
});

test('sessions are listed and ended, one’s own by signing out', async () => {
  const { call, signIn } = closed();
  const [ada, bo] = [await signIn('Ada'), await signIn('Bo')];
  const { items } = (await call.get('/api/sessions', ada.cookie).expect(200)).body;
  expect(items.map((s: { name: string; own: boolean }) => [s.name, s.own])).toEqual([
    ['Ada', true],
    ['Bo', false],
  ]);
  expect(JSON.stringify(items)).not.toContain(bo.cookie.split('=')[1]!);
  await call.delete(`/api/sessions/${items[1].id}`, ada.cookie).expect(200);
  await call.get('/api/machines', bo.cookie).expect(401);
  await call.delete('/api/session', ada.cookie).expect(200);
  await call.get('/api/machines', ada.cookie).expect(401);
});

test('who signs in anew lets go of the session before', async () => {
  const { call, signIn } = closed();
  const first = await signIn('Ada');
  await call
    .post('/api/session', first.cookie)
    .send({ name: 'Bo', passphrase: 'quiet fans blow' })
    .expect(200);
  await call.get('/api/machines', first.cookie).expect(401);
});

test('wrong passphrases are refused at their field, and after ten of them nobody may try for a while', async () => {
  const { call, signIn } = closed();
  const attempt = (passphrase: string) =>
    call.post('/api/session').send({ name: 'Eve', passphrase });
  const wrong = await attempt('quiet fans').expect(401);
  expect(wrong.body.errors[0].path).toBe('passphrase');
  await call.post('/api/session').send({ name: ' ', passphrase: 'x' }).expect(400);
  await call
    .post('/api/session')
    .send({ name: 'a', passphrase: 'x'.repeat(201) })
    .expect(400);
  // those that are right do not count
  for (let k = 0; k < 3; k++) await signIn('Ada');
  for (let k = 0; k < 7; k++) await attempt(`guess ${k}`).expect(401);
  const { body } = await attempt('quiet fans blow').expect(429);
  expect(body.detail).toMatch(/wait/);
});

test('over TLS the cookie goes over TLS alone, and browsers are told to stay there', async () => {
  const { call, signIn } = closed({ tls: { cert: Buffer.from(''), key: Buffer.from('') } });
  expect((await signIn('Ada')).said).toMatch(/Secure/);
  const { headers } = await call.get('/api/health').expect(200);
  expect(headers['strict-transport-security']).toMatch(/max-age/);
});

test('it answers on the names that are allowed, and on no others', async () => {
  const { call } = closed({ names: new Set(['127.0.0.1', 'lab.example']) });
  const at = (host: string, origin = '') =>
    call
      .get('/api/session')
      .set('Host', host)
      .set(origin ? { Origin: origin } : {});
  await at('lab.example:4180').expect(200);
  await at('LAB.example').expect(200);
  await at('lab.example', 'https://lab.example').expect(200);
  await at('lab.example', 'https://other.example').expect(403);
  await at('localhost:4180').expect(403);
  await at('lab.example.evil').expect(403);
});

test('where nobody signs in all is as before', async () => {
  const { call } = closed({ passphrase: null, guestPassphrase: null });
  await call.post('/api/machines').send({ record: RECORD }).expect(201);
  expect((await call.get('/api/session')).body).toEqual({ needed: false, name: null, role: null });
  const answer = await call.post('/api/session').send({}).expect(200);
  expect(answer.headers['set-cookie']).toBeUndefined();
});
