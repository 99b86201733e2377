import type { Transaction } from 'sequelize';
import type { Database as Connection, Statement } from 'sqlite3';

type Bound = Readonly<Record<string, string | number | null>>;

/** Statements of the connection that writes, by their text. */
const prepared = new WeakMap<Connection, Map<string, Promise<Statement>>>();

/** The driver's own connection under a transaction, which Sequelize's types do not show. */
const connectionOf = (transaction: Transaction) =>
  (transaction as unknown as { connection: Connection }).connection;

const closing = new WeakSet<Connection>();

/** Waits until it is prepared: of one that could not be, the driver would answer nothing that is asked of it. */
function statementOf(connection: Connection, sql: string): Promise<Statement> {
  if (closing.has(connection)) return Promise.reject(new Error('the library is being closed'));
  const own = prepared.get(connection) ?? new Map<string, Promise<Statement>>();
  prepared.set(connection, own);
  const known = own.get(sql);
  if (known) return known;
  const made = new Promise<Statement>((resolve, reject) => {
    const statement = connection.prepare(sql, (cause: Error | null) => {
      if (cause) {
        own.delete(sql);
        reject(cause);
      } else resolve(statement);
    });
  });
  own.set(sql, made);
  return made;
}

/** As the driver wants names: with their sign. */
const named = (bound: Bound) =>
  Object.fromEntries(Object.entries(bound).map(([name, value]) => [`$${name}`, value]));

/**
 * Runs one of the few statements that every write makes: prepared once, its values bound. Sequelize reads the text of each anew
 * and makes a stack trace for it, which takes longer than SQLite takes for the statement.
 *
 * @param transaction of the connection that writes
 * @param sql with `$name` for each value
 * @returns how many rows it changed
 */
export async function runPrepared(
  transaction: Transaction,
  sql: string,
  bound: Bound = {},
): Promise<number> {
  const statement = await statementOf(connectionOf(transaction), sql);
  return new Promise((resolve, reject) => {
    statement.run(named(bound), function (this: { changes: number }, cause: Error | null) {
      if (cause) reject(cause);
      else resolve(this.changes);
    });
  });
}

/**
 * Writes a row by a statement prepared once for its columns.
 *
 * @param values by column
 */
export async function insertPrepared(
  transaction: Transaction,
  table: string,
  values: Bound,
): Promise<void> {
  const columns = Object.keys(values);
  const places = columns.map((name) => `$${name}`);
  await runPrepared(
    transaction,
    `INSERT INTO ${table} (${columns.join(', ')}) VALUES (${places.join(', ')})`,
    values,
  );
}

/** The first row of a statement prepared once. */
export async function firstPrepared<T>(
  transaction: Transaction,
  sql: string,
  bound: Bound,
): Promise<T | undefined> {
  const statement = await statementOf(connectionOf(transaction), sql);
  return new Promise((resolve, reject) => {
    // all, not get: the statement is not left standing on a row
    statement.all(named(bound), (cause: Error | null, rows: unknown[]) => {
      if (cause) reject(cause);
      else resolve(rows[0] as T | undefined);
    });
  });
}

/** Lets go of a connection's statements, without which it cannot be closed; what comes later is refused. */
export async function forgetPrepared(transaction: Transaction): Promise<void> {
  const connection = connectionOf(transaction);
  const own = prepared.get(connection);
  closing.add(connection);
  for (const made of own?.values() ?? []) {
    const statement = await made.catch(() => null);
    if (!statement) continue;
    await new Promise<void>((resolve) => statement.finalize(() => resolve()));
  }
}
