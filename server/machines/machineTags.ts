import { col, fn } from 'sequelize';
import { z } from 'zod';
import type { Database } from '../database/openDatabase';
import { Problem } from '../security/problem';
import { tagName } from './listQuery';

const MAX_TAGS = 30;

export const tagChange = z.strictObject({
  ids: z.array(z.uuid('is not a machine’s id')).min(1, 'choose at least one').max(1000),
  add: z.array(tagName).max(20).default([]),
  remove: z.array(tagName).max(20).default([]),
});
export type TagChange = z.infer<typeof tagChange>;

export type MachineTags = ReturnType<typeof createMachineTags>;

/** Words that a lab puts on machines, in lower case. */
export function createMachineTags(db: Database) {
  const { Machine, MachineTag } = db.models;
  return {
    /** Every tag in use, with how many machines bear it. */
    async list() {
      const rows = (await MachineTag.findAll({
        attributes: ['tag', [fn('count', col('machineId')), 'count']],
        group: ['tag'],
        order: [['tag', 'ASC']],
        limit: 500,
        raw: true,
      })) as unknown as { tag: string; count: number }[];
      return rows;
    },

    /** Puts tags on machines and takes others off, all or nothing. */
    async change({ ids, add, remove }: TagChange): Promise<{ machines: number }> {
      return db.write(async (transaction) => {
        const known = await Machine.count({ where: { id: ids }, transaction });
        if (known !== new Set(ids).size) {
          throw new Problem(404, 'Not found', 'one of these machines is not in the library');
        }
        const low = (tags: string[]) => [...new Set(tags.map((t) => t.toLowerCase()))];
        if (remove.length) {
          await MachineTag.destroy({ where: { machineId: ids, tag: low(remove) }, transaction });
        }
        await MachineTag.bulkCreate(
          [...new Set(ids)].flatMap((machineId) => low(add).map((tag) => ({ machineId, tag }))),
          { ignoreDuplicates: true, transaction },
        );
        const most = (await MachineTag.findAll({
          attributes: ['machineId', [fn('count', col('tag')), 'n']],
          where: { machineId: ids },
          group: ['machineId'],
          order: [[fn('count', col('tag')), 'DESC']],
          limit: 1,
          raw: true,
          transaction,
        })) as unknown as { n: number }[];
        if ((most[0]?.n ?? 0) > MAX_TAGS) {
          throw new Problem(422, 'Too many tags', `a machine has at most ${MAX_TAGS} tags`);
        }
        for (const id of ids) db.touch(transaction, id, 'tags');
        return { machines: known };
      });
    },
  };
}
