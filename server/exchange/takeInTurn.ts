import type { ImportItem } from '@zugluft/core/library/answers';
import { randomUUID } from 'node:crypto';
import { setImmediate as nextTurn } from 'node:timers/promises';
import { allDone } from '../database/writeQueue';
import { nameKey } from '../machines/nameKey';
import type { Candidate, LazyCandidate } from './candidate';

/** Taken at once: writes that wait at the same time share a transaction, and its wait for the disk. */
const AT_ONCE = 16;

/**
 * Takes machines in their order. Each is planned when its turn comes, since the one before may be what it changes; only records of
 * different names that bring nothing with them are taken some at once.
 *
 * @param takeOne plans and writes one
 */
export async function* takeInTurn(
  candidates: readonly LazyCandidate[],
  takeOne: (candidate: Candidate) => Promise<ImportItem>,
): AsyncGenerator<ImportItem> {
  let some: Promise<ImportItem>[] = [];
  const names = new Set<string>();
  for (const lazy of candidates) {
    // one that is refused at once waits for nothing, and others ask something meanwhile
    await nextTurn();
    let candidate = await lazy();
    const name = nameAlone(candidate);
    if (some.length && (name === null || names.has(name) || some.length >= AT_ONCE)) {
      yield* await allDone(some);
      some = [];
      names.clear();
      // what it changes may have been made only now
      candidate = await lazy();
    }
    if (name === null) yield await takeOne(candidate);
    else {
      names.add(name);
      const taken = takeOne(candidate);
      // what it fails by is told in its turn
      taken.catch(() => undefined);
      some.push(taken);
    }
  }
  yield* await allDone(some);
}

/** What a record is known by that brings nothing with it and has no place yet; null where it has. */
function nameAlone(candidate: Candidate): string | null {
  const { id, place, stateName, documents, attachments, runs } = candidate;
  if (id ?? place ?? stateName ?? documents ?? attachments ?? runs) return null;
  const { maker, model, variant } =
    (candidate.record as { identity?: Record<string, unknown> } | null | undefined)?.identity ?? {};
  // what has no full name is like nothing else
  if (!maker || !model || !variant) return randomUUID();
  return JSON.stringify([maker, model, variant].map((x) => nameKey(String(x))));
}
