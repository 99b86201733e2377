import { DataTypes, type QueryInterface, type Transaction } from 'sequelize';

/** What a camera wrote of its lens is kept with a photo: measuring in it needs that. Of photos from before it is not known. */
export async function up(query: QueryInterface, transaction: Transaction): Promise<void> {
  await query.addColumn(
    'attachments',
    'focalPx',
    { type: DataTypes.FLOAT, allowNull: true },
    { transaction },
  );
}
