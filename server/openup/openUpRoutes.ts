import { Router, type Request } from 'express';
import { z } from 'zod';
import { expectedRevision } from '../documents/lock';
import { writeIdOf } from '../documents/writeId';
import { parse } from '../security/parse';
import type { OpenUpStore } from './openUpStore';

const body = z.strictObject({ log: z.unknown() });

/** Routes under /api/machines/:id/log. */
export function openUpRoutes(store: OpenUpStore): Router {
  const router = Router({ mergeParams: true });
  const machineOf = (req: Request) =>
    parse(z.uuid('is not a machine’s id'), (req.params as { id?: string }).id);

  router.get('/', async (req, res) => {
    const kept = await store.read(machineOf(req));
    res.set('ETag', `"${kept.revision}"`).json(kept);
  });

  router.get('/siblings', async (req, res) => {
    res.json({ items: await store.siblings(machineOf(req)) });
  });

  router.put('/', async (req, res) => {
    const { log } = parse(body, req.body);
    const kept = await store.write(machineOf(req), expectedRevision(req), log, {
      writeId: writeIdOf(req),
    });
    res.set('ETag', `"${kept.revision}"`).json(kept);
  });

  return router;
}
