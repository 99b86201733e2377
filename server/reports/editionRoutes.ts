import { Router, type Request } from 'express';
import { z } from 'zod';
import { parse } from '../security/parse';
import type { EditionStore } from './editionStore';
import { reportQuery } from './reportRoutes';

export const editionListQuery = z.strictObject({
  page: z.coerce.number().int().min(1).max(1000).default(1),
});
export const editionBody = reportQuery.pick({
  cap: true,
  setting: true,
  ratio: true,
  units: true,
});
export const editionFileQuery = z.strictObject({ save: z.enum(['0', '1']).default('0') });

const PAGE_POLICY =
  "default-src 'none'; style-src 'unsafe-inline'; img-src data:; font-src data:; frame-ancestors 'none'; base-uri 'none'; form-action 'none'";

/** Routes under /api/machines/:id/editions: reports as they were published. */
export function editionRoutes(store: EditionStore): Router {
  const router = Router({ mergeParams: true });
  const machineOf = (req: Request) =>
    parse(z.uuid('is not a machine’s id'), (req.params as { id?: string }).id);
  const numberOf = (req: Request) =>
    parse(
      z.coerce.number('is no number of an edition').int().min(1).max(100_000),
      (req.params as { number?: string }).number,
    );

  router.get('/', async (req, res) => {
    const { page } = parse(editionListQuery, req.query);
    res.json(await store.list(machineOf(req), page));
  });

  router.post('/', async (req, res) => {
    res.status(201).json(await store.publish(machineOf(req), parse(editionBody, req.body)));
  });

  router.get('/:number', async (req, res) => {
    res.json(await store.read(machineOf(req), numberOf(req)));
  });

  router.get('/:number/edition.zip', async (req, res) => {
    const number = numberOf(req);
    const zip = await store.file(machineOf(req), number, null);
    res.attachment(`edition-${number}.zip`).type('application/zip').send(zip);
  });

  router.get('/:number/files/:name', async (req, res) => {
    const name = parse(z.string().max(300), req.params.name);
    const { save } = parse(editionFileQuery, req.query);
    const bytes = await store.file(machineOf(req), numberOf(req), name);
    if (save === '1') res.attachment(name);
    // pages stand for themselves, also those of an edition that another library wrote: nothing in them runs or loads anything
    if (/\.(html|svg)$/.test(name)) res.set('Content-Security-Policy', PAGE_POLICY);
    // what was published does not change
    res.set('Cache-Control', 'private, max-age=31536000, immutable');
    res.type(name.slice(name.lastIndexOf('.'))).send(bytes);
  });

  return router;
}
