import { DataTypes, type QueryInterface, type Transaction } from 'sequelize';

/** Machines and their revisions. */
export async function up(query: QueryInterface, transaction: Transaction): Promise<void> {
  await query.createTable(
    'machines',
    {
      id: { type: DataTypes.STRING(36), primaryKey: true, allowNull: false },
      revision: { type: DataTypes.INTEGER, allowNull: false },
      record: { type: DataTypes.TEXT, allowNull: false },
      complete: { type: DataTypes.BOOLEAN, allowNull: false },
      maker: { type: DataTypes.STRING, allowNull: false },
      model: { type: DataTypes.STRING, allowNull: false },
      variant: { type: DataTypes.STRING, allowNull: false },
      searchText: { type: DataTypes.TEXT, allowNull: false },
      fans: { type: DataTypes.INTEGER, allowNull: false },
      pipes: { type: DataTypes.INTEGER, allowNull: false },
      stacks: { type: DataTypes.INTEGER, allowNull: false },
      thicknessMm: { type: DataTypes.FLOAT, allowNull: true },
      massKg: { type: DataTypes.FLOAT, allowNull: true },
      togetherAt36W: { type: DataTypes.FLOAT, allowNull: true },
      togetherFullW: { type: DataTypes.FLOAT, allowNull: true },
      putAsideAt: { type: DataTypes.DATE, allowNull: true },
      createdAt: { type: DataTypes.DATE, allowNull: false },
      updatedAt: { type: DataTypes.DATE, allowNull: false },
    },
    { transaction },
  );
  await query.addIndex('machines', ['putAsideAt', 'maker', 'model', 'variant'], { transaction });
  await query.addIndex('machines', ['putAsideAt', 'updatedAt'], { transaction });
  await query.createTable(
    'revisions',
    {
      id: { type: DataTypes.INTEGER, primaryKey: true, autoIncrement: true },
      machineId: {
        type: DataTypes.STRING(36),
        allowNull: false,
        references: { model: 'machines', key: 'id' },
        onDelete: 'RESTRICT',
      },
      revision: { type: DataTypes.INTEGER, allowNull: false },
      record: { type: DataTypes.TEXT, allowNull: false },
      createdAt: { type: DataTypes.DATE, allowNull: false },
    },
    { transaction },
  );
  await query.addIndex('revisions', ['machineId', 'revision'], { unique: true, transaction });
}
