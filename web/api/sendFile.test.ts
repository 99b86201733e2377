import { HttpProblem, sendFile } from './http';

/** A request that answers as it is told. */
class FakeRequest {
  static last: FakeRequest;
  upload: { onprogress: ((e: { loaded: number; total: number }) => void) | null } = {
    onprogress: null,
  };
  status = 0;
  responseText = '';
  sent: unknown;
  headers: Record<string, string> = {};
  onload = () => undefined;
  onabort = () => undefined;
  onerror = () => undefined;
  constructor() {
    FakeRequest.last = this;
  }
  open() {}
  setRequestHeader(name: string, value: string) {
    this.headers[name] = value;
  }
  send(body: unknown) {
    this.sent = body;
  }
  abort() {
    this.onabort();
  }
  answer(status: number, text: string) {
    this.status = status;
    this.responseText = text;
    this.onload();
  }
}
beforeEach(() => {
  global.XMLHttpRequest = FakeRequest as never;
});
const FILE = new Blob(['a,b']);

test('a file goes as its bytes, how far it is is told, the answer is read', async () => {
  const told: number[] = [];
  const sent = sendFile<{ a: number }>('/api/x', FILE, (share) => told.push(share));
  const { last } = FakeRequest;
  last.upload.onprogress!({ loaded: 1, total: 4 });
  last.upload.onprogress!({ loaded: 0, total: 0 });
  last.answer(201, '{"a":1}');
  expect(await sent).toEqual({ a: 1 });
  expect(told).toEqual([0.25, 0]);
  expect(last.sent).toBe(FILE);
  expect(last.headers['Content-Type']).toBe('application/octet-stream');
});

test('a refusal is the problem with all it says; an answer that is no JSON is told by its status', async () => {
  const refused = sendFile('/api/x', FILE, () => undefined);
  FakeRequest.last.answer(422, '{"detail":"row 4","sha256":"ff"}');
  await expect(refused).rejects.toMatchObject({
    status: 422,
    message: 'row 4',
    body: { sha256: 'ff' },
  });
  const broken = sendFile('/api/x', FILE, () => undefined);
  FakeRequest.last.answer(502, '<html>');
  await expect(broken).rejects.toEqual(new HttpProblem(502, 'the server answered 502'));
  const away = sendFile('/api/x', FILE, () => undefined);
  FakeRequest.last.onerror();
  await expect(away).rejects.toMatchObject({ status: 0 });
});

test('what is given up ends at once, also before it began', async () => {
  const stop = new AbortController();
  const given = sendFile('/api/x', FILE, () => undefined, stop.signal);
  stop.abort();
  await expect(given).rejects.toMatchObject({ name: 'AbortError' });
  await expect(sendFile('/api/x', FILE, () => undefined, stop.signal)).rejects.toMatchObject({
    name: 'AbortError',
  });
});
