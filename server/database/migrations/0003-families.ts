import { randomUUID } from 'node:crypto';
import { DataTypes, QueryTypes, type QueryInterface, type Transaction } from 'sequelize';

const AT_ONCE = 200;

/**
 * Variants and units: what was one record per machine becomes a state of a unit of a variant. Each machine that is already
 * there gets a variant and a unit of its own; its record and revisions stay as they are.
 */
export async function up(query: QueryInterface, transaction: Transaction): Promise<void> {
  await query.createTable(
    'variants',
    {
      id: { type: DataTypes.STRING(36), primaryKey: true, allowNull: false },
      copiedFrom: { type: DataTypes.STRING(36), allowNull: true },
      createdAt: { type: DataTypes.DATE, allowNull: false },
    },
    { transaction },
  );
  await query.createTable(
    'units',
    {
      id: { type: DataTypes.STRING(36), primaryKey: true, allowNull: false },
      variantId: {
        type: DataTypes.STRING(36),
        allowNull: false,
        references: { model: 'variants', key: 'id' },
        onDelete: 'RESTRICT',
      },
      revision: { type: DataTypes.INTEGER, allowNull: false },
      // serial, source, date, reason, what earlier hands did
      facts: { type: DataTypes.TEXT, allowNull: false },
      createdAt: { type: DataTypes.DATE, allowNull: false },
      updatedAt: { type: DataTypes.DATE, allowNull: false },
    },
    { transaction },
  );
  await query.addIndex('units', ['variantId'], { transaction });
  await query.addColumn(
    'machines',
    'unitId',
    { type: DataTypes.STRING(36), allowNull: true },
    { transaction },
  );
  await query.addColumn(
    'machines',
    'variantId',
    { type: DataTypes.STRING(36), allowNull: true },
    { transaction },
  );
  await query.addColumn(
    'machines',
    'stateName',
    { type: DataTypes.STRING(80), allowNull: false, defaultValue: 'as found' },
    { transaction },
  );
  for (;;) {
    const rows = await query.sequelize.query<{ id: string; createdAt: string }>(
      `SELECT id, createdAt FROM machines WHERE unitId IS NULL LIMIT ${AT_ONCE}`,
      { type: QueryTypes.SELECT, transaction },
    );
    if (!rows.length) break;
    for (const { id, createdAt } of rows) {
      const variantId = randomUUID();
      const unitId = randomUUID();
      const at = new Date(createdAt);
      await query.bulkInsert('variants', [{ id: variantId, copiedFrom: null, createdAt: at }], {
        transaction,
      });
      await query.bulkInsert(
        'units',
        [{ id: unitId, variantId, revision: 1, facts: '{}', createdAt: at, updatedAt: at }],
        { transaction },
      );
      await query.bulkUpdate('machines', { variantId, unitId }, { id }, { transaction });
    }
  }
  await query.addIndex('machines', ['variantId'], { transaction });
  await query.addIndex('machines', ['unitId'], { transaction });
}
