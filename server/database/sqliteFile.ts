import sqlite3 from 'sqlite3';

type Row = Record<string, unknown>;

/** One library file by the driver alone: for what reads it whole and keeps nothing in it. */
export interface SqliteFile {
  all<T extends Row>(sql: string): Promise<T[]>;
  /** A copy as the library is at one moment, while others write. */
  copyTo(path: string): Promise<void>;
  close(): Promise<void>;
}

/**
 * Opens a library file that is there.
 *
 * @throws where it is not, or is none
 */
export async function openSqlite(path: string): Promise<SqliteFile> {
  const db = await new Promise<sqlite3.Database>((resolve, reject) => {
    const opened: sqlite3.Database = new sqlite3.Database(path, sqlite3.OPEN_READWRITE, (cause) =>
      cause ? reject(cause) : resolve(opened),
    );
  });
  // a server that is keeping something is waited for
  db.configure('busyTimeout', 10_000);
  return {
    all: (sql) =>
      new Promise((resolve, reject) =>
        db.all(sql, (cause, rows) => (cause ? reject(cause) : resolve(rows as never))),
      ),
    copyTo: (to) =>
      new Promise((resolve, reject) => {
        const copy = (
          db as unknown as { backup(to: string, done: (e: Error | null) => void): Backup }
        ).backup(to, (cause) => {
          if (cause) {
            reject(cause);
            return;
          }
          // all pages in one step: the library is as it was when it began, whoever writes meanwhile
          copy.step(-1, (failed) => {
            copy.finish();
            if (failed) reject(failed);
            else resolve();
          });
        });
      }),
    close: () => new Promise((resolve) => db.close(() => resolve())),
  };
}

/** SQLite’s online backup as the driver has it, which its types leave out. */
interface Backup {
  step(pages: number, done: (cause: Error | null) => void): void;
  finish(): void;
}

/** Rows of each table that holds what people wrote. */
export async function rowsOf(db: SqliteFile): Promise<Record<string, number>> {
  const tables = await db.all<{ name: string }>(
    `SELECT name FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite%' AND name NOT LIKE 'machine_words%' ORDER BY name`,
  );
  const rows: Record<string, number> = {};
  for (const { name } of tables) {
    rows[name] = (await db.all<{ n: number }>(`SELECT count(*) AS n FROM "${name}"`))[0]!.n;
  }
  return rows;
}

const namedTables = async (db: SqliteFile): Promise<Set<string>> =>
  new Set(
    (await db.all<{ name: string }>(`SELECT name FROM sqlite_master WHERE type = 'table'`)).map(
      (r) => r.name,
    ),
  );

/** Changes that a library knows. */
export async function migrationsOf(db: SqliteFile): Promise<string[]> {
  if (!(await namedTables(db)).has('migrations')) return [];
  const rows = await db.all<{ name: string }>('SELECT name FROM migrations ORDER BY name');
  return rows.map((r) => r.name);
}

/** Hashes of all files that a library names: photos, papers, editions, logs of every revision of a run. */
export async function filesNamedIn(db: SqliteFile): Promise<Set<string>> {
  const tables = await namedTables(db);
  const parts = [
    ...['attachments', 'editions']
      .filter((t) => tables.has(t))
      .map((t) => `SELECT sha256 FROM ${t}`),
    ...(tables.has('document_revisions')
      ? [
          `SELECT json_extract(l.value, '$.sha256') AS sha256 FROM document_revisions r, json_each(r.value, '$.logs') l
            WHERE r.kind = 'run' AND json_valid(r.value)`,
        ]
      : []),
  ];
  if (!parts.length) return new Set();
  const rows = await db.all<{ sha256: string | null }>(parts.join(' UNION '));
  return new Set(rows.flatMap((r) => r.sha256 ?? []));
}
