import { DataTypes, type QueryInterface, type Transaction } from 'sequelize';

/**
 * What runs taught of a machine: every version of its calibration, with the draws of what is still possible after each; and what
 * was foretold of a run before it was made, which nobody can write afterwards.
 */
export async function up(query: QueryInterface, transaction: Transaction): Promise<void> {
  await query.createTable(
    'calibrations',
    {
      id: { type: DataTypes.STRING(36), primaryKey: true },
      machineId: {
        type: DataTypes.STRING(36),
        allowNull: false,
        references: { model: 'machines', key: 'id' },
        onDelete: 'RESTRICT',
      },
      version: { type: DataTypes.INTEGER, allowNull: false },
      recordRevision: { type: DataTypes.INTEGER, allowNull: false },
      inUse: { type: DataTypes.BOOLEAN, allowNull: false },
      runs: { type: DataTypes.TEXT, allowNull: false },
      answer: { type: DataTypes.TEXT, allowNull: false },
      figures: { type: DataTypes.TEXT, allowNull: false },
      rows: { type: DataTypes.BLOB, allowNull: false },
      createdAt: { type: DataTypes.DATE, allowNull: false },
    },
    { transaction },
  );
  await query.addColumn(
    'runs',
    'prediction',
    { type: DataTypes.TEXT, allowNull: true },
    { transaction },
  );
  await query.addColumn(
    'machines',
    'calibration',
    { type: DataTypes.INTEGER, allowNull: true },
    { transaction },
  );
  await query.addIndex('calibrations', ['machineId', 'version'], { unique: true, transaction });
}
