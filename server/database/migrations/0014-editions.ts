import { DataTypes, type QueryInterface, type Transaction } from 'sequelize';

/** Reports as they were published: written once, never changed. */
export async function up(query: QueryInterface, transaction: Transaction): Promise<void> {
  await query.createTable(
    'editions',
    {
      id: { type: DataTypes.STRING(36), primaryKey: true },
      machineId: {
        type: DataTypes.STRING(36),
        allowNull: false,
        references: { model: 'machines', key: 'id' },
        onDelete: 'RESTRICT',
      },
      number: { type: DataTypes.INTEGER, allowNull: false },
      recordRevision: { type: DataTypes.INTEGER, allowNull: false },
      source: { type: DataTypes.TEXT, allowNull: false },
      files: { type: DataTypes.TEXT, allowNull: false },
      /** Of the zip in which all of them lie. */
      sha256: { type: DataTypes.STRING(64), allowNull: false },
      bytes: { type: DataTypes.INTEGER, allowNull: false },
      createdAt: { type: DataTypes.DATE, allowNull: false },
    },
    { transaction },
  );
  await query.addIndex('editions', ['machineId', 'number'], { unique: true, transaction });
}
