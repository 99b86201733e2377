import { strToU8, zipSync } from 'fflate';
import { exchangeAt } from '../test-support/exchange';
import { testServer } from '../test-support/testServer';

const { call, create, record } = testServer();
const { send, actions, download } = exchangeAt(call);

test('what is taken at one door is taken at every other, and what is too much is refused at each', async () => {
  const made = await create();
  const json = (r: ReturnType<ReturnType<typeof call>['post']>, text: string) =>
    r.set('Content-Type', 'application/json').send(text);
  const doors: Record<string, (text: string) => Promise<number>> = {
    post: async (r) => (await json(call().post('/api/machines'), `{"record":${r}}`)).status,
    put: async (r) =>
      (await json(call().put(`/api/machines/${made.id}`).set('If-Match', '"1"'), `{"record":${r}}`))
        .status,
    import: async (r) => {
      const { status, body } = await send(r, '&apply=1');
      return status === 200 && body.items[0].action !== 'refused' ? 200 : 400;
    },
  };
  const nested = (levels: number) => '['.repeat(levels) + ']'.repeat(levels);
  /** A record with more in it, as its text. */
  const grown = (extra: string) =>
    JSON.stringify({ ...record(), extra: 0 }).replace('"extra":0', `"extra":${extra}`);
  for (const [name, door] of Object.entries(doors)) {
    for (const [what, extra] of [
      ['too deep', nested(40)],
      ['5,000 levels', nested(5000)],
      ['too many values', `[${'1,'.repeat(100_000)}1]`],
      ['U+0000', '"a\\u0000b"'],
      ['too large', `"${'x'.repeat(1024 * 1024)}"`],
    ] as const) {
      const status = await door(grown(extra));
      expect([name, what, status >= 400 && status < 500]).toEqual([name, what, true]);
    }
  }
  // much, but not too much: it goes out and comes back
  const deep = '['.repeat(20) + `[${'1,'.repeat(90_000)}1]` + ']'.repeat(20);
  const large = JSON.parse(grown(deep)) as object;
  const { id } = (await call().post('/api/machines').send({ record: large }).expect(201)).body;
  const file = await download(`/api/exchange/machines/${id}.json`);
  expect(JSON.parse(file.toString())).toEqual(large);
  expect(file.length).toBeLessThan(1024 * 1024);
});

test.each([
  ['nothing', '', /empty/],
  ['a picture', Buffer.from([0x89, 0x50, 0x4e, 0x47, 0, 1, 2]), /neither JSON nor CSV/],
  ['prose', 'Dear colleague,\nhere is the file.', /none of the columns/],
  ['half a record', '{"format":"zugluft-record"', /well-formed/],
  ['bytes that are no text', Buffer.from([0x7b, 0xff, 0xfe]), /UTF-8/],
  ['half a zip', Buffer.from('PK\u0003\u0004rubbish that ends here'), /unpacked|refused/],
])('%s is refused as a whole, with words', async (_, bytes, words) => {
  const answer = await send(bytes);
  if (answer.status === 200) expect(answer.body.items).toEqual([]);
  else {
    expect(answer.status).toBe(422);
    expect(answer.body.detail).toMatch(words);
  }
});

test('JSON 40 levels deep is refused, 32 levels are taken', async () => {
  const nested = (levels: number) => {
    let inside: unknown = 1;
    for (let i = 0; i < levels - 1; i++) inside = { x: inside };
    return JSON.stringify({ ...record(), extra: inside });
  };
  expect((await send(nested(40))).body.detail).toMatch(/32 levels/);
  expect(await actions(nested(32))).toEqual(['new']);
  expect((await send(nested(33))).status).toBe(422);
});

test('a zip bomb is stopped while it unpacks', async () => {
  const bomb = zipSync({ 'records/a.json': new Uint8Array(30 * 1024 * 1024) }, { level: 9 });
  expect(bomb.length).toBeLessThan(60_000);
  const answer = await send(bomb);
  expect(answer.status).toBe(422);
  expect(answer.body.detail).toMatch(/more than is taken/);
  // one that lies about what it unpacks to
  const lie = Buffer.from(zipSync({ 'records/a.json': strToU8(JSON.stringify(record())) }));
  const central = lie.indexOf(Buffer.from([0x50, 0x4b, 1, 2]));
  lie.writeUInt32LE(10, central + 24);
  const { body } = await send(lie).expect(200);
  expect(body.items[0]).toMatchObject({
    action: 'refused',
    reasons: [{ message: 'cannot be unpacked' }],
  });
});

test('names of 10 000 characters, emoji, right-to-left text and scripts', async () => {
  const named = (model: string) => JSON.stringify({ ...record(), identity: { model } });
  expect(await actions(named('x'.repeat(10_000)))).toEqual(['refused']);
  for (const model of ['Heron 😀', 'דגם עשר', '<script>alert(1)</script>', '../../etc/passwd']) {
    const { body } = await send(named(model), '&apply=1').expect(200);
    const made = (await call().get(`/api/machines/${body.items[0].machineId}`)).body;
    expect(made.record.identity.model).toBe(model);
    const answer = await call().get(`/api/exchange/machines/${made.id}.json`).expect(200);
    expect(answer.headers['content-disposition']).not.toMatch(/[<>]|\.\./);
  }
});

test('a file of more than 25 MB is refused before it is read', async () => {
  const answer = await send(Buffer.alloc(25 * 1024 * 1024 + 1, 0x20));
  expect(answer.status).toBe(413);
  expect(answer.body.detail).toMatch(/25 MB/);
});
