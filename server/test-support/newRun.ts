import { randomUUID } from 'node:crypto';
import type { testServer } from './testServer';

/** A run as a page would make it. */
export const newRun = (change: object = {}) => ({
  format: 'zugluft-run',
  formatVersion: 1,
  id: randomUUID(),
  load: { kind: 'stress', on: 'both' },
  ...change,
});

type Call = ReturnType<typeof testServer>['call'];

/** A run of a machine with one log, as the page makes it: the run, the log's bytes, then the run that names it. */
export async function runWithLog(
  call: Call,
  machineId: string,
  csv: string,
  change: object = {},
): Promise<{ id: string; revision: number; run: { logs: object[] } }> {
  const runs = `/api/machines/${machineId}/runs`;
  const made = (await call().post(runs).send(newRun(change)).expect(201)).body;
  const log = (
    await call()
      .post(`${runs}/${made.id}/logs?file=load.csv`)
      .set('Content-Type', 'application/octet-stream')
      .send(Buffer.from(csv))
      .expect(201)
  ).body;
  const value = {
    ...made.run,
    logs: [{ id: 'log-1', file: 'load.csv', kind: 'csv', sha256: log.sha256 }],
  };
  const kept = await call()
    .put(`/api/documents/run/${made.id}`)
    .set('If-Match', '"1"')
    .send({ value })
    .expect(200);
  return { id: made.id, revision: kept.body.revision, run: kept.body.value };
}
