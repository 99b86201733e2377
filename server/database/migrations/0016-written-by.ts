import { DataTypes, type QueryInterface, type Transaction } from 'sequelize';

/** Each revision says who wrote it, where people sign in. */
export async function up(query: QueryInterface, transaction: Transaction): Promise<void> {
  await query.addColumn(
    'document_revisions',
    'writtenBy',
    { type: DataTypes.STRING(60), allowNull: true },
    { transaction },
  );
}
