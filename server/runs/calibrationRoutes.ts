import { Router, type Request } from 'express';
import { z } from 'zod';
import { parse } from '../security/parse';
import type { CalibrationStore } from './calibrationStore';

export const calibrationListQuery = z.strictObject({
  page: z.coerce.number().int().min(1).max(1000).default(1),
});
export const versionInUse = z.strictObject({ version: z.number().int().min(1).nullable() });

/** Routes under /api/machines/:id/calibrations: what runs taught, version after version, and the one that is in use. */
export function calibrationRoutes(store: CalibrationStore): Router {
  const router = Router({ mergeParams: true });
  const machineOf = (req: Request) =>
    parse(z.uuid('is not a machine’s id'), (req.params as { id?: string }).id);

  router.get('/', async (req, res) => {
    const { page } = parse(calibrationListQuery, req.query);
    res.json(await store.list(machineOf(req), page));
  });

  router.post('/', async (req, res) => {
    const gone = new AbortController();
    res.on('close', () => gone.abort());
    res.status(201).json(await store.make(machineOf(req), gone.signal));
  });

  router.get('/in-use', async (req, res) => {
    res.json(await store.inUse(machineOf(req)));
  });

  router.put('/in-use', async (req, res) => {
    const machineId = machineOf(req);
    await store.use(machineId, parse(versionInUse, req.body).version);
    res.json(await store.inUse(machineId));
  });

  return router;
}
