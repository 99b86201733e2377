import { importFile } from './exchange';
import type { HttpProblem } from './http';

/** An answer that comes in pieces of any length. */
const answer = (text: string, piece: number) => {
  const bytes = new TextEncoder().encode(text);
  global.fetch = jest.fn(
    async () =>
      new Response(
        new ReadableStream({
          start(to) {
            for (let at = 0; at < bytes.length; at += piece) {
              to.enqueue(bytes.slice(at, at + piece));
            }
            to.close();
          },
        }),
      ),
  ) as never;
};
const file = new File(['{}'], 'records.json');
const lines = ['{"of":2}', '{"item":{"name":"Flügel"}}', '{"item":{"name":"b"}}', '{"done":true}'];

test.each([1, 7, 1000])('items are read as they come, in pieces of %d bytes', async (piece) => {
  answer(`${lines.join('\n')}\n`, piece);
  const told: string[] = [];
  const items = await importFile(file, { apply: true, changed: 'update' }, (done, of) =>
    told.push(`${done}/${of}`),
  );
  expect(items.map((i) => i.name)).toEqual(['Flügel', 'b']);
  expect(told).toEqual(['0/2', '1/2', '2/2', '2/2']);
  const [url, init] = (global.fetch as jest.Mock).mock.calls[0];
  expect(url).toBe('/api/exchange/import?name=records.json&apply=1&changed=update');
  expect(init.headers.Accept).toBe('application/x-ndjson');
});

test.each([
  ['between two', `${lines.slice(0, 2).join('\n')}\n`, /stopped after 1 of 2/],
  ['within one', lines.slice(0, 2).join('\n'), /cut off/],
])('an answer that ends %s lines is no whole one', async (_, text, words) => {
  answer(text, 5);
  const failed = await importFile(file, { apply: true, changed: 'update' }).catch(
    (cause: HttpProblem) => cause,
  );
  expect((failed as HttpProblem).status).toBe(0);
  expect((failed as HttpProblem).message).toMatch(words);
});

test('a file that is too large is not sent', async () => {
  answer('', 1);
  const large = { size: 3 * 1024 ** 3, name: 'large.zip' } as File;
  await expect(importFile(large, { apply: false, changed: 'update' })).rejects.toThrow(/2 GB/);
  expect(global.fetch).not.toHaveBeenCalled();
});
