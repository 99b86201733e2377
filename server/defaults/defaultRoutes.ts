import { Router } from 'express';
import { labDefaultSchema } from '@zugluft/core/record/labDefaults';
import { parse } from '../security/parse';
import type { DefaultStore } from './defaultStore';

/**
 * Routes under /api/defaults: a lab's own values in place of the core's defaults.
 *
 * @param store where they are kept
 * @param changed called after each change
 */
export function defaultRoutes(store: DefaultStore, changed: () => void): Router {
  const router = Router();

  router.get('/', async (_req, res) => {
    res.json({ items: await store.list() });
  });

  router.put('/:key', async (req, res) => {
    await store.set(req.params.key, parse(labDefaultSchema, req.body));
    changed();
    res.json({ items: await store.list() });
  });

  router.delete('/:key', async (req, res) => {
    await store.reset(req.params.key);
    changed();
    res.json({ items: await store.list() });
  });

  return router;
}
