import { randomUUID } from 'node:crypto';
import { once } from 'node:events';
import { mkdtempSync, rmSync } from 'node:fs';
import { request } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import pino from 'pino';
import type { CaseRecord } from '@zugluft/core/record/recordSchema';
import { createApp } from '@zugluft/server/app';
import { openDatabase } from '@zugluft/server/database/openDatabase';
import { describeRecord } from '@zugluft/server/machines/describeRecord';

const VARIANTS = 5000;
const CLIENTS = 50;
const EACH = 12;
const AT_ONCE = 250;

/** What the n-th request of a kind asks for: nobody asks twice in a row for the same. */
const QUERIES: Record<string, (n: number) => string> = {
  'a page in order': (n) => `pageSize=100&page=${1 + ((n * 7) % 50)}`,
  'words and filters': (n) =>
    `q=maker${n % 17}+variant&fansMin=2&massMax=${1.5 + (n % 15) / 10}&cap=36&wattsMin=20&pageSize=100`,
  'sorted by a figure': (n) =>
    `sort=${['-togetherAt36W', 'massKg', '-fans', 'variant'][n % 4]}&pageSize=100&page=${1 + (n % 9)}`,
};

/**
 * Median answer of the library's list with 5,000 variants and 50 clients that ask again as soon as they are answered, ms.
 *
 * @param record what every variant is a copy of, but for its name, mass and watts
 */
export async function benchLibrary(record: CaseRecord): Promise<{ name: string; ms: number }[]> {
  const folder = mkdtempSync(join(tmpdir(), 'zugluft-bench-'));
  const db = await openDatabase(folder);
  const described = describeRecord(record, true, {});
  const text = JSON.stringify(record);
  const now = new Date();
  for (let from = 0; from < VARIANTS; from += AT_ONCE) {
    const ids = Array.from({ length: AT_ONCE }, (_, k) => ({
      n: from + k,
      id: randomUUID(),
      variantId: randomUUID(),
      unitId: randomUUID(),
    }));
    await db.write(async (transaction) => {
      const { Variant, Unit, Machine, Revision } = db.models;
      await Variant.bulkCreate(
        ids.map((x) => ({ id: x.variantId, copiedFrom: null, createdAt: now })),
        { transaction },
      );
      await Unit.bulkCreate(
        ids.map((x) => ({ id: x.unitId, variantId: x.variantId, revision: 1, facts: '{}' })),
        { transaction },
      );
      await Machine.bulkCreate(
        ids.map((x) => ({
          ...described,
          id: x.id,
          revision: 1,
          variantId: x.variantId,
          unitId: x.unitId,
          stateName: 'as found',
          putAsideAt: null,
          maker: `maker${x.n % 17}`,
          model: `model${x.n % 300}`,
          variant: `variant ${x.n}`,
          searchText: `maker${x.n % 17} model${x.n % 300} variant ${x.n} ${described.searchText}`,
          massKg: 1 + (x.n % 30) / 10,
          togetherAt36W: 20 + ((x.n * 7919) % 1500) / 10,
        })),
        { transaction },
      );
      await Revision.bulkCreate(
        ids.map((x) => ({ machineId: x.id, revision: 1, record: text })),
        { transaction },
      );
    });
  }
  const server = createApp(db, null, pino({ level: 'silent' })).listen(0, '127.0.0.1');
  await once(server, 'listening');
  const { port } = server.address() as AddressInfo;
  const ask = (query: string) =>
    new Promise<void>((resolve, reject) => {
      const call = request({ host: '127.0.0.1', port, path: `/api/machines?${query}` }, (res) => {
        if (res.statusCode !== 200) reject(new Error(`the list answered ${res.statusCode}`));
        res.resume();
        res.on('end', resolve);
      });
      call.on('error', reject);
      call.end();
    });
  const rows: { name: string; ms: number }[] = [];
  for (const [name, query] of Object.entries(QUERIES)) {
    await ask(query(0));
    let asked = 0;
    const took: number[] = [];
    await Promise.all(
      Array.from({ length: CLIENTS }, async () => {
        for (let i = 0; i < EACH; i++) {
          const start = performance.now();
          await ask(query(asked++));
          took.push(performance.now() - start);
        }
      }),
    );
    took.sort((a, b) => a - b);
    rows.push({
      name: `library of ${VARIANTS}, ${CLIENTS} clients: ${name}`,
      ms: took[took.length >> 1]!,
    });
  }
  server.closeAllConnections();
  await new Promise((resolve) => server.close(resolve));
  await db.close();
  rmSync(folder, { recursive: true, force: true });
  return rows;
}
