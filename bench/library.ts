import type { ChildProcess } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { once } from 'node:events';
import { mkdtempSync, rmSync } from 'node:fs';
import { Agent, request } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { capsOf } from '@zugluft/core/case/laboratory';
import type { CaseRecord } from '@zugluft/core/record/recordSchema';
import { openDatabase, type Database } from '@zugluft/server/database/openDatabase';
import { DERIVATION } from '@zugluft/server/derived/computeWatts';
import { startedProgram } from '@zugluft/server/test-support/program';
import { describeRecord } from '@zugluft/server/machines/describeRecord';
import { healthWaits } from './healthWatch';

const VARIANTS = 5000;
const CLIENTS = 50;
const EACH = 250;
const AT_ONCE = 250;
/** One request in so many is a write. */
const WRITE_EVERY = 10;

/** What the n-th request asks for: nobody asks twice in a row for the same. */
const QUERIES: readonly ((n: number) => string)[] = [
  (n) => `pageSize=100&page=${1 + ((n * 7) % 50)}`,
  (n) =>
    `q=maker${n % 17}+variant&fansMin=2&massMax=${1.5 + (n % 15) / 10}&cap=36&wattsMin=20&pageSize=100`,
  (n) =>
    `sort=${['-togetherAt36W', 'massKg', '-fans', 'variant'][n % 4]}&pageSize=100&page=${1 + (n % 9)}`,
];

/** One row of the bench with its bound. */
export interface LoadRow {
  name: string;
  ms: number;
  bound: number;
  /** What it is measured in, where that is not ms. */
  unit?: string;
}

/** A library of copies of one record, with their watts as the program would have computed them. */
export async function fill(
  db: Database,
  record: CaseRecord,
  variants = VARIANTS,
): Promise<string[]> {
  const described = describeRecord(record, true);
  const text = JSON.stringify(record);
  const now = new Date();
  const all: string[] = [];
  for (let from = 0; from < variants; from += AT_ONCE) {
    const ids = Array.from({ length: AT_ONCE }, (_, k) => ({
      n: from + k,
      id: randomUUID(),
      variantId: randomUUID(),
      unitId: randomUUID(),
    }));
    all.push(...ids.map((x) => x.id));
    await db.write(async (transaction) => {
      const { Variant, Unit, Machine, Document, DocumentRevision } = db.models;
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
          watts: JSON.stringify(
            Object.fromEntries(
              capsOf().map((cap, k) => {
                const p50 = 5 * k + 20 + ((x.n * 7919) % 1500) / 10;
                return [cap, { p05: 0.8 * p50, p50, p95: 1.2 * p50 }];
              }),
            ),
          ),
          wattsBy: `1.0.${DERIVATION}`,
        })),
        { transaction },
      );
      for (const [kind, idOf, value] of [
        ['record', (x: (typeof ids)[number]) => x.id, text],
        ['unit', (x: (typeof ids)[number]) => x.unitId, '{}'],
      ] as const) {
        await Document.bulkCreate(
          ids.map((x) => ({ kind, id: idOf(x), revision: 1, putAsideAt: null })),
          { transaction },
        );
        await DocumentRevision.bulkCreate(
          ids.map((x) => ({
            kind,
            id: idOf(x),
            revision: 1,
            value,
            name: null,
            putAside: false,
            note: '',
            writeId: null,
          })),
          { transaction },
        );
      }
    });
  }
  return all;
}

/** The program itself in a process of its own. */
export async function start(folder: string): Promise<{ child: ChildProcess; port: number }> {
  const { child, address } = await startedProgram(folder);
  return { child, port: Number(new URL(address).port) };
}

/**
 * The library with 5,000 variants under 50 clients that ask again as soon as they are answered, nine reads to one write, from
 * another process than the server's: median of the list, 95 % of the writes, and the longest that a request for the health of
 * the server had to wait, ms.
 *
 * @param record what every variant is a copy of, but for its name, mass and watts
 */
export async function benchLibrary(record: CaseRecord): Promise<LoadRow[]> {
  const folder = mkdtempSync(join(tmpdir(), 'zugluft-bench-'));
  const db = await openDatabase(folder);
  const ids = await fill(db, record);
  await db.close();
  const { child, port } = await start(folder);
  const agent = new Agent({ keepAlive: true });
  const call = (path: string, method = 'GET', body?: string, revision?: number) =>
    new Promise<number>((resolve, reject) => {
      const started = performance.now();
      const headers = body
        ? { 'Content-Type': 'application/json', 'If-Match': `"${revision}"` }
        : {};
      const asked = request({ host: '127.0.0.1', port, path, method, headers, agent }, (res) => {
        if (res.statusCode !== 200) reject(new Error(`${path} answered ${res.statusCode}`));
        res.resume();
        res.on('end', () => resolve(performance.now() - started));
      });
      asked.on('error', reject);
      asked.end(body);
    });
  await call(`/api/machines?${QUERIES[0]!(0)}`);
  const lists: number[] = [];
  const writes: number[] = [];
  let asked = 0;
  const load = Array.from({ length: CLIENTS }, (_, c) => async () => {
    // each types into a machine of its own
    let revision = 1;
    for (let i = 0; i < EACH; i++) {
      const n = asked++;
      if ((i + c) % WRITE_EVERY === 0) {
        const changed = { ...record, shell: { ...record.shell, massKg: 2 + revision / 100 } };
        const body = JSON.stringify({ record: changed });
        writes.push(await call(`/api/machines/${ids[c]}`, 'PUT', body, revision++));
      } else lists.push(await call(`/api/machines?${QUERIES[n % QUERIES.length]!(n)}`));
    }
  });
  const probes = await healthWaits(`http://127.0.0.1:${port}`, () =>
    Promise.all(load.map((one) => one())),
  );
  agent.destroy();
  child.kill('SIGTERM');
  await once(child, 'exit');
  rmSync(folder, { recursive: true, force: true });
  const at = (values: number[], share: number) =>
    values.sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(share * values.length))]!;
  const of = `library of ${VARIANTS}, ${CLIENTS} clients of another process, nine reads to one write`;
  return [
    { name: `${of}: list, median`, ms: at(lists, 0.5), bound: 50 },
    { name: `${of}: list, 99 %`, ms: at(lists, 0.99), bound: 200 },
    { name: `${of}: write, 95 %`, ms: at(writes, 0.95), bound: 250 },
    { name: `${of}: longest stall`, ms: at(probes, 1), bound: 200 },
  ];
}
