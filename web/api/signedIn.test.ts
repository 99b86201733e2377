/** @jest-environment jsdom */
import { act, renderHook } from '@testing-library/react';
import { fetchJson, sendFile } from './http';
import { SESSION, signedIn, useSignInNeeded } from './signedIn';

const refusal = () => ({
  ok: false,
  status: 401,
  headers: new Headers(),
  json: async () => ({ detail: 'sign in first' }),
});
class RefusedRequest {
  status = 401;
  responseText = '{"detail":"sign in first"}';
  upload = {};
  onload: () => void = () => undefined;
  open(): void {}
  setRequestHeader(): void {}
  send(): void {
    queueMicrotask(() => this.onload());
  }
}
beforeEach(() => {
  global.fetch = (async () => refusal()) as never;
  global.XMLHttpRequest = RefusedRequest as never;
  act(signedIn);
});

test.each([
  ['a request', () => fetchJson('/api/machines')],
  ['a file', () => sendFile('/api/backup/restore', new Blob(['a']), () => undefined)],
])(
  'where %s is refused since nobody is signed in, that is asked, and it counts as not answered',
  async (_, ask) => {
    const { result } = renderHook(useSignInNeeded);
    expect(result.current).toBe(false);
    await act(async () => {
      await expect(ask()).rejects.toMatchObject({ status: 0, message: 'sign in first' });
    });
    expect(result.current).toBe(true);
    act(signedIn);
    expect(result.current).toBe(false);
  },
);

test('a wrong passphrase asks nothing anew: what was said is shown where it was typed', async () => {
  const { result } = renderHook(useSignInNeeded);
  await act(async () => {
    await expect(fetchJson(SESSION, { method: 'POST', body: {} })).rejects.toMatchObject({
      status: 401,
    });
  });
  expect(result.current).toBe(false);
});
