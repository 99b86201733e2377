import type { KeyedCalibration } from '@zugluft/core/calibration/caseKey';
import { capsOf } from '@zugluft/core/case/laboratory';
import { LABORATORY } from '@zugluft/core/documents/kinds';
import type { Cap } from '@zugluft/core/envelope/fanStates';
import type { StoredBand } from '@zugluft/core/uncertainty/storedBands';
import { readWattsByCap, type WattsBand } from '@zugluft/core/uncertainty/wattsBand';
import { labDefaultsOf } from '@zugluft/core/record/labDefaults';
import type { LabDefaults } from '@zugluft/core/record/resolver';
import type { Transaction } from 'sequelize';
import type { MachineRow } from '../database/models';
import type { Database } from '../database/openDatabase';
import { runPrepared } from '../database/prepared';
import { allDone } from '../database/writeQueue';
import type { DocumentStore } from '../documents/documentStore';
import { DERIVATION, type ComputeWatts, type WattsByCap, type WattsJob } from './computeWatts';

/** Machines computed in one go, and written in one transaction. */
const BATCH = 16;
/** Caps typed besides those of the laboratory that are kept up. */
const MAX_EXTRA_CAPS = 4;
const RETRY_AFTER_MS = 5000;
const MAX_WAIT_MS = 2000;

/** What is known of one machine. */
interface Entry {
  revision: number;
  complete: boolean;
  watts: WattsByCap;
  /** Version of the calibration that the estimate stands on. */
  calibration: number | null;
  /** What they were computed by: revision of the record, of the defaults, and version of the program. */
  by: string;
}

/** Watts of a machine as they can be shown. */
export interface WattsNow {
  at(cap: Cap): WattsBand | null;
  pending: boolean;
}

export type WattsKeeper = ReturnType<typeof createWattsKeeper>;

/**
 * Keeps the watts that the library shows: computed off the thread that answers, carrying what they were computed by, and
 * caught up after any write, any change of the laboratory, and any stop.
 *
 * @param db an open library
 * @param documents the store
 * @param calibrationInUse what a machine's estimate stands on
 * @param compute makes watts
 * @param failed told of what should not happen
 */
