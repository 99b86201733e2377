import { Router } from 'express';
import { rm } from 'node:fs/promises';
import { isAbsolute, join, relative } from 'node:path';
import { randomUUID } from 'node:crypto';
import { createWriteStream } from 'node:fs';
import { pipeline } from 'node:stream/promises';
import { Problem } from '../security/problem';
import { BackupProblem } from './backupFormat';
import { dailyName, keptBackups } from './dailyBackup';
import { stage, type Restored, type Staged } from './restore';
import { UPLOADED } from './tidyBackups';
import { writeBackup } from './writeBackup';

/** What the server does around its library as a whole. */
export interface Upkeep {
  /** Where daily backups lie. */
  backupFolder: string;
  /** Lets go of the library, puts what was laid out in its place and opens that. */
  restore(staged: Staged): Promise<Restored>;
}

/** A folder as somebody would look for it: from where the program was started, where it lies there. */
function shownFolder(path: string): string {
  const from = relative(process.cwd(), path);
  return from === '' || from.startsWith('..') || isAbsolute(from) ? path : from;
}

/** Routes under /api/backup. */
export function backupRoutes(dataFolder: string, { backupFolder, restore }: Upkeep): Router {
  const router = Router();
  let underWay = false;

  router.get('/', async (_req, res) => {
    res.json({ folder: shownFolder(backupFolder), items: await keptBackups(backupFolder) });
  });

  router.get('/now.tar', async (_req, res) => {
    // photos are packed already: to pack them again would only take a core
    res.set('Cache-Control', 'no-store, no-transform');
    res.attachment(dailyName(new Date())).type('application/x-tar');
    // a reader that went away, or a failing disk: the answer ends without its list, and is none
    await writeBackup(dataFolder, res).catch((cause: unknown) => {
      if (!res.headersSent) throw cause;
      res.destroy();
    });
  });

  router.post('/restore', async (req, res) => {
    if (underWay) throw new Problem(409, 'Under way', 'another backup is being restored just now');
    underWay = true;
    const file = join(dataFolder, `${UPLOADED}${randomUUID()}`);
    try {
      await pipeline(req, createWriteStream(file));
      const staged = await stage(dataFolder, file);
      const { manifest, aside } = await restore(staged);
      res.json({
        createdAt: manifest.createdAt,
        machines: manifest.rows['machines'] ?? 0,
        files: manifest.entries.length - 1,
        missing: manifest.missing,
        aside: shownFolder(aside),
      });
    } catch (cause) {
      if (!(cause instanceof BackupProblem)) throw cause;
      throw new Problem(422, 'Not restored', cause.message);
    } finally {
      underWay = false;
      await rm(file, { force: true });
    }
  });

  return router;
}
