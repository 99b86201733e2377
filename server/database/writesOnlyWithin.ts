import { QueryTypes, type Sequelize, type Transaction } from 'sequelize';
import { runPrepared } from './prepared';

const SET_OPEN = 'UPDATE temp.writing SET isOpen = $isOpen';
const WORDS = 'the transaction has ended, nothing is written outside of one';

/**
 * Lets a connection write only within a transaction that was opened for it. On a full disk or a failing one SQLite takes a whole
 * transaction back by itself, while statements of it are still on their way: each of these would then be kept alone, half a write.
 * What says that a transaction is open is kept in a table of the connection, so that it is taken back with it.
 *
 * @param transaction a connection of its own, outside any transaction
 * Source: SQLite, “Response To Errors Within A Transaction”.
 */
export async function writesOnlyWithin(
  sequelize: Sequelize,
  transaction: Transaction,
): Promise<void> {
  const run = (sql: string) => sequelize.query(sql, { transaction });
  await run('PRAGMA temp_store = MEMORY');
  await run('CREATE TEMP TABLE writing (isOpen INTEGER NOT NULL)');
  await run('INSERT INTO temp.writing VALUES (0)');
  const tables = await sequelize.query<{ name: string }>(
    `SELECT name FROM pragma_table_list WHERE schema = 'main' AND type = 'table' AND name NOT LIKE 'sqlite\\_%' ESCAPE '\\'`,
    { type: QueryTypes.SELECT, transaction },
  );
  for (const { name } of tables) {
    for (const act of ['INSERT', 'UPDATE', 'DELETE']) {
      await run(`CREATE TEMP TRIGGER "${name}_${act}_within" BEFORE ${act} ON main."${name}"
        WHEN (SELECT isOpen FROM temp.writing) = 0 BEGIN SELECT RAISE(ABORT, '${WORDS}'); END`);
    }
  }
}

/** Said first within each transaction (true), and last before it is kept (false). */
export const setOpen = (transaction: Transaction, isOpen: boolean): Promise<unknown> =>
  runPrepared(transaction, SET_OPEN, { isOpen: isOpen ? 1 : 0 });
