import { fetchJson } from '../../api/http';
import { readAhead, readOpened } from './readAhead';

const asked: string[] = [];
let revision = 0;
beforeEach(() => {
  asked.length = 0;
  jest.useFakeTimers();
  globalThis.fetch = jest.fn((url: string, init?: RequestInit) => {
    asked.push(`${init?.method ?? 'GET'} ${url}`);
    if (url.endsWith('/gone')) return Promise.reject(new TypeError('no network'));
    const body = JSON.stringify({ id: url.slice(-1), revision: ++revision });
    return Promise.resolve(new Response(body, { status: 200 }));
  }) as never;
});
afterEach(() => jest.useRealTimers());

test('what was just read ahead is opened, once', async () => {
  readAhead('a');
  readAhead('a');
  const opened = await readOpened('a');
  expect(asked).toEqual(['GET /api/machines/a']);
  // an answer without bands has none
  expect(opened).toMatchObject({ id: 'a', bands: [] });
  await readOpened('a');
  expect(asked).toHaveLength(2);
});

test('another machine, an old reading, and one before a write of this page are not taken', async () => {
  readAhead('a');
  await readOpened('b');
  expect(asked).toEqual(['GET /api/machines/a', 'GET /api/machines/b']);
  readAhead('a');
  jest.advanceTimersByTime(2100);
  await readOpened('a');
  expect(asked).toHaveLength(4);
  readAhead('a');
  await fetchJson('/api/machines/a', { method: 'PUT', body: {} });
  const { revision: seen } = await readOpened('a');
  expect(asked.slice(4)).toEqual([
    'GET /api/machines/a',
    'PUT /api/machines/a',
    'GET /api/machines/a',
  ]);
  expect(seen).toBe(revision);
});

test('where it could not be read ahead it is asked for again, and says why', async () => {
  readAhead('gone');
  await expect(readOpened('gone')).rejects.toThrow('the server does not answer');
  await Promise.resolve();
  await expect(readOpened('gone')).rejects.toThrow('the server does not answer');
  expect(asked.length).toBeGreaterThanOrEqual(2);
});
