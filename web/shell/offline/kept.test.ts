import { readPastWorker, requestKind } from './kept';

const ORIGIN = 'http://127.0.0.1:4180';
const ID = '0b7c9d1e-1111-4222-8333-444455556666';
const kind = (method: string, path: string) => requestKind(method, new URL(path, ORIGIN), ORIGIN);

test.each([
  ['GET', `/api/machines/${ID}`, 'answer'],
  ['GET', `/api/machines/${ID}/log`, 'answer'],
  ['GET', `/api/machines/${ID}/attachments?page=1`, 'answer'],
  ['GET', '/api/settings', 'answer'],
  ['GET', `/api/documents/log/${ID}`, 'answer'],
  ['GET', '/api/documents/settings/laboratory', 'answer'],
  ['PUT', `/api/documents/record/${ID}`, 'write'],
  ['PUT', `/api/machines/${ID}/log`, 'write'],
  ['PUT', `/api/machines/${ID}`, 'write'],
  // a unit's answer is not a machine's, photos are large, lists change, downloads are files
  ['PUT', `/api/machines/${ID}/unit`, 'other'],
  ['PUT', '/api/settings/rubric', 'other'],
  ['GET', `/api/documents/record/${ID}/revisions`, 'other'],
  ['POST', `/api/documents/record/${ID}/put-aside`, 'other'],
  ['POST', `/api/machines/${ID}/attachments`, 'other'],
  ['GET', `/api/machines/${ID}/attachments/${ID}/content`, 'other'],
  ['GET', '/api/machines?q=a', 'other'],
  ['GET', '/api/exchange/library.zip', 'other'],
  ['GET', `/api/machines/${ID}/guide.html`, 'other'],
  ['GET', '/api/health', 'other'],
  ['GET', '/machines/x/open-up/bench', 'other'],
  ['GET', '/assets/main-abc.js', 'other'],
])('%s %s is %s', (method, path, expected) => {
  expect(kind(method, path)).toBe(expected);
});

test('another origin is left alone', () => {
  expect(requestKind('GET', new URL(`http://127.0.0.1:9/api/machines/${ID}`), ORIGIN)).toBe(
    'other',
  );
});

test('what came without the worker is told, of answers alone', () => {
  const entry = (path: string, workerStart: number) => ({ name: `${ORIGIN}${path}`, workerStart });
  expect(
    readPastWorker([
      entry('/api/settings', 0),
      entry(`/api/machines/${ID}`, 12.5),
      entry('/assets/main-abc.js', 0),
    ]),
  ).toEqual([`${ORIGIN}/api/settings`]);
});
