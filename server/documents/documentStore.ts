import { documentFault } from '@zugluft/core/exchange/jsonFault';
import { kindNamed, type KindName, type ValueOf } from '@zugluft/core/documents/kinds';
import type { Transaction } from 'sequelize';
import type { Database } from '../database/openDatabase';
import { firstPrepared, insertPrepared, runPrepared } from '../database/prepared';
import { sqlTime } from '../database/sqlTime';
import { allDone } from '../database/writeQueue';
import { Problem } from '../security/problem';
import { writer } from '../security/writer';
import { staleProblem } from './lock';
import type { KeptDocument, Shelf, ShelfOf } from './shelf';

const MAX_NOTE = 200;

/** A document with its newest revision: one step to the database for what nearly everybody asks. */
const NEWEST = `SELECT d.revision, d.putAsideAt, d.createdAt, d.updatedAt, r.value, r.name FROM documents d
  JOIN document_revisions r ON r.kind = d.kind AND r.id = d.id AND r.revision = d.revision
  WHERE d.kind = $kind AND d.id = $id`;

const UPDATE_NEWEST =
  'UPDATE documents SET revision = $revision, putAsideAt = $putAsideAt, updatedAt = $at WHERE kind = $kind AND id = $id';
const INSERT_REVISION = `INSERT INTO document_revisions (kind, id, revision, value, name, putAside, note, writeId, writtenBy, createdAt)
  VALUES ($kind, $id, $revision, $value, $name, $aside, $note, $writeId, $writtenBy, $at)`;

interface NewestRow {
  revision: number;
  putAsideAt: string | null;
  createdAt: string;
  updatedAt: string;
  value: string;
  name: string | null;
}

/** How a write came about, and its writer's own name for it. */
export interface WriteAbout {
  note?: string | undefined;
  writeId?: string | undefined;
}

/** What changes with a write; what is left out stays. */
interface Change<T> {
  value?: T;
  name?: string | null;
  putAside?: boolean;
}

export type DocumentStore = ReturnType<typeof createDocumentStore>;

/**
 * The one store of all that is kept. Every write of every kind is one transaction, names the revision its writer saw, and leaves
 * a revision behind; whoever saw an older one is answered with what differs.
 *
 * @param db an open library
 */
