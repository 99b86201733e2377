import { DataTypes, type QueryInterface, type Transaction } from 'sequelize';

/**
 * A photo or paper goes out only once somebody has looked at it and said so. What was there before waits for that look; whether it
 * may go out at all stays as it was.
 */
export async function up(query: QueryInterface, transaction: Transaction): Promise<void> {
  await query.addColumn(
    'attachments',
    'looked',
    {
      type: DataTypes.BOOLEAN,
      allowNull: false,
      defaultValue: false,
    },
    { transaction },
  );
}
