import { requestKind } from './kept';

const ORIGIN = 'http://127.0.0.1:4180';
const ID = '0b7c9d1e-1111-4222-8333-444455556666';
const kind = (method: string, path: string, mode = 'cors') =>
  requestKind(method, mode, new URL(path, ORIGIN), ORIGIN);

test.each([
  ['GET', '/machines/x/open-up/bench', 'navigate', 'page'],
  ['GET', '/assets/main-abc.js', 'cors', 'program'],
  ['GET', `/api/machines/${ID}`, 'cors', 'answer'],
  ['GET', `/api/machines/${ID}/log`, 'cors', 'answer'],
  ['GET', `/api/machines/${ID}/attachments?page=1`, 'cors', 'answer'],
  ['GET', '/api/settings', 'cors', 'answer'],
  ['PUT', `/api/machines/${ID}/log`, 'cors', 'write'],
  ['PUT', `/api/machines/${ID}`, 'cors', 'write'],
  // a unit's answer is not a machine's, photos are large, lists change, downloads are files
  ['PUT', `/api/machines/${ID}/unit`, 'cors', 'other'],
  ['POST', `/api/machines/${ID}/attachments`, 'cors', 'other'],
  ['GET', `/api/machines/${ID}/attachments/${ID}/content`, 'cors', 'other'],
  ['GET', '/api/machines?q=a', 'cors', 'other'],
  ['GET', '/api/exchange/library.zip', 'navigate', 'other'],
  ['GET', `/api/machines/${ID}/guide.html`, 'navigate', 'other'],
  ['GET', '/api/health', 'cors', 'other'],
  ['POST', '/machines', 'navigate', 'other'],
])('%s %s (%s) is %s', (method, path, mode, expected) => {
  expect(kind(method, path, mode)).toBe(expected);
});

test('another origin is left alone', () => {
  expect(requestKind('GET', 'cors', new URL('http://127.0.0.1:9/assets/a.js'), ORIGIN)).toBe(
    'other',
  );
});
