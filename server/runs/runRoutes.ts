import { Router, type Request } from 'express';
import { z } from 'zod';
import { MAX_CAP_DBA, MIN_CAP_DBA } from '@zugluft/core/case/laboratory';
import type { LogMap } from '@zugluft/core/logs/logLayout';
import { logLayoutSchema } from '@zugluft/core/runs/runDocument';
import { MAX_LOG_MB } from '@zugluft/core/library/runAnswers';
import type { CandidateRun } from '../exchange/candidate';
import { runIn } from '../exchange/readImport';
import { readWhole, receiveFile } from '../exchange/receiveFile';
import { openZip, Unreadable } from '../exchange/unzip';
import { parse } from '../security/parse';
import { Problem } from '../security/problem';
import { RUN_FILE } from './runFiles';
import { MAX_PIXELS, type RunStore } from './runStore';
import type { RunSummaries } from './runSummaries';
import type { TakeRun } from './takeRun';
import type { UsualRuns } from './usualRuns';

export const runListQuery = z.strictObject({
  page: z.coerce.number().int().min(1).max(1000).default(1),
  aside: z.enum(['0', '1']).default('0'),
});
export const residualQuery = z.strictObject({
  page: z.coerce.number().int().min(1).max(100_000).default(1),
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

export const layoutBody = z.strictObject({
  sha256: z.string().regex(/^[0-9a-f]{64}$/, 'must be a SHA-256 in hex'),
  file: z.string().min(1).max(300),
  layout: logLayoutSchema,
});

function layoutOf(text: string | undefined): LogMap | null {
  if (text === undefined) return null;
  let json: unknown;
  try {
    json = JSON.parse(text);
  } catch {
    throw new Problem(422, 'No layout', 'the layout is no JSON');
  }
  return parse(logLayoutSchema, json) as LogMap;
}

function jsonOf(bytes: Uint8Array): unknown {
  try {
    return JSON.parse(new TextDecoder('utf-8', { fatal: true }).decode(bytes)) as unknown;
  } catch {
    throw new Problem(422, 'No run', 'the file is neither a zip nor JSON');
  }
}

/** Reads the one run of a zip, at its root or in a folder. */
async function fromZip<T>(path: string, task: (run: CandidateRun) => Promise<T>): Promise<T> {
  const zip = await openZip(path, MAX_LOG_MB * 1e6);
  try {
    const [file, second] = zip.names.filter((n) => n === RUN_FILE || n.endsWith(`/${RUN_FILE}`));
    if (file === undefined) throw new Problem(422, 'No run', `the zip holds no ${RUN_FILE}`);
    if (second !== undefined) throw new Problem(422, 'Several', 'the zip holds more than one run');
    return await task(runIn(zip, file.slice(0, -RUN_FILE.length)));
  } catch (cause) {
    if (cause instanceof Unreadable)
      throw new Problem(422, 'Not read', `${RUN_FILE} ${cause.message}`);
    throw cause;
  } finally {
    zip.close();
  }
}

/** Routes under /api/machines/:id/runs; what was done is a document of the kind `run`. */
export function runRoutes(
  store: RunStore,
  summaries: RunSummaries,
  usual: UsualRuns,
  take: TakeRun,
  dataFolder: string,
): Router {
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

  router.post('/:run/layout', async (req, res) => {
    const { sha256, file, layout } = parse(layoutBody, req.body);
    const about = { sha256, file, layout: layout as LogMap };
    res.json(await store.retakeLog(...both(req), about));
  });

  router.get('/:run/run.zip', async (req, res) => {
    const [id, run] = both(req);
    res.attachment('run.zip').type('application/zip');
    await store.writeZip(id, run, res);
  });

  // a run as a zip, or its document alone
  router.post('/import', async (req, res) => {
    const machineId = machineOf(req);
    // what was sent as JSON was read already
    if (req.is('application/json')) {
      const { kept, made } = await take(machineId, req.body, () => null);
      res.status(made ? 201 : 200).json(kept);
      return;
    }
    const received = await receiveFile(req, dataFolder);
    try {
      if (received.bytes === 0) throw new Problem(422, 'Empty', 'the file is empty');
      const { kept, made } = received.zip
        ? await fromZip(received.path, async (run) =>
            take(machineId, await run.read(), (name) => run.log(name)),
          )
        : await take(machineId, jsonOf(await readWhole(received)), () => null);
      res.status(made ? 201 : 200).json(kept);
    } finally {
      await received.remove();
    }
  });

  /** Scores and frame rates of other machines under the same loads. */
  router.get('/usual', async (req, res) => {
    res.json(await usual(machineOf(req)));
  });

  router.get('/steady', async (req, res) => {
    res.json(await summaries.steady(machineOf(req)));
  });

  router.get('/fan-sweep', async (req, res) => {
    res.json(await summaries.sweep(machineOf(req)));
  });

  router.get('/:run/why-outside', async (req, res) => {
    res.json(await summaries.whyOutside(...both(req)));
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
