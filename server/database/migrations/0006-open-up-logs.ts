import { DataTypes, type QueryInterface, type Transaction } from 'sequelize';

/** Logs of openings: every version of each, the newest being what holds. */
export async function up(query: QueryInterface, transaction: Transaction): Promise<void> {
  await query.createTable(
    'open_up_logs',
    {
      id: { type: DataTypes.INTEGER, primaryKey: true, autoIncrement: true },
      machineId: {
        type: DataTypes.STRING(36),
        allowNull: false,
        references: { model: 'machines', key: 'id' },
        onDelete: 'RESTRICT',
      },
      revision: { type: DataTypes.INTEGER, allowNull: false },
      log: { type: DataTypes.TEXT, allowNull: false },
      createdAt: { type: DataTypes.DATE, allowNull: false },
    },
    { transaction },
  );
  await query.addIndex('open_up_logs', ['machineId', 'revision'], { unique: true, transaction });
}