export function createDocumentStore(db: Database) {
  const { Document, DocumentRevision } = db.models;
  const shelves = new Map<KindName, ShelfOf<unknown>>();
  const shelfOf = (kind: KindName): ShelfOf<unknown> => {
    const shelf = shelves.get(kind);
    if (!shelf) throw new Error(`no shelf for ${kind}`);
    return shelf;
  };
  const within = (transaction: Transaction | undefined) => (transaction ? { transaction } : {});

  const readValue = <K extends KindName>(kind: K, text: string): ValueOf<K> => {
    const value = kindNamed(kind).read(JSON.parse(text));
    // never shown as empty, which would be written over
    if (value === null) {
      throw new Problem(
        422,
        'Not readable',
        `the ${kindNamed(kind).title} that is kept is not as it should be`,
      );
    }
    return value as ValueOf<K>;
  };

  const revisionRow = (kind: KindName, id: string, revision: number, transaction?: Transaction) =>
    DocumentRevision.findOne({ where: { kind, id, revision }, ...within(transaction) });

  /** What stands there, a blank where the kind has one and nothing was written yet, null where there is none. */
  const find = async <K extends KindName>(
    kind: K,
    id: string,
    transaction?: Transaction,
  ): Promise<KeptDocument<ValueOf<K>> | null> => {
    const row = transaction
      ? await firstPrepared<NewestRow>(transaction, NEWEST, { kind, id })
      : (await db.read<NewestRow>(NEWEST, { kind, id }))[0];
    if (row) {
      const at = (text: string | null) => (text === null ? null : new Date(text));
      return {
        kind,
        id,
        revision: row.revision,
        value: readValue(kind, row.value),
        name: row.name,
        putAsideAt: at(row.putAsideAt),
        createdAt: at(row.createdAt),
        updatedAt: at(row.updatedAt),
      };
    }
    await shelfOf(kind).owner(id, transaction);
    const blank = kindNamed(kind).blank?.();
    if (blank === undefined) return null;
    return {
      kind,
      id,
      revision: 0,
      value: blank as ValueOf<K>,
      name: null,
      putAsideAt: null,
      createdAt: null,
      updatedAt: null,
    };
  };

  const read = async <K extends KindName>(kind: K, id: string, transaction?: Transaction) => {
    const found = await find(kind, id, transaction);
    if (!found) throw new Problem(404, 'Not found', `there is no such ${kindNamed(kind).title}`);
    return found;
  };

  /** Takes a value that may be kept. */
  const accept = <K extends KindName>(kind: K, input: unknown, under = ''): ValueOf<K> => {
    const fault = documentFault(input);
    if (fault) {
      const status = fault.startsWith('is larger') ? 413 : 400;
      throw new Problem(status, 'Not taken', `the ${kindNamed(kind).title} ${fault}`);
    }
    const accepted = kindNamed(kind).accept(input);
    if ('value' in accepted) return accepted.value as ValueOf<K>;
    const at = (path: string) => [under, path].filter(Boolean).join('.');
    throw kind === 'record'
      ? new Problem(422, 'Record refused', 'the record holds figures that cannot be', {
          errors: accepted.refused.map((r) => ({ ...r, path: at(r.path) })),
        })
      : new Problem(400, 'Bad request', 'some of the request is not as it should be', {
          errors: accepted.refused.map((r) => ({ ...r, path: at(r.path) })),
        });
  };

  /** Writes one more revision; whoever calls has looked at the lock. */
  const put = async <T>(
    now: KeptDocument<T>,
    change: Change<T>,
    { note = '', writeId }: WriteAbout,
    transaction: Transaction,
  ): Promise<KeptDocument<T>> => {
    const { kind, id } = now;
    const value = change.value ?? now.value;
    const name = change.name === undefined ? now.name : change.name;
    const aside = change.putAside ?? now.putAsideAt !== null;
    const putAsideAt = aside ? (now.putAsideAt ?? new Date()) : null;
    const revision = now.revision + 1;
    const at = new Date();
    const newest = (): Promise<unknown> =>
      runPrepared(transaction, UPDATE_NEWEST, {
        kind,
        id,
        revision,
        putAsideAt: sqlTime(putAsideAt),
        at: sqlTime(at),
      });
    const revised = (): Promise<unknown> =>
      runPrepared(transaction, INSERT_REVISION, {
        kind,
        id,
        revision,
        value: JSON.stringify(value),
        name,
        aside: Number(aside),
        note: note.slice(0, MAX_NOTE),
        writeId: writeId ?? null,
        writtenBy: writer(),
        at: sqlTime(at),
      });
    const kept: KeptDocument<T> = {
      kind,
      id,
      revision,
      value,
      name,
      putAsideAt,
      createdAt: now.createdAt ?? at,
      updatedAt: at,
    };
    const listed = async (): Promise<unknown> =>
      shelfOf(kind).listed?.(kept, now.revision ? now : null, transaction);
    // handed over together: under load each wait for the database is a turn of everything else
    if (now.revision) await allDone([newest(), revised(), listed()]);
    else {
      await insertPrepared(transaction, 'documents', {
        kind,
        id,
        revision,
        putAsideAt: sqlTime(putAsideAt),
        createdAt: sqlTime(at),
        updatedAt: sqlTime(at),
      });
      await allDone([revised(), listed()]);
    }
    return kept;
  };

  /** Whether a write of this name is the one right after what its writer saw: its answer was lost on the way. */
  const arrivedBefore = async (
    kind: KindName,
    id: string,
    seen: number,
    { writeId }: WriteAbout,
    transaction: Transaction,
  ) => {
    if (writeId === undefined) return false;
    const next = await revisionRow(kind, id, seen + 1, transaction);
    return next?.writeId === writeId;
  };

  const stale = async <T>(
    now: KeptDocument<T>,
    seen: number,
    change: (now: T) => Change<T>,
    transaction: Transaction,
  ): Promise<Problem> => {
    const { kind, id, revision, value } = now;
    const row = await revisionRow(kind, id, seen, transaction);
    const blank = seen === 0 ? kindNamed(kind).blank?.() : undefined;
    const base = (row ? readValue(kind, row.value) : blank) as T | undefined;
    return staleProblem(
      kindNamed(kind).title,
      seen,
      { revision, value },
      base === undefined ? null : { revision: seen, value: base },
      change(base ?? value).value,
      await shelfOf(kind).answer(now, transaction),
    );
  };

  /** One more revision under the lock, made by a function of what stands there. */
  const changeUnderLock = async <K extends KindName>(
    kind: K,
    id: string,
    seen: number,
    change: (now: ValueOf<K>) => Change<ValueOf<K>>,
    about: WriteAbout,
    /** What it begins with where it is not there yet. */
    first?: ValueOf<K>,
  ): Promise<KeptDocument<ValueOf<K>>> => {
    const shelf = shelfOf(kind);
    const work = async (transaction: Transaction) => {
      if (seen === 0 && first !== undefined && shelf.begin) {
        const there = await Document.findOne({ where: { kind, id }, transaction });
        if (!there) {
          const begun = await shelf.begin(id, first, about, transaction);
          return begun as KeptDocument<ValueOf<K>>;
        }
      }
      const now = await read(kind, id, transaction);
      if (now.revision !== seen) {
        if (await arrivedBefore(kind, id, seen, about, transaction)) return now;
        throw await stale(now, seen, change, transaction);
      }
      const made = change(now.value);
      if (made.value !== undefined) await shelf.refuse?.(now, made.value, transaction);
      const next = await put(now, made, about, transaction);
      if (made.value !== undefined && now.revision) await shelf.changed?.(next, now, transaction);
      return next;
    };
    const written = await db.write(work, { together: true });
    shelf.kept?.();
    return written;
  };

  return {
    /** Takes in what a kind needs of the server. */
    addShelf<K extends KindName>(shelf: Shelf<K>): void {
      shelves.set(shelf.kind, shelf);
    },

    find,
    read,
    readValue,
    accept,
    put,

    /** In the shape of the kind's own address. */
    answer: (now: KeptDocument<unknown>, transaction?: Transaction) =>
      shelfOf(now.kind).answer(now, transaction),

    /** The first revision of a new document. */
    async create<K extends KindName>(
      kind: K,
      id: string,
      value: ValueOf<K>,
      transaction: Transaction,
      about: WriteAbout & { name?: string | null } = {},
    ): Promise<KeptDocument<ValueOf<K>>> {
      const none: KeptDocument<ValueOf<K>> = {
        kind,
        id,
        revision: 0,
        value,
        name: about.name ?? null,
        putAsideAt: null,
        createdAt: null,
        updatedAt: null,
      };
      return put(none, { value }, about, transaction);
    },

    /** Replaces the value if it is still at the revision the writer saw. */
    async write<K extends KindName>(
      kind: K,
      id: string,
      seen: number,
      value: ValueOf<K>,
      about: WriteAbout = {},
    ) {
      return changeUnderLock(kind, id, seen, () => ({ value }), about, value);
    },

    /** Changes the value to what a function makes of it, under the same lock. */
    async edit<K extends KindName>(
      kind: K,
      id: string,
      seen: number,
      make: (value: ValueOf<K>) => ValueOf<K>,
      about: WriteAbout = {},
    ) {
      return changeUnderLock(kind, id, seen, (now) => ({ value: make(now) }), about);
    },

    async rename<K extends KindName>(
      kind: K,
      id: string,
      seen: number,
      name: string,
      about: WriteAbout = {},
    ) {
      const note = about.note ?? `named “${name}”`;
      return changeUnderLock(kind, id, seen, () => ({ name }), { ...about, note });
    },

    /** Puts a document aside, or brings it back. */
    async setAside<K extends KindName>(
      kind: K,
      id: string,
      seen: number,
      aside: boolean,
      about: WriteAbout = {},
    ) {
      if (!shelfOf(kind).aside) {
        throw new Problem(405, 'Not for this', `a ${kindNamed(kind).title} is not put aside`);
      }
      const note = about.note ?? (aside ? 'put aside' : 'brought back');
      return changeUnderLock(kind, id, seen, () => ({ putAside: aside }), { ...about, note });
    },

    /** Steps back to what a document was: one more revision, which can be stepped back from too. */
    async restore<K extends KindName>(
      kind: K,
      id: string,
      seen: number,
      revision: number,
      about: WriteAbout = {},
    ) {
      const old = await revisionRow(kind, id, revision);
      if (!old) throw new Problem(404, 'Not found', 'there is no such revision');
      // by today's bounds: what could be kept then may be refused now, in words
      const value = accept(kind, readValue(kind, old.value));
      const note = `stepped back to revision ${revision}`;
      return changeUnderLock(kind, id, seen, () => ({ value }), { ...about, note });
    },
  };
}
