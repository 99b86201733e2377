import { raw, Router } from 'express';
import { WHEN_CHANGED } from '@zugluft/core/library/answers';
import { z } from 'zod';
import type { Database } from '../database/openDatabase';
import { onlyOneNamed } from '../machines/machineList';
import { recordOf } from '../machines/machineRows';
import type { MachineStore } from '../machines/machineStore';
import { parse } from '../security/parse';
import { csvLines, fileName, writeLibraryZip } from './exportLibrary';
import type { Importer } from './importPlan';
import { readImport } from './readImport';

export const MOST_IMPORT = 25 * 1024 * 1024;

const importQuery = z.strictObject({
  name: z.string().max(200).default('the file'),
  apply: z.enum(['0', '1']).default('0'),
  changed: z.enum(WHEN_CHANGED).default('update'),
});

/** Routes under /api/exchange: files in and out. */
export function exchangeRoutes(db: Database, store: MachineStore, importer: Importer): Router {
  const router = Router();

  router.get('/machines/:id.json', async (req, res) => {
    const { record } = await store.read(parse(z.uuid('is not a machine’s id'), req.params['id']));
    res
      .attachment(`${fileName(record)}.json`)
      .type('application/json')
      .send(`${JSON.stringify(record, null, 2)}\n`);
  });

  router.get('/:kind.csv', async (req, res) => {
    const kind = parse(z.enum(['machines', 'parts']), req.params['kind']);
    res.attachment(`${kind}.csv`).type('text/csv; charset=utf-8');
    for await (const text of csvLines(db, kind)) {
      if (res.destroyed) return;
      if (!res.write(text)) await new Promise((resolve) => res.once('drain', resolve));
    }
    res.end();
  });

  router.get('/library.zip', async (_req, res) => {
    res.attachment('library.zip').type('application/zip');
    await writeLibraryZip(db, res);
  });

  router.post(
    '/import',
    raw({ type: 'application/octet-stream', limit: MOST_IMPORT }),
    async (req, res) => {
      const { name, apply, changed } = parse(importQuery, req.query);
      const bytes = Buffer.isBuffer(req.body) ? req.body : Buffer.alloc(0);
      const candidates = await readImport(bytes, name, {
        async byId(id) {
          const known = z.uuid().safeParse(id).success;
          const row = known ? await db.models.Machine.findByPk(id) : null;
          return row ? recordOf(db, row) : null;
        },
        async byName(identity) {
          const row = await onlyOneNamed(db, identity);
          return row ? { id: row.id, record: await recordOf(db, row) } : null;
        },
      });
      const items =
        apply === '1'
          ? await importer.apply(candidates, changed, () => res.destroyed)
          : await importer.preview(candidates);
      res.json({ items, applied: apply === '1' });
    },
  );

  return router;
}
