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
