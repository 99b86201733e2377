import { Router, type Request, type Response } from 'express';
import type { BandedMachine, Machine } from '@zugluft/core/library/answers';
import { z } from 'zod';
import { stateName } from '@zugluft/core/family/unitFacts';
import type { DocumentHistory } from '../documents/documentHistory';
import { historyQuery, revisionParam } from '../documents/documentRoutes';
import { expectedRevision } from '../documents/lock';
import { writeIdOf } from '../documents/writeId';
import { parse } from '../security/parse';
import type { WattsKeeper } from '../derived/wattsKeeper';
import type { MachineFamilies } from './machineFamilies';
import type { MachineStore } from './machineStore';
import { tagChange, type MachineTags } from './machineTags';

const idParam = z.uuid('is not a machine’s id');
const named = z.strictObject({ name: z.unknown() });
const recordBody = z.strictObject({ record: z.unknown() });

function idOf(req: Request): string {
  return parse(idParam, req.params['id']);
}

function etag(machine: Machine): string {
  return `"${machine.revision}"`;
}

/** Routes under /api/machines, but for the list itself. */
export function machineRoutes(
  store: MachineStore,
  families: MachineFamilies,
  history: DocumentHistory,
  tags: MachineTags,
  watts: WattsKeeper,
): Router {
  const router = Router();
  const about = (req: Request) => ({ writeId: writeIdOf(req) });
  const send = (res: Response, machine: Machine | BandedMachine) =>
    res.set('ETag', etag(machine)).json(machine);
  const created = (res: Response, machine: Machine) =>
    res
      .status(201)
      .location(`/api/machines/${machine.id}`)
      .set('ETag', etag(machine))
      .json(machine);

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
    const bands = watts.bandsOf(machine.id, machine.revision);
    send(res, { ...machine, bands } satisfies BandedMachine);
  });

  router.put('/:id', async (req, res) => {
    const { record } = parse(recordBody, req.body);
    send(res, await store.update(idOf(req), expectedRevision(req), record, about(req)));
  });

  router.post('/:id/put-aside', async (req, res) => {
    send(res, await store.setAside(idOf(req), expectedRevision(req), true, about(req)));
  });

  router.post('/:id/bring-back', async (req, res) => {
    send(res, await store.setAside(idOf(req), expectedRevision(req), false, about(req)));
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
    const name = parse(stateName, parse(named, req.body).name);
    send(res, await store.rename(idOf(req), expectedRevision(req), name, about(req)));
  });
  router.put('/:id/unit', async (req, res) => {
    const machine = await store.read(idOf(req));
    const seen = expectedRevision(req);
    const unit = await families.updateUnit(machine.unit.id, seen, req.body, about(req));
    res.set('ETag', `"${unit.revision}"`).json(unit);
  });

  router.get('/:id/revisions', async (req, res) => {
    res.json(await history.list('record', idOf(req), parse(historyQuery, req.query).page));
  });
  router.get('/:id/revisions/:revision', async (req, res) => {
    const asked = parse(revisionParam, req.params['revision']);
    const { value: record, ...rest } = await history.read('record', idOf(req), asked);
    res.json({ ...rest, record });
  });

  return router;
}
