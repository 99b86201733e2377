import { testServer } from '../test-support/testServer';

const { call } = testServer();
const list = (headers: Record<string, string>) => call().get('/api/machines').set(headers);

test.each([
  ['another host', { Host: 'reviews.example' }],
  ['another host with this port', { Host: 'reviews.example:4180' }],
  ['a page of another origin', { Origin: 'http://reviews.example' }],
  ['a page of another port', { Origin: 'http://127.0.0.1:9999' }],
  [
    'a picture or script asked for by another site',
    { 'Sec-Fetch-Site': 'cross-site', 'Sec-Fetch-Mode': 'no-cors' },
  ],
])('%s is refused', async (_, headers) => {
  const answer = await list(headers).expect(403);
  expect(answer.body.detail).toMatch(/only$/);
});

test.each([
  ['a form on another site', { 'Sec-Fetch-Site': 'cross-site', 'Sec-Fetch-Mode': 'navigate' }],
  ['a form that does not say where it stands', { 'Sec-Fetch-Mode': 'navigate' }],
])('%s changes nothing', async (_, headers) => {
  const answer = await call().post('/api/machines').set(headers).send({}).expect(403);
  expect(answer.body.detail).toMatch(/only$/);
});

test.each([
  [
    'its own page',
    { Origin: 'http://127.0.0.1:4180', 'Sec-Fetch-Site': 'same-origin', 'Sec-Fetch-Mode': 'cors' },
  ],
  [
    'a link followed from another site',
    { 'Sec-Fetch-Site': 'cross-site', 'Sec-Fetch-Mode': 'navigate' },
  ],
  ['a command without any of these', {}],
])('%s is answered', async (_, headers) => {
  await list(headers).expect(200);
});

test('a page may load from here alone and run no script but its files, inside no other page', async () => {
  const { headers } = await list({}).expect(200);
  const policy = new Map(
    String(headers['content-security-policy'])
      .split(';')
      .map((d) => d.trim().split(' '))
      .map(([name, ...from]) => [name!, from.join(' ')] as const),
  );
  expect(Object.fromEntries(policy)).toMatchObject({
    'default-src': "'self'",
    'script-src': "'self'",
    'object-src': "'none'",
    'frame-ancestors': "'none'",
    'base-uri': "'none'",
    'form-action': "'self'",
  });
  expect(headers['x-content-type-options']).toBe('nosniff');
  expect(headers['cache-control']).toBe('no-store');
});

test.each([
  ['the address', '/api/machines?q=a%00b'],
  ['a path', '/api/machines/%00'],
])('U+0000 in %s is refused', async (_, url) => {
  const answer = await call().get(url).expect(400);
  expect(answer.body.detail).toMatch(/U\+0000/);
});

test('a body that is nested by thousands, holds U+0000 or is no object is refused, none of it an error of the server', async () => {
  const post = (text: string) =>
    call().post('/api/machines').set('Content-Type', 'application/json').send(text);
  for (const [text, words] of [
    [`{"record":${'['.repeat(5000)}${']'.repeat(5000)}}`, /levels deep/],
    ['{"record":{"identity":{"model":"a\\u0000b"}}}', /U\+0000/],
    [`{"record":{"extra":[${'0,'.repeat(250_000)}0]}}`, /values/],
    ['"text"', /no JSON object/],
    ['{"record":', /well-formed/],
  ] as const) {
    const answer = await post(text).expect(400);
    expect(answer.body.detail).toMatch(words);
  }
});

test('keys that nobody knows are refused by their path, in settings and defaults alike', async () => {
  const put = (url: string, body: object) => call().put(url).set('If-Match', '"0"').send(body);
  const errors = async (url: string, body: object) =>
    (await put(url, body).expect(400)).body.errors.map((e: { path: string }) => e.path);
  expect(await errors('/api/settings/house-rules', { dreams: 'yes' })).toEqual(['dreams']);
  expect(await errors('/api/settings/caps', { levelsDbA: [30], other: 1 })).toEqual(['other']);
  const since = '2026-01-02T03:04:05Z';
  const entry = { value: 1, low: 0.9, high: 1.1, since };
  expect(
    await errors('/api/documents/defaults/laboratory', { value: { 'no.such': entry } }),
  ).toEqual(['no.such']);
});
