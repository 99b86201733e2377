import { Router } from 'express';
import { isLabSetting } from '@zugluft/core/service/labSettings';
import { Problem } from '../security/problem';
import type { SettingStore } from './settingStore';

/** Routes under /api/settings. */
export function settingRoutes(store: SettingStore): Router {
  const router = Router();

  router.get('/', async (_req, res) => {
    res.json(await store.all());
  });

  router.put('/:key', async (req, res) => {
    const { key } = req.params;
    if (!isLabSetting(key)) throw new Problem(404, 'Not found', 'there is no such setting');
    await store.write(key, req.body);
    res.json(await store.all());
  });

  return router;
}
