import type { Database } from '../database/openDatabase';
import type { Shelf } from '../documents/shelf';
import { found } from './machineRows';

/** What plans of levers need of the server. */
export function plansShelf(db: Database): Shelf<'plans'> {
  return {
    kind: 'plans',
    aside: false,
    async owner(id, transaction) {
      const within = transaction ? { transaction } : {};
      found(await db.models.Machine.findByPk(id, { attributes: ['id'], ...within }));
    },
    answer: async ({ value }) => value,
  };
}
