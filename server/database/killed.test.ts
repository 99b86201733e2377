import { createHash } from 'node:crypto';
import { once } from 'node:events';
import { writeFileSync, mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { QueryTypes } from 'sequelize';
import sharp from 'sharp';
import { startProgram } from '../test-support/startProgram';
import { temporaryFolder } from '../test-support/temporaryFolder';
import { openDatabase } from './openDatabase';

const WRITES = 1000;
const CLIENTS = 8;

const json = async <T>(answer: Response): Promise<T> => {
  if (!answer.ok) throw new Error(`answered ${answer.status}`);
  return (await answer.json()) as T;
};

test('killed in the middle of a thousand writes, it has lost none that it acknowledged', async () => {
  const folder = temporaryFolder();
  const first = await startProgram(folder);
  const record = { format: 'zugluft-record', formatVersion: 1 };
  const body = (n: number) => JSON.stringify({ record: { ...record, identity: { year: n } } });
  const send = (url: string, method: string, text: string, headers: Record<string, string> = {}) =>
    fetch(`${first.address}${url}`, {
      method,
      body: text,
      headers: { 'Content-Type': 'application/json', ...headers },
    });
  const photo = await sharp({
    create: { width: 40, height: 30, channels: 3, background: '#cba' },
  })
    .png()
    .toBuffer();
  /** What the server said it has: revision and year of each machine, photos with their hash. */
  const machines = new Map<string, { revision: number; year: number }>();
  const photos: { machineId: string; id: string; sha256: string }[] = [];
  let done = 0;
  let killed = false;
  const client = async (c: number) => {
    try {
      const made = await json<{ id: string; revision: number }>(
        await send('/api/machines', 'POST', body(2000)),
      );
      machines.set(made.id, { revision: 1, year: 2000 });
      for (let n = 0; done < WRITES && !killed; n++) {
        const last = machines.get(made.id)!;
        if (n % 5 === c % 5) {
          const taken = await json<{ id: string; sha256: string }>(
            await fetch(`${first.address}/api/machines/${made.id}/attachments?name=a.png`, {
              method: 'POST',
              body: new Uint8Array(photo),
              headers: { 'Content-Type': 'application/octet-stream' },
            }),
          );
          photos.push({ machineId: made.id, ...taken });
        } else {
          const year = 2000 + (n % 90);
          const saved = await json<{ revision: number }>(
            await send(`/api/machines/${made.id}`, 'PUT', body(year), {
              'If-Match': `"${last.revision}"`,
            }),
          );
          machines.set(made.id, { revision: saved.revision, year });
        }
        if (++done >= WRITES / 2 && !killed) {
          killed = true;
          first.child.kill('SIGKILL');
        }
      }
    } catch (cause) {
      // a write that was under way was never acknowledged
      if (!killed) throw cause;
    }
  };
  const gone = once(first.child, 'exit');
  await Promise.all(Array.from({ length: CLIENTS }, (_, c) => client(c)));
  await gone;
  // as if a photo had been cut off while it was written
  mkdirSync(join(folder, 'files', 'aa'), { recursive: true });
  writeFileSync(join(folder, 'files', 'aa', '.half'), 'half');

  const second = await startProgram(folder);
  expect(machines.size).toBe(CLIENTS);
  for (const [id, told] of machines) {
    const now = await json<{ revision: number; record: { identity: { year: number } } }>(
      await fetch(`${second.address}/api/machines/${id}`),
    );
    // one more may have been written without its answer having arrived
    expect([told.revision, told.revision + 1]).toContain(now.revision);
    if (now.revision === told.revision) expect(now.record.identity.year).toBe(told.year);
  }
  expect(photos.length).toBeGreaterThan(40);
  for (const p of photos) {
    const kept = await fetch(
      `${second.address}/api/machines/${p.machineId}/attachments/${p.id}/content`,
    );
    const bytes = Buffer.from(await kept.arrayBuffer());
    expect(createHash('sha256').update(bytes).digest('hex')).toBe(p.sha256);
  }
  const ended = once(second.child, 'exit');
  second.child.kill('SIGTERM');
  await ended;

  const db = await openDatabase(folder);
  const [state] = await db.sequelize.query<{ integrity_check: string }>('PRAGMA integrity_check', {
    type: QueryTypes.SELECT,
  });
  expect(state!.integrity_check).toBe('ok');
  // every machine's newest revision is there, and none is newer than it says
  const [lost] = await db.sequelize.query<{ n: number }>(
    `SELECT count(*) AS n FROM machines m WHERE m.revision <> (SELECT max(revision) FROM document_revisions r WHERE r.kind = 'record' AND r.id = m.id)`,
    { type: QueryTypes.SELECT },
  );
  expect(lost!.n).toBe(0);
  await db.close();
}, 120_000);
