import { Router, type Request, type Response } from 'express';
import type { Machine } from '@zugluft/core/library/answers';
import { z } from 'zod';
import { expectedRevision } from '../security/expectedRevision';
import { parse } from '../security/parse';
import type { MachineFamilies } from './machineFamilies';
import type { MachineHistory } from './machineHistory';
import { listQuery } from './machineList';
import type { MachineStore } from './machineStore';
import { tagChange, type MachineTags } from './machineTags';

const idParam = z.uuid('is not a machine’s id');
const named = z.strictObject({ name: z.unknown() });
const historyQuery = z.strictObject({
  page: z.coerce.number().int().min(1).max(100_000).default(1),
});
const revisionParam = z.coerce.number('is no revision').int().min(1).max(1e9);
const recordBody = z.strictObject({ record: z.unknown() });

function idOf(req: Request): string {
  return parse(idParam, req.params['id']);
}

function etag(machine: Machine): string {
  return `"${machine.revision}"`;
}

/** Routes under /api/machines. */
export function machineRoutes(
  store: MachineStore,
  families: MachineFamilies,
  history: MachineHistory,
  tags: MachineTags,
): Router {
  const router = Router();
  const created = (res: Response, machine: Machine) =>
    res
      .status(201)
      .location(`/api/machines/${machine.id}`)
      .set('ETag', etag(machine))
      .json(machine);

  router.get('/', async (req, res) => {
    const answer = await store.listJson(req.url, () => parse(listQuery, req.query));
    res.type('application/json').send(answer);
  });

  router.get('/tags', async (_req, res) => {
    res.json({ items: await tags.list() });
  });

  router.post('/tags', async (req, res) => {
    res.json(await tags.change(parse(tagChange, req.body)));
  });

  router.post('/', async (req, res) => {
    created(res, await store.create(parse(recordBody, req.body).record));
  });

  router.get('/:id', async (req, res) => {
    const machine = await store.read(idOf(req));
    res.set('ETag', etag(machine)).json(machine);
  });

  router.put('/:id', async (req, res) => {
    const { record } = parse(recordBody, req.body);
    const machine = await store.update(idOf(req), expectedRevision(req), record);
    res.set('ETag', etag(machine)).json(machine);
  });

  router.post('/:id/put-aside', async (req, res) => {
    res.json(await store.setAside(idOf(req), true));
  });

  router.post('/:id/bring-back', async (req, res) => {
    res.json(await store.setAside(idOf(req), false));
  });

  router.get('/:id/family', async (req, res) => {
    res.json({ items: await families.family(idOf(req)) });
  });
  router.post('/:id/states', async (req, res) => {
    created(res, await families.addState(idOf(req), parse(named, req.body).name));
  });
  router.post('/:id/units', async (req, res) => {
    created(res, await families.addUnit(idOf(req), req.body));
  });
  router.post('/:id/variants', async (req, res) => {
    created(res, await families.addVariant(idOf(req), parse(named, req.body).name));
  });
  router.put('/:id/state-name', async (req, res) => {
    res.json(await families.renameState(idOf(req), parse(named, req.body).name));
  });
  router.put('/:id/unit', async (req, res) => {
    const machine = await store.read(idOf(req));
    const unit = await families.updateUnit(machine.unit.id, expectedRevision(req), req.body);
    res.set('ETag', `"${unit.revision}"`).json(unit);
  });

  router.get('/:id/revisions', async (req, res) => {
    res.json(await history.list(idOf(req), parse(historyQuery, req.query).page));
  });
  router.get('/:id/revisions/:revision', async (req, res) => {
    res.json(await history.read(idOf(req), parse(revisionParam, req.params['revision'])));
  });

  return router;
}
