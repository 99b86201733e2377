import { DataTypes, type QueryInterface, type Transaction } from 'sequelize';

/** What was said once of the logs that a logger writes, found again by their header. */
export async function up(query: QueryInterface, transaction: Transaction): Promise<void> {
  await query.createTable(
    'log_layouts',
    {
      /** Hash of the header. */
      key: { type: DataTypes.STRING(64), primaryKey: true },
      header: { type: DataTypes.TEXT, allowNull: false },
      layout: { type: DataTypes.TEXT, allowNull: false },
      createdAt: { type: DataTypes.DATE, allowNull: false },
      updatedAt: { type: DataTypes.DATE, allowNull: false },
    },
    { transaction },
  );
}
