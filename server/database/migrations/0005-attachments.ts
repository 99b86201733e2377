import { DataTypes, type QueryInterface, type Transaction } from 'sequelize';

/** Photos and papers: what is known of each; their bytes lie in a folder beside the library. */
export async function up(query: QueryInterface, transaction: Transaction): Promise<void> {
  await query.createTable(
    'attachments',
    {
      id: { type: DataTypes.STRING(36), primaryKey: true },
      machineId: {
        type: DataTypes.STRING(36),
        allowNull: false,
        references: { model: 'machines', key: 'id' },
        onDelete: 'RESTRICT',
      },
      revision: { type: DataTypes.INTEGER, allowNull: false },
      path: { type: DataTypes.STRING(200), allowNull: false },
      name: { type: DataTypes.STRING(200), allowNull: false },
      type: { type: DataTypes.STRING(40), allowNull: false },
      sha256: { type: DataTypes.STRING(64), allowNull: false },
      bytes: { type: DataTypes.INTEGER, allowNull: false },
      widthPx: { type: DataTypes.INTEGER, allowNull: true },
      heightPx: { type: DataTypes.INTEGER, allowNull: true },
      takenAt: { type: DataTypes.STRING(30), allowNull: true },
      caption: { type: DataTypes.STRING(500), allowNull: false },
      covers: { type: DataTypes.TEXT, allowNull: false },
      exported: { type: DataTypes.BOOLEAN, allowNull: false },
      putAsideAt: { type: DataTypes.DATE, allowNull: true },
      createdAt: { type: DataTypes.DATE, allowNull: false },
      updatedAt: { type: DataTypes.DATE, allowNull: false },
    },
    { transaction },
  );
  await query.addIndex('attachments', ['machineId', 'putAsideAt', 'createdAt'], { transaction });
  await query.addIndex('attachments', ['sha256'], { transaction });
}
