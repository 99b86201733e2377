import type { Transaction } from 'sequelize';
import type { Database } from '../database/openDatabase';
import type { Shelf } from '../documents/shelf';
import { found } from '../machines/machineRows';
import { Problem } from '../security/problem';
import { toAttachment } from './attachmentStore';

/** What facts of photos and papers need of the server: the rows by which they are listed. */
export function photoShelf(db: Database): Shelf<'photo'> {
  const row = async (id: string, transaction?: Transaction) =>
    found(
      await db.models.Attachment.findByPk(id, transaction ? { transaction } : {}),
      'photo or paper',
    );
  return {
    kind: 'photo',
    aside: true,
    async owner(id, transaction) {
      await row(id, transaction);
    },
    async listed({ id, revision, value, putAsideAt }, before, transaction) {
      if (!before) return;
      const { covers, ...facts } = value;
      const photo = await row(id, transaction);
      await photo.update(
        { ...facts, covers: JSON.stringify(covers), revision, putAsideAt },
        { transaction },
      );
    },
    async refuse({ id }, { covers }, transaction) {
      const { type } = await row(id, transaction);
      if (covers.length && type === 'application/pdf') {
        throw new Problem(422, 'No photo', 'boxes can be laid over photos only');
      }
    },
    answer: async ({ id }, transaction) => toAttachment(await row(id, transaction)),
  };
}

/** What marks in photos need of the server: the photo. */
export function marksShelf(db: Database): Shelf<'marks'> {
  return {
    kind: 'marks',
    aside: false,
    async owner(id, transaction) {
      const within = transaction ? { transaction } : {};
      const { type } = found(await db.models.Attachment.findByPk(id, within), 'photo or paper');
      if (type === 'application/pdf') {
        throw new Problem(422, 'No photo', 'only photos are measured, no papers');
      }
    },
    answer: async ({ value }) => value,
  };
}