export function createWattsKeeper(
  db: Database,
  documents: DocumentStore,
  calibrationInUse: (machineId: string) => Promise<KeyedCalibration | null>,
  compute: ComputeWatts,
  failed: (cause: unknown) => void,
) {
  const entries = new Map<string, Entry>();
  /** Those that something is still to be computed for, so that a list need not look through all. */
  const waiting = new Set<string>();
  const listeners: ((kind: 'count' | 'caps') => Promise<void>)[] = [];
  let labCaps: Cap[] = capsOf();
  let extra: Cap[] = [];
  let defaults: LabDefaults = {};
  let defaultsRevision = 0;
  let running: Promise<void> | null = null;
  let stopped = false;
  let changing: Promise<void> = Promise.resolve();
  let timer: ReturnType<typeof setTimeout> | undefined;

  let all: Cap[] = labCaps;
  const caps = (): readonly Cap[] => all;
  const byAt = (revision: number, defaultsAt: number, calibration: number | null) =>
    `${revision}.${defaultsAt}.${DERIVATION}${calibration === null ? '' : `.c${calibration}`}`;
  const byOf = (e: Entry) => byAt(e.revision, defaultsRevision, e.calibration);
  /** Caps that a machine still needs. */
  const missing = (e: Entry): readonly Cap[] => {
    if (!e.complete) return [];
    return e.by === byOf(e) ? caps().filter((c) => !(String(c) in e.watts)) : caps();
  };
  const tell = async (kind: 'count' | 'caps') => {
    for (const listener of listeners) await listener(kind);
  };
  const now = (e: Entry | undefined): WattsNow => ({
    at: (cap) => (e?.complete ? (e.watts[String(cap)] ?? null) : null),
    pending: e !== undefined && missing(e).length > 0,
  });
  const entryOf = (
    row: Pick<MachineRow, 'revision' | 'complete' | 'watts' | 'wattsBy' | 'calibration'>,
  ): Entry => ({
    revision: row.revision,
    complete: Boolean(row.complete),
    watts: readWattsByCap(row.watts),
    calibration: row.calibration ?? null,
    by: row.wattsBy,
  });

  const enter = (id: string, entry: Entry) => {
    entries.set(id, entry);
    if (missing(entry).length) waiting.add(id);
    else waiting.delete(id);
  };
  /** After what is wanted of every machine has changed. */
  const lookThroughAll = () => {
    all = [...labCaps, ...extra.filter((c) => !labCaps.includes(c))];
    for (const [id, entry] of entries) enter(id, entry);
  };

  const readLaboratory = async () => {
    const settings = await documents.read('settings', LABORATORY);
    labCaps = capsOf({ caps: settings.value.caps.levelsDbA });
    const own = await documents.read('defaults', LABORATORY);
    defaultsRevision = own.revision;
    defaults = labDefaultsOf(Object.entries(own.value));
    lookThroughAll();
  };
  let first: Promise<void> | null = null;
  /** Resolves once the laboratory is read, as it was last changed. */
  const ready = async () => {
    await (first ??= readLaboratory());
    await changing;
  };

  /** Waits, but not for ever, until nobody writes: what is computed is in no hurry. */
  const quiet = async () => {
    const until = Date.now() + MAX_WAIT_MS;
    while (db.queued() > 0 && Date.now() < until && !stopped) {
      await new Promise((resolve) => setTimeout(resolve, 20));
    }
  };

  /** Computes some machines and writes what is still true of them. */
  const computeSome = async (batch: readonly [string, Entry][]) => {
    await quiet();
    const lab = { defaults, defaultsRevision };
    const machines: (WattsJob['machines'][number] & {
      revision: number;
      version: number | null;
    })[] = [];
    for (const [id, entry] of batch) {
      const kept = await documents.read('record', id);
      machines.push({
        id,
        revision: kept.revision,
        version: entry.calibration,
        record: kept.value,
        caps: missing(entry),
        calibration: entry.calibration === null ? null : await calibrationInUse(id),
      });
    }
    const found = await compute({ machines, defaults: lab.defaults });
    await quiet();
    const keepOne = async (
      transaction: Transaction,
      { id, revision, version }: (typeof machines)[number],
    ): Promise<void> => {
      const before = entries.get(id);
      // written meanwhile: it is computed again
      if (!before || before.revision !== revision || before.calibration !== version) return;
      const by = byAt(revision, lab.defaultsRevision, version);
      const kept = before.by === by ? before.watts : {};
      const watts = { ...kept, ...found[id] };
      const changed = await runPrepared(
        transaction,
        'UPDATE machines SET watts = $watts, wattsBy = $by WHERE id = $id AND revision = $revision',
        { id, revision, by, watts: JSON.stringify(watts) },
      );
      if (changed) db.touch(transaction, id, 'figures');
    };
    // handed over together: one after the other they would keep all other writes waiting
    const keep = (transaction: Transaction) =>
      allDone(machines.map((one) => keepOne(transaction, one)));
    await db.write(keep);
  };

  const run = async () => {
    while (!stopped) {
      const batch: [string, Entry][] = [];
      for (const id of waiting) {
        batch.push([id, entries.get(id)!]);
        if (batch.length === BATCH) break;
      }
      if (!batch.length) return;
      await computeSome(batch);
      await tell('count');
    }
  };

  const wake = () => {
    if (running || stopped) return;
    clearTimeout(timer);
    timer = undefined;
    running = run()
      .catch((cause: unknown) => {
        if (stopped) return;
        timer = setTimeout(wake, RETRY_AFTER_MS);
        timer.unref();
        failed(cause);
      })
      .finally(() => {
        running = null;
        // asked for between the last look and now
        if (!stopped && !timer && waiting.size) wake();
      });
  };

  return {
    ready,
    /** Every cap that rows have watts for: those of the laboratory, and those that somebody typed. */
    caps,
    /** The laboratory's cap in the middle, which stands where one has to be chosen. */
    middle(): Cap {
      const levels = labCaps.filter((c) => typeof c === 'number');
      return levels[Math.floor(levels.length / 2)] ?? 'full';
    },
    of: (row: MachineRow): WattsNow => now(entryOf(row)),
    ofMachine: (id: string): WattsNow => now(entries.get(id)),

    /** What is known of a machine at this revision of its record, by the program and the defaults of now. */
    bandsOf(id: string, revision: number): StoredBand[] {
      const e = entries.get(id);
      if (!e?.complete || e.revision !== revision || e.by !== byOf(e)) return [];
      return caps().flatMap((cap) => {
        const band = e.watts[String(cap)];
        return band ? [{ cap, ...band }] : [];
      });
    },

    /** A machine's row as it was just read. */
    note(row: MachineRow): void {
      enter(row.id, entryOf(row));
      if (waiting.has(row.id)) wake();
    },

    /** A cap that somebody asked for is kept up from now on, in place of one that was asked for long ago. */
    want(cap: Cap): void {
      if (caps().includes(cap)) return;
      extra = [...extra, cap].slice(-MAX_EXTRA_CAPS);
      lookThroughAll();
      void tell('caps').catch(failed);
      wake();
    },

    /** How many machines are still being computed. */
    pending: () => waiting.size,

    onChange: (listener: (kind: 'count' | 'caps') => Promise<void>) =>
      void listeners.push(listener),

    /** After the laboratory's caps or defaults have changed. */
    laboratoryChanged(): void {
      changing = changing
        .then(async () => {
          if (stopped) return;
          await readLaboratory();
          await tell('caps');
          wake();
        })
        .catch(failed);
    },

    /** Resolves when nothing is left to compute. */
    async settled(): Promise<void> {
      await changing;
      while (running) await running;
    },

    async stop(): Promise<void> {
      stopped = true;
      clearTimeout(timer);
      await compute.end?.();
      await changing;
      await running?.catch(() => undefined);
    },
  };
}
