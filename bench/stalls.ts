import type { CaseRecord } from '@zugluft/core/record/recordSchema';
import { openDatabase } from '@zugluft/server/database/openDatabase';
import { once } from 'node:events';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { memoryMb } from '../soak/program';
import { healthWaits } from './healthWatch';
import { fill, start, type LoadRow } from './library';

const VARIANTS = 5000;
const MB = 1024 * 1024;
const PHOTO = { width: 8900, height: 6650 };

/** Records of different names, as many as asked for or as fit into so many bytes. */
function records(record: CaseRecord, isEnough: (n: number, bytes: number) => boolean): string {
  const parts: string[] = [];
  for (let bytes = 0; !isEnough(parts.length, bytes);) {
    const identity = { ...record.identity, variant: `row ${parts.length}` };
    const text = JSON.stringify({ ...record, identity });
    parts.push(text);
    bytes += text.length + 1;
  }
  return `[${parts.join(',')}]`;
}

async function send(url: string, body: BodyInit): Promise<void> {
  const headers = { 'Content-Type': 'application/octet-stream', Accept: 'application/x-ndjson' };
  const answer = await fetch(url, { method: 'POST', headers, body });
  const text = await answer.text();
  if (!answer.ok) throw new Error(`${url} answered ${answer.status}: ${text.slice(0, 300)}`);
}

/** The longest that a request for the health of the server waits while something else is done, ms. */
const longestWait = async (at: string, work: () => Promise<unknown>) =>
  Math.max(...(await healthWaits(at, work)));

/**
 * What large files do to everybody else: how long health waits meanwhile, how long they take, and the memory over rest.
 *
 * @param record what every machine is a copy of
 * @param large what the records of a large file are
 */
export async function benchStalls(record: CaseRecord, large: CaseRecord): Promise<LoadRow[]> {
  const rows: LoadRow[] = [];
  const full = mkdtempSync(join(tmpdir(), 'zugluft-stalls-'));
  const db = await openDatabase(full);
  const [first] = await fill(db, record, VARIANTS);
  await db.close();
  const { child, port } = await start(full);
  const at = `http://127.0.0.1:${port}`;
  await (await fetch(`${at}/api/machines?pageSize=100`)).arrayBuffer();
  const rest = memoryMb({ child });
  const stall = async (name: string, work: () => Promise<unknown>) => {
    rows.push({ name: `longest stall while ${name}`, ms: await longestWait(at, work), bound: 200 });
  };

  const list = records(large, (_, bytes) => bytes > 24.5 * MB);
  await stall('a JSON of 25 MB is looked through for an import', () =>
    send(`${at}/api/exchange/import?apply=0`, list),
  );
  const began = performance.now();
  await stall('5,000 machines are exported', async () => {
    await (await fetch(`${at}/api/exchange/library.zip`)).arrayBuffer();
  });
  rows.push({ name: 'export of 5,000 machines', ms: performance.now() - began, bound: 15_000 });
  const photo = await sharp({
    create: {
      ...PHOTO,
      channels: 3,
      background: '#777',
      noise: { type: 'gaussian', mean: 128, sigma: 30 },
    },
  })
    .jpeg({ quality: 80 })
    .toBuffer();
  await stall('a photo of 59 megapixels is taken', () =>
    send(`${at}/api/machines/${first}/attachments?name=large.jpg`, new Uint8Array(photo)),
  );
  rows.push({
    name: 'memory over rest through all of these',
    unit: 'MB',
    ms: memoryMb({ child }, 'VmHWM') - rest,
    bound: 400,
  });
  child.kill('SIGTERM');
  await once(child, 'exit');
  rmSync(full, { recursive: true, force: true });

  const empty = mkdtempSync(join(tmpdir(), 'zugluft-stalls-'));
  const fresh = await start(empty);
  const into = `http://127.0.0.1:${fresh.port}`;
  // made before: what this process does meanwhile would count as waiting
  const many = records(record, (n) => n >= VARIANTS);
  await (await fetch(`${into}/api/machines?pageSize=100`)).arrayBuffer();
  const begun = performance.now();
  const longest = await longestWait(into, () => send(`${into}/api/exchange/import?apply=1`, many));
  rows.push({ name: 'import of 5,000 machines', ms: performance.now() - begun, bound: 60_000 });
  rows.push({ name: 'longest stall while 5,000 machines are imported', ms: longest, bound: 200 });
  fresh.child.kill('SIGTERM');
  await once(fresh.child, 'exit');
  rmSync(empty, { recursive: true, force: true });
  return rows;
}
