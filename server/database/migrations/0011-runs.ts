import { DataTypes, type QueryInterface, type Transaction } from 'sequelize';

/** Runs on the bench: by which machine each is listed; what was done stands in its document, logs lie beside the library. */
export async function up(query: QueryInterface, transaction: Transaction): Promise<void> {
  await query.createTable(
    'runs',
    {
      id: { type: DataTypes.STRING(36), primaryKey: true },
      machineId: {
        type: DataTypes.STRING(36),
        allowNull: false,
        references: { model: 'machines', key: 'id' },
        onDelete: 'RESTRICT',
      },
      revision: { type: DataTypes.INTEGER, allowNull: false },
      putAsideAt: { type: DataTypes.DATE, allowNull: true },
      createdAt: { type: DataTypes.DATE, allowNull: false },
      updatedAt: { type: DataTypes.DATE, allowNull: false },
    },
    { transaction },
  );
  await query.addIndex('runs', ['machineId', 'putAsideAt', 'createdAt'], { transaction });
}
