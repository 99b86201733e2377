import { DataTypes, type QueryInterface, type Transaction } from 'sequelize';

/** What a lab has decided for itself: every change a row, the newest of a key being what holds. */
export async function up(query: QueryInterface, transaction: Transaction): Promise<void> {
  await query.createTable(
    'lab_settings',
    {
      id: { type: DataTypes.INTEGER, primaryKey: true, autoIncrement: true },
      key: { type: DataTypes.STRING(60), allowNull: false },
      value: { type: DataTypes.TEXT, allowNull: false },
      createdAt: { type: DataTypes.DATE, allowNull: false },
    },
    { transaction },
  );
  await query.addIndex('lab_settings', ['key', 'id'], { transaction });
}
