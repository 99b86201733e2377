import { createHash } from 'node:crypto';
import type { LogMap } from '@zugluft/core/logs/logLayout';
import { logLayoutSchema } from '@zugluft/core/runs/runDocument';
import type { Database } from '../database/openDatabase';

/** Layouts that are remembered; beyond them the one not used for longest is forgotten. */
const MOST = 2000;

export type RememberedLayouts = ReturnType<typeof createRememberedLayouts>;

const keyOf = (header: string) => createHash('sha256').update(header).digest('hex');

/**
 * What people said of logs, by the header of those: said once, it holds for every log that the same logger writes.
 *
 * @param db an open library
 */
export function createRememberedLayouts(db: Database) {
  const { LogLayout } = db.models;
  return {
    /** What was said of logs with this header; null where nobody has looked at one. */
    async of(header: string | null): Promise<LogMap | null> {
      if (header === null) return null;
      const row = await LogLayout.findByPk(keyOf(header));
      if (!row) return null;
      const read = logLayoutSchema.safeParse(JSON.parse(row.layout));
      return read.success ? (read.data as LogMap) : null;
    },

    /** Remembers it, over what was said before. */
    async remember(header: string | null, layout: LogMap): Promise<void> {
      if (header === null) return;
      await db.write(async (transaction) => {
        await LogLayout.upsert(
          { key: keyOf(header), header, layout: JSON.stringify(layout) },
          { transaction },
        );
        const over = (await LogLayout.count({ transaction })) - MOST;
        if (over <= 0) return;
        const oldest = await LogLayout.findAll({
          order: [['updatedAt', 'ASC']],
          limit: over,
          attributes: ['key'],
          transaction,
        });
        await LogLayout.destroy({ where: { key: oldest.map((r) => r.key) }, transaction });
      });
    },
  };
}
