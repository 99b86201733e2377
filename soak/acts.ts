import type { CaseRecord } from '@zugluft/core/record/recordSchema';
import { randomUUID } from 'node:crypto';
import sharp from 'sharp';
import type { Promised } from './promises';
import type { Tally } from './tally';

/** What clients know of the library they work on. */
export interface Shared {
  address: () => string;
  random: () => number;
  record: CaseRecord;
  /** The one that many write to. */
  contested: string;
  /** Machines that were acknowledged. */
  machines: string[];
  promised: Promised[];
  tally: Tally;
  /** What breaks off when the program is killed. */
  signal: () => AbortSignal;
}

/** One request; whatever the program answers that it should not is counted. */
async function ask(
  s: Shared,
  path: string,
  init: RequestInit = {},
  fine: number[] = [],
): Promise<Response> {
  s.tally.requests++;
  const answer = await fetch(`${s.address()}${path}`, { ...init, signal: s.signal() });
  s.tally.answered++;
  if (!answer.ok && !fine.includes(answer.status)) {
    s.tally.wrong.push(`${init.method ?? 'GET'} ${path}: ${answer.status} ${await answer.text()}`);
    throw new Error('answered wrongly');
  }
  return answer;
}

const pick = <T>(s: Shared, of: readonly T[]): T => of[Math.floor(s.random() * of.length)]!;
const JSON_TYPE = { 'Content-Type': 'application/json' };
const BYTES = { 'Content-Type': 'application/octet-stream' };
const named = (s: Shared, variant: string): CaseRecord => ({
  ...s.record,
  identity: { ...s.record.identity, variant },
});

/** Reads a machine and writes it anew, unless somebody was faster. */
async function write(s: Shared, machine: string): Promise<void> {
  const answer = await ask(s, `/api/machines/${machine}`);
  const { revision } = (await answer.json()) as { revision: number };
  const variant = randomUUID();
  const put = await ask(
    s,
    `/api/machines/${machine}`,
    {
      method: 'PUT',
      headers: { ...JSON_TYPE, 'If-Match': `"${revision}"`, 'Idempotency-Key': randomUUID() },
      body: JSON.stringify({ record: named(s, variant) }),
    },
    [409, 412],
  );
  if (!put.ok) {
    await put.arrayBuffer();
    s.tally.conflicts++;
    return;
  }
  const kept = (await put.json()) as { revision: number };
  s.promised.push({ what: 'write', machine, revision: kept.revision, variant });
}

async function add(s: Shared): Promise<void> {
  const answer = await ask(s, '/api/machines', {
    method: 'POST',
    headers: JSON_TYPE,
    body: JSON.stringify({ record: named(s, randomUUID()) }),
  });
  const { id } = (await answer.json()) as { id: string };
  s.machines.push(id);
  s.promised.push({ what: 'machine', machine: id });
}

async function addPhoto(s: Shared): Promise<void> {
  const machine = pick(s, s.machines);
  const [r, g, b] = [s.random() * 255, s.random() * 255, s.random() * 255];
  const side = 200 + Math.floor(s.random() * 600);
  const bytes = await sharp({
    create: { width: side, height: side, channels: 3, background: { r, g, b } },
  })
    .jpeg()
    .toBuffer();
  const answer = await ask(
    s,
    `/api/machines/${machine}/attachments?name=top.jpg`,
    { method: 'POST', headers: BYTES, body: new Uint8Array(bytes) },
    // a machine holds only so many
    [409],
  );
  const { id, sha256 } = (await answer.json()) as { id: string; sha256: string };
  if (answer.ok) s.promised.push({ what: 'photo', machine, photo: id, sha256 });
}

/** Imports some machines; each line of the answer acknowledges one. */
async function importSome(s: Shared): Promise<void> {
  const records = Array.from({ length: 3 }, () => named(s, randomUUID()));
  const answer = await ask(s, '/api/exchange/import?apply=1', {
    method: 'POST',
    headers: { ...BYTES, Accept: 'application/x-ndjson' },
    body: JSON.stringify(records),
  });
  let rest = '';
  for await (const part of answer.body!.pipeThrough(new TextDecoderStream())) {
    const lines = (rest + part).split('\n');
    rest = lines.pop()!;
    for (const line of lines) {
      const { item } = JSON.parse(line) as { item?: { action: string; machineId: string } };
      if (item?.action !== 'new') continue;
      s.promised.push({ what: 'machine', machine: item.machineId });
      s.machines.push(item.machineId);
    }
  }
}

const read = async (s: Shared, path: string) => {
  await (await ask(s, path)).arrayBuffer();
};

interface Act {
  share: number;
  name: string;
  run(s: Shared): Promise<void>;
}

/** What clients do, and how often. */
export const ACTS: readonly Act[] = [
  { share: 25, name: 'write to the one machine', run: (s) => write(s, s.contested) },
  { share: 20, name: 'write to any machine', run: (s) => write(s, pick(s, s.machines)) },
  {
    share: 20,
    name: 'list',
    run: (s) => read(s, `/api/machines?q=${Math.floor(s.random() * 16).toString(16)}&pageSize=50`),
  },
  { share: 12, name: 'machine', run: (s) => read(s, `/api/machines/${pick(s, s.machines)}`) },
  { share: 8, name: 'new machine', run: add },
  { share: 8, name: 'photo', run: addPhoto },
  { share: 3, name: 'import', run: importSome },
  { share: 2, name: 'CSV', run: (s) => read(s, '/api/exchange/machines.csv') },
  { share: 1, name: 'whole library as zip', run: (s) => read(s, '/api/exchange/library.zip') },
  { share: 1, name: 'backup', run: (s) => read(s, '/api/backup/now.tar') },
];
const ALL = ACTS.reduce((sum, act) => sum + act.share, 0);

/** An act by chance. */
export function nextAct(random: () => number): Act {
  let left = random() * ALL;
  return ACTS.find((act) => (left -= act.share) < 0) ?? ACTS[0]!;
}
