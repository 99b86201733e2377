import { col, fn, Op } from 'sequelize';
import {
  checkLabDefault,
  isDefaultKey,
  labDefaultsOf,
  type LabDefault,
} from '@zugluft/core/record/labDefaults';
import type { LabDefaults } from '@zugluft/core/record/resolver';
import type { Database } from '../database/openDatabase';
import { Problem } from '../security/problem';

export type DefaultStore = ReturnType<typeof createDefaultStore>;

/** Reads and writes a lab's own defaults. Every change is a row of its own, so that nothing is lost. */
export function createDefaultStore(db: Database) {
  const { LabDefault } = db.models;

  const list = async (): Promise<Record<string, LabDefault & { since: string }>> => {
    const newest = await LabDefault.findAll({
      attributes: [[fn('MAX', col('id')), 'id']],
      group: ['key'],
    });
    const rows = await LabDefault.findAll({
      where: { id: { [Op.in]: newest.map((r) => r.id) } },
      order: [['key', 'ASC']],
    });
    return Object.fromEntries(
      rows.flatMap(({ key, value, low, high, note, createdAt }) =>
        value === null || low === null || high === null
          ? []
          : [[key, { value, low, high, note, since: createdAt.toISOString() }]],
      ),
    );
  };

  const known = (key: string) => {
    if (!isDefaultKey(key)) throw new Problem(404, 'Not found', 'there is no such default');
    return key;
  };

  return {
    list,

    /** As the core takes them. */
    async current(): Promise<LabDefaults> {
      return labDefaultsOf(Object.entries(await list()));
    },

    async set(key: string, entry: LabDefault): Promise<void> {
      const errors = checkLabDefault(known(key), entry);
      if (errors.length) {
        throw new Problem(422, 'Default refused', 'value and range do not fit together', {
          errors,
        });
      }
      await db.write((transaction) => LabDefault.create({ key, ...entry }, { transaction }));
    },

    /** Back to the built-in default. */
    async reset(key: string): Promise<void> {
      known(key);
      await db.write((transaction) =>
        LabDefault.create({ key, value: null, low: null, high: null, note: '' }, { transaction }),
      );
    },
  };
}
