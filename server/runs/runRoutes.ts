import { Router, type Request } from 'express';
import { z } from 'zod';
import { MAX_CAP_DBA, MIN_CAP_DBA } from '@zugluft/core/case/laboratory';
import type { LogMap } from '@zugluft/core/logs/logLayout';
import { logLayoutSchema } from '@zugluft/core/runs/runDocument';
import { parse } from '../security/parse';
import { Problem } from '../security/problem';
import { MAX_PIXELS, type RunStore } from './runStore';

export const runListQuery = z.strictObject({
  page: z.coerce.number().int().min(1).max(1000).default(1),
  aside: z.enum(['0', '1']).default('0'),
});
export const logQuery = z.strictObject({
  file: z.string().min(1).max(300),
  /** What a person said of its layout, as JSON. */
  layout: z.string().max(100_000).optional(),
});
export const seriesQuery = z.strictObject({
  fromS: z.coerce.number().min(0).max(1e8).optional(),
  toS: z.coerce.number().min(0).max(1e8).optional(),
  pixels: z.coerce.number().int().min(1).max(MAX_PIXELS).default(800),
});
export const takeBody = z.strictObject({ file: z.string().min(1).max(300) });
export const foretellBody = z.strictObject({
  cap: z.union([z.enum(['off', 'full']), z.number().min(MIN_CAP_DBA).max(MAX_CAP_DBA)]),
});
const params = z.object({
  id: z.uuid('is not a machine’s id'),
  run: z.uuid('is not a run’s id'),
});

function layoutOf(text: string | undefined): LogMap {
  if (text === undefined) return {};
  let json: unknown;
  try {
    json = JSON.parse(text);
  } catch {
    throw new Problem(422, 'No layout', 'the layout is no JSON');
  }
  return parse(logLayoutSchema, json) as LogMap;
}

/** Routes under /api/machines/:id/runs; what was done is a document of the kind `run`. */
export function runRoutes(store: RunStore): Router {
  const router = Router({ mergeParams: true });
  const machineOf = (req: Request) => parse(params.shape.id, (req.params as { id?: string }).id);
  const both = (req: Request): [string, string] => {
    const { id, run } = parse(params, req.params);
    return [id, run];
  };

  router.get('/', async (req, res) => {
    const { page, aside } = parse(runListQuery, req.query);
    res.json(await store.list(machineOf(req), page, aside === '1'));
  });

  router.post('/', async (req, res) => {
    const { kept, made } = await store.make(machineOf(req), req.body);
    res
      .status(made ? 201 : 200)
      .set('ETag', `"${kept.revision}"`)
      .json(kept);
  });

  router.post('/:run/logs', async (req, res) => {
    const { file, layout } = parse(logQuery, req.query);
    const about = { file, map: layoutOf(layout) };
    res.status(201).json(await store.takeLog(...both(req), req, about));
  });

  router.post('/:run/take', async (req, res) => {
    const { file } = parse(takeBody, req.body);
    const [id, run] = both(req);
    res.status(201).json(await store.takeFromInbox(id, run, file));
  });

  router.post('/:run/foretell', async (req, res) => {
    const { cap } = parse(foretellBody, req.body);
    res.json(await store.foretell(...both(req), cap));
  });

  router.get('/:run/analysis', async (req, res) => {
    res.json(await store.analysis(...both(req)));
  });

  router.get('/:run/series', async (req, res) => {
    const { fromS, toS, pixels } = parse(seriesQuery, req.query);
    if (fromS !== undefined && toS !== undefined && toS <= fromS) {
      throw new Problem(422, 'No stretch', 'toS must be later than fromS');
    }
    const shown = { fromS: fromS ?? null, toS: toS ?? null, pixels };
    res.json(await store.series(...both(req), shown));
  });

  return router;
}
