import type { Transaction } from 'sequelize';
import type { Database } from '../database/openDatabase';
import type { Shelf } from '../documents/shelf';
import { found } from '../machines/machineRows';
import { Problem } from '../security/problem';
import { refuseTyped, toRun } from './runStore';

/** What runs need of the server: the rows by which they are listed. */
export function runShelf(db: Database): Shelf<'run'> {
  const row = async (id: string, transaction?: Transaction) =>
    found(await db.models.Run.findByPk(id, transaction ? { transaction } : {}), 'run');
  return {
    kind: 'run',
    aside: true,
    async owner(id, transaction) {
      await row(id, transaction);
    },
    async listed({ id, revision, putAsideAt }, before, transaction) {
      if (!before) return;
      await (await row(id, transaction)).update({ revision, putAsideAt }, { transaction });
    },
    async refuse({ id }, value) {
      if (value.id !== id) throw new Problem(422, 'Another run', 'this is another run’s document');
      refuseTyped(value);
      return Promise.resolve();
    },
    answer: async (now, transaction) => toRun(await row(now.id, transaction), now.value),
  };
}
