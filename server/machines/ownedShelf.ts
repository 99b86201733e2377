import type { Database } from '../database/openDatabase';
import type { Shelf } from '../documents/shelf';
import { found } from './machineRows';

/** What documents that a machine has one of, such as plans of levers, need of the server: the machine. */
export function ownedShelf<K extends 'plans' | 'article' | 'guesses'>(
  db: Database,
  kind: K,
): Shelf<K> {
  return {
    kind,
    aside: false,
    async owner(id, transaction) {
      const within = transaction ? { transaction } : {};
      found(await db.models.Machine.findByPk(id, { attributes: ['id'], ...within }));
    },
    answer: async ({ value }) => value,
  };
}
