import { fetchJson, HttpProblem } from './http';

const answer = (status: number, body: string, type = 'application/json') => {
  global.fetch = jest.fn(
    async () => new Response(body, { status, headers: { 'Content-Type': type } }),
  ) as never;
};
const failure = async (work: Promise<unknown>): Promise<HttpProblem> =>
  work.then(
    () => {
      throw new Error('expected a failure');
    },
    (cause: HttpProblem) => cause,
  );

test('reads JSON, sends a body and the revision seen', async () => {
  answer(200, '{"a":1}');
  const found = await fetchJson<{ a: number }>('/api/x', {
    method: 'PUT',
    body: { record: {} },
    ifMatch: 7,
  });
  expect(found).toEqual({ a: 1 });
  const [, init] = (global.fetch as jest.Mock).mock.calls[0];
  expect(init).toMatchObject({
    method: 'PUT',
    body: '{"record":{}}',
    headers: { 'Content-Type': 'application/json', 'If-Match': '"7"' },
  });
});

test('a file is sent as its bytes', async () => {
  answer(200, '{}');
  const file = new Blob(['a,b']);
  await fetchJson('/api/x', { method: 'POST', body: file });
  const [, init] = (global.fetch as jest.Mock).mock.calls[0];
  expect(init.headers['Content-Type']).toBe('application/octet-stream');
  expect(init.body).toBe(file);
});

test('a server that is away is status 0', async () => {
  global.fetch = jest.fn(async () => {
    throw new TypeError('failed to fetch');
  }) as never;
  expect((await failure(fetchJson('/api/x'))).status).toBe(0);
});

test('a problem document’s words are the message, and its fields are kept', async () => {
  answer(
    412,
    JSON.stringify({ title: 'Changed meanwhile', detail: 'at revision 9', current: { id: 'x' } }),
    'application/problem+json',
  );
  const problem = await failure(fetchJson('/api/x'));
  expect(problem).toBeInstanceOf(HttpProblem);
  expect(problem).toMatchObject({ status: 412, message: 'at revision 9' });
  expect(problem.body['current']).toEqual({ id: 'x' });
});

test('an answer that is no JSON is a failure with its status', async () => {
  answer(502, '<html>', 'text/html');
  expect((await failure(fetchJson('/api/x'))).status).toBe(502);
});
