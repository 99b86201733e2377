import { statfs } from 'node:fs/promises';
import { z } from 'zod';
import type { Database } from './database/openDatabase';
import { Problem } from './security/problem';

/** Under so much room it is warned of: a day of photos and logs. */
const LOW_BYTES = 500 * 1024 * 1024;

export const healthAnswer = z.object({
  ok: z.boolean(),
  /** Left on the disk under the data folder. */
  freeBytes: z.number(),
  spaceIsLow: z.boolean(),
});

/**
 * Whether the library can be read, and how much room is left for it.
 *
 * @throws Problem 503 where it cannot
 */
export async function healthOf(
  db: Database,
  lowBytes = LOW_BYTES,
): Promise<z.infer<typeof healthAnswer>> {
  try {
    await db.read('SELECT revision FROM documents LIMIT 1');
  } catch {
    throw new Problem(503, 'No library', 'the library cannot be read');
  }
  const { bavail, bsize } = await statfs(db.folder);
  const freeBytes = bavail * bsize;
  return { ok: true, freeBytes, spaceIsLow: freeBytes < lowBytes };
}
