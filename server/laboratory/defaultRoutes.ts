import { Router, type Request, type Response } from 'express';
import { LABORATORY, type ValueOf } from '@zugluft/core/documents/kinds';
import { checkLabDefault, isDefaultKey, labDefaultSchema } from '@zugluft/core/record/labDefaults';
import type { DocumentStore } from '../documents/documentStore';
import { expectedRevision } from '../documents/lock';
import { writeIdOf } from '../documents/writeId';
import { parse } from '../security/parse';
import { Problem } from '../security/problem';

type Entries = ValueOf<'defaults'>;

function known(key: string) {
  if (!isDefaultKey(key)) throw new Problem(404, 'Not found', 'there is no such default');
  return key;
}

/** Routes under /api/defaults: a lab's own values in place of the core's defaults. */
export function defaultRoutes(documents: DocumentStore): Router {
  const router = Router();
  const send = (res: Response, now: { revision: number; value: Entries }) =>
    res.set('ETag', `"${now.revision}"`).json({ items: now.value });
  const edit = (req: Request<{ key: string }>, seen: number, make: (entries: Entries) => Entries) =>
    documents.edit('defaults', LABORATORY, seen, make, {
      writeId: writeIdOf(req),
      note: req.params.key,
    });

  router.get('/', async (_req, res) => {
    send(res, await documents.read('defaults', LABORATORY));
  });

  router.put('/:key', async (req: Request<{ key: string }>, res) => {
    const key = known(req.params.key);
    const seen = expectedRevision(req);
    const entry = parse(labDefaultSchema, req.body);
    const errors = checkLabDefault(key, entry);
    if (errors.length) {
      throw new Problem(422, 'Default refused', 'value and range do not fit together', { errors });
    }
    const since = new Date().toISOString();
    send(res, await edit(req, seen, (entries) => ({ ...entries, [key]: { ...entry, since } })));
  });

  router.delete('/:key', async (req: Request<{ key: string }>, res) => {
    const key = known(req.params.key);
    send(
      res,
      await edit(req, expectedRevision(req), (entries) =>
        Object.fromEntries(Object.entries(entries).filter(([name]) => name !== key)),
      ),
    );
  });

  return router;
}
