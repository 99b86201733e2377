import type { CaseRecord } from '@zugluft/core/record/recordSchema';
import { randomStream } from '@zugluft/core/uncertainty/random';
import { nextAct, type Shared } from './acts';
import { startedProgram, type Program } from '@zugluft/server/test-support/program';
import { kill, memoryMb } from './program';
import { lookFor } from './promises';
import { emptyTally, type Tally } from './tally';

/** How long and how hard. */
export interface SoakPlan {
  folder: string;
  record: CaseRecord;
  seed: number;
  clients: number;
  /** Whether it goes on, asked after each kill. */
  goesOn(tally: Tally): boolean;
  /** A kill comes after at least and at most so many answers, however fast the machine is. */
  killAfter: readonly [number, number];
  /** Restores that are killed, at the end. */
  restores: number;
  told?(words: string): void;
}

const PROBE_EVERY_MS = 25;
const wait = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

/**
 * Lets many clients work on the program while it is killed again and again, and looks after each kill for all that it had acknowledged.
 */
export async function soak(plan: SoakPlan): Promise<Tally> {
  const tally = emptyTally();
  const random = randomStream(plan.seed);
  let program = await startedProgram(plan.folder);
  try {
    const first = await create(program, plan.record);
    let broken = new AbortController();
    const shared: Shared = {
      address: () => program.address,
      random,
      record: plan.record,
      contested: first,
      machines: [first],
      promised: [],
      tally,
      signal: () => broken.signal,
    };
    tally.memoryMb.rest = memoryMb(program);
    for (let looked = 0; plan.goesOn(tally);) {
      const [least, most] = plan.killAfter;
      const enough = tally.answered + least + random() * (most - least);
      let killed = false;
      const clients = Array.from({ length: plan.clients }, () => client(shared));
      const probe = watch(program, tally, () => !killed);
      while (tally.answered < enough) await wait(5);
      // between two answers too
      await wait(random() * 40);
      killed = true;
      await kill(program);
      broken.abort();
      tally.kills++;
      await Promise.all([...clients, probe]);
      broken = new AbortController();
      program = await startedProgram(plan.folder);
      const fresh = shared.promised.slice(looked);
      looked = shared.promised.length;
      tally.acknowledged = looked;
      await lookFor(program.address, fresh, tally);
      plan.told?.(`${tally.kills} kills, ${tally.requests} requests, ${tally.lost.length} lost`);
    }
    // what was found once may have gone with a later kill
    await lookFor(program.address, shared.promised, tally);
    await settled(program, tally);
    // one to its end, to know how long it takes: the others are killed anywhere on its way, or just after
    const withinMs = plan.restores ? 1.2 * (await restoreWhole(program, tally)) : 0;
    for (let k = 0; k < plan.restores; k++) {
      program = await restoreAndKill(plan, program, shared, withinMs);
    }
    return tally;
  } finally {
    await kill(program);
  }
}

async function create(program: Program, record: CaseRecord): Promise<string> {
  const answer = await fetch(`${program.address}/api/machines`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ record }),
  });
  return ((await answer.json()) as { id: string }).id;
}

/** Acts by chance until the program is killed. */
async function client(shared: Shared): Promise<void> {
  const signal = shared.signal();
  while (!signal.aborted) {
    const act = nextAct(shared.random);
    shared.tally.acts[act.name] = (shared.tally.acts[act.name] ?? 0) + 1;
    try {
      await act.run(shared);
    } catch (cause) {
      if ((cause as Error).message === 'answered wrongly') continue;
      shared.tally.unanswered++;
      // killed, and not said so yet
      await wait(20);
    }
  }
}

/** Watches how long the health of the program lets wait, and its memory. */
async function watch(program: Program, tally: Tally, isUp: () => boolean): Promise<void> {
  while (isUp()) {
    const asked = performance.now();
    try {
      await (await fetch(`${program.address}/api/health`)).arrayBuffer();
      // one that was under way at a kill waited for nothing
      if (isUp()) tally.probesMs.push(performance.now() - asked);
    } catch {
      return;
    }
    tally.memoryMb.most = Math.max(tally.memoryMb.most, memoryMb(program));
    await wait(PROBE_EVERY_MS);
  }
}

/** Every machine's figures are there once the program had the time to make them, whatever was killed. */
async function settled(program: Program, tally: Tally): Promise<void> {
  for (;;) {
    const answer = await fetch(`${program.address}/api/machines?pageSize=1`);
    const { pending } = (await answer.json()) as { pending: number };
    if (pending === 0) break;
    await wait(200);
  }
  const answer = await fetch(`${program.address}/api/machines?pageSize=100`);
  const { items } = (await answer.json()) as { items: Record<string, unknown>[] };
  for (const item of items) {
    if (typeof item['togetherFullW'] !== 'number')
      tally.lost.push(`${String(item['id'])}: no watts`);
  }
}

const backupOf = async ({ address }: Program) =>
  (await fetch(`${address}/api/backup/now.tar`)).arrayBuffer();

const restore = ({ address }: Program, backup: ArrayBuffer) =>
  fetch(`${address}/api/backup/restore`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/octet-stream' },
    body: backup,
  });

/** How long a restore takes, ms. */
async function restoreWhole(program: Program, tally: Tally): Promise<number> {
  const backup = await backupOf(program);
  const began = performance.now();
  const answer = await restore(program, backup);
  if (!answer.ok) tally.wrong.push(`a restore: ${answer.status} ${await answer.text()}`);
  else await answer.arrayBuffer();
  return performance.now() - began;
}

/**
 * Restores a backup over a library that was written to since, and kills the program in the middle: afterwards there is the one library
 * or the other, whole.
 */
async function restoreAndKill(
  plan: SoakPlan,
  before: Program,
  shared: Shared,
  withinMs: number,
): Promise<Program> {
  const { tally } = shared;
  const backup = await backupOf(before);
  const later = await create(before, plan.record);
  const restoring = restore(before, backup)
    .then((answer) => answer.arrayBuffer())
    .catch(() => undefined);
  await wait(shared.random() * withinMs);
  await kill(before);
  tally.kills++;
  await restoring;
  const program = await startedProgram(plan.folder);
  const { status } = await fetch(`${program.address}/api/machines/${later}`);
  if (status === 200) tally.restores.before++;
  else if (status === 404) tally.restores.after++;
  else tally.wrong.push(`after a restore: ${status}`);
  await lookFor(program.address, shared.promised, tally);
  return program;
}
