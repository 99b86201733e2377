import { DataTypes, QueryTypes, type QueryInterface, type Transaction } from 'sequelize';
import { nameKey } from '../../machines/nameKey';

const COLUMNS = ['maker', 'model', 'variant'] as const;
const AT_ONCE = 500;

/** Names are compared by a key that folds the case of every script. */
export async function up(query: QueryInterface, transaction: Transaction): Promise<void> {
  for (const column of COLUMNS) {
    await query.addColumn(
      'machines',
      `${column}Key`,
      { type: DataTypes.STRING, allowNull: false, defaultValue: '' },
      { transaction },
    );
  }
  for (let after = ''; ;) {
    const rows = await query.sequelize.query<{ id: string } & Record<string, string>>(
      'SELECT id, maker, model, variant FROM machines WHERE id > :after ORDER BY id LIMIT :most',
      { type: QueryTypes.SELECT, replacements: { after, most: AT_ONCE }, transaction },
    );
    for (const row of rows) {
      await query.sequelize.query(
        'UPDATE machines SET makerKey = :maker, modelKey = :model, variantKey = :variant WHERE id = :id',
        {
          replacements: {
            id: row.id,
            ...Object.fromEntries(COLUMNS.map((c) => [c, nameKey(row[c]!)])),
          },
          transaction,
        },
      );
    }
    if (rows.length < AT_ONCE) break;
    after = rows[rows.length - 1]!.id;
  }
  await query.addIndex('machines', ['makerKey', 'modelKey'], { transaction });
}
