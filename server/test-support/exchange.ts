import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { asBytes } from './asBytes';
import type { testServer } from './testServer';

/** A record of the examples that come with the program. */
export const example = (name: string) =>
  JSON.parse(readFileSync(join(__dirname, `../../examples/${name}.json`), 'utf8'));

/** Files sent to be taken in, and files fetched, at a test's own application. */
export function exchangeAt(call: ReturnType<typeof testServer>['call']) {
  const send = (bytes: Uint8Array | string, query = '') =>
    call()
      .post(`/api/exchange/import?name=file${query}`)
      .set('Content-Type', 'application/octet-stream')
      .send(Buffer.from(bytes as string));
  /** What would be done, or with `&apply=1` was done, with each machine of the file. */
  const actions = async (bytes: Uint8Array | string, query = '') => {
    const { body } = await send(bytes, query).expect(200);
    return (body.items as { action: string }[]).map((i) => i.action);
  };
  const total = async () => (await call().get('/api/machines')).body.total as number;
  const download = async (path: string): Promise<Buffer> => {
    const answer = await call().get(path).buffer(true).parse(asBytes).expect(200);
    return answer.body as Buffer;
  };
  return { send, actions, total, download };
}
