import sqlite3, { type Database as Connection, type Statement } from 'sqlite3';

type Bound = Readonly<Record<string, string | number | null>>;

/** Statements of one text that are kept prepared; more are made while more are asked for at once. */
const MAX_KEPT = 4;
/** How long it waits where the file is locked, which is while SQLite puts its log in order. */
const LOCKED_MS = 5000;

/** Reads the library beside what Sequelize does. */
export interface Reader {
  /**
   * All rows of a statement.
   *
   * @param sql with `$name` for each value; a list goes as JSON: `IN (SELECT value FROM json_each($ids))`
   */
  read<T>(sql: string, bound?: Bound): Promise<T[]>;
  close(): Promise<void>;
}

/**
 * A connection for what nearly every request reads. Sequelize has one for all that is read, in which each statement waits until the
 * one before has come back to the event loop; under load that is a turn of everything else for each of them. Here they are handed
 * over at once, and stand prepared.
 *
 * @param file the library, which is there
 */
export async function openReader(file: string): Promise<Reader> {
  const connection = await new Promise<Connection>((resolve, reject) => {
    const made = new sqlite3.Database(file, sqlite3.OPEN_READWRITE, (cause) =>
      cause ? reject(cause) : resolve(made),
    );
  });
  connection.configure('busyTimeout', LOCKED_MS);
  const free = new Map<string, Statement[]>();
  const asked = new Set<Promise<unknown>>();
  let closed = false;

  const statementOf = (sql: string): Promise<Statement> => {
    const kept = free.get(sql)?.pop();
    if (kept) return Promise.resolve(kept);
    return new Promise((resolve, reject) => {
      const made = connection.prepare(sql, (cause: Error | null) =>
        cause ? reject(cause) : resolve(made),
      );
    });
  };
  const ended = (statement: Statement) =>
    new Promise<void>((resolve) => statement.finalize(() => resolve()));

  const all = async <T>(sql: string, bound: Bound): Promise<T[]> => {
    const statement = await statementOf(sql);
    try {
      return await new Promise<T[]>((resolve, reject) => {
        const named = Object.entries(bound).map(([name, value]) => [`$${name}`, value]);
        statement.all(Object.fromEntries(named), (cause: Error | null, rows: T[]) =>
          cause ? reject(cause) : resolve(rows),
        );
      });
    } finally {
      const own = free.get(sql) ?? [];
      free.set(sql, own);
      if (own.length < MAX_KEPT) own.push(statement);
      else await ended(statement);
    }
  };
  await all('PRAGMA query_only = ON', {});

  return {
    read<T>(sql: string, bound: Bound = {}): Promise<T[]> {
      if (closed) return Promise.reject(new Error('the library is being closed'));
      const reading = all<T>(sql, bound);
      asked.add(reading);
      const done = () => void asked.delete(reading);
      reading.then(done, done);
      return reading;
    },
    async close() {
      closed = true;
      await Promise.allSettled(asked);
      for (const own of free.values()) for (const statement of own) await ended(statement);
      free.clear();
      await new Promise<void>((resolve, reject) =>
        connection.close((cause) => (cause ? reject(cause) : resolve())),
      );
    },
  };
}
