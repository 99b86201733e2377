import { Router, type Request, type Response } from 'express';
import { LABORATORY } from '@zugluft/core/documents/kinds';
import { isLabSetting, LAB_SETTINGS } from '@zugluft/core/service/labSettings';
import type { DocumentStore } from '../documents/documentStore';
import { expectedRevision } from '../documents/lock';
import { writeIdOf } from '../documents/writeId';
import { parse } from '../security/parse';
import { Problem } from '../security/problem';

/** Routes under /api/settings: what the laboratory decided, one document in which each setting is written by its name. */
export function settingRoutes(documents: DocumentStore): Router {
  const router = Router();
  const send = (res: Response, { revision, value }: { revision: number; value: object }) =>
    res.set('ETag', `"${revision}"`).json(value);

  router.get('/', async (_req, res) => {
    send(res, await documents.read('settings', LABORATORY));
  });

  router.put('/:key', async (req: Request<{ key: string }>, res) => {
    const { key } = req.params;
    if (!isLabSetting(key)) throw new Problem(404, 'Not found', 'there is no such setting');
    const seen = expectedRevision(req);
    const value: unknown = parse(LAB_SETTINGS[key] as never, req.body);
    const about = { writeId: writeIdOf(req), note: key };
    send(
      res,
      await documents.edit('settings', LABORATORY, seen, (s) => ({ ...s, [key]: value }), about),
    );
  });

  return router;
}
