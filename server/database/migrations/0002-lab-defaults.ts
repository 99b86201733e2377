import { DataTypes, type QueryInterface, type Transaction } from 'sequelize';

/** A lab's own defaults, each change a row of its own; the newest of a key holds. */
export async function up(query: QueryInterface, transaction: Transaction): Promise<void> {
  await query.createTable(
    'lab_defaults',
    {
      id: { type: DataTypes.INTEGER, primaryKey: true, autoIncrement: true },
      key: { type: DataTypes.STRING(120), allowNull: false },
      // all null: back to the built-in default
      value: { type: DataTypes.DOUBLE, allowNull: true },
      low: { type: DataTypes.DOUBLE, allowNull: true },
      high: { type: DataTypes.DOUBLE, allowNull: true },
      note: { type: DataTypes.STRING(500), allowNull: false },
      createdAt: { type: DataTypes.DATE, allowNull: false },
    },
    { transaction },
  );
  await query.addIndex('lab_defaults', ['key', 'id'], { transaction });
}
