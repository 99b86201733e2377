import { Router, type Request } from 'express';
import { z } from 'zod';
import { parse } from '../security/parse';
import { Problem } from '../security/problem';
import { SORTABLE, type Machine, type MachineStore } from './machineStore';

const listQuery = z.strictObject({
  q: z.string().max(200).default(''),
  page: z.coerce.number().int().min(1).max(100_000).default(1),
  pageSize: z.coerce.number().int().min(1).max(200).default(50),
  sort: z
    .string()
    .regex(new RegExp(`^-?(${SORTABLE.join('|')})$`), `must be one of ${SORTABLE.join(', ')}`)
    .default('maker'),
  putAside: z.enum(['0', '1']).default('0'),
});

const idParam = z.uuid('is not a machine’s id');
const recordBody = z.strictObject({ record: z.unknown() });

function idOf(req: Request): string {
  return parse(idParam, req.params['id']);
}

/** The revision in an If-Match header, such as `"7"`. */
function expectedRevision(req: Request): number {
  const match = /^"(\d{1,9})"$/.exec(req.headers['if-match'] ?? '');
  if (!match) {
    throw new Problem(428, 'Revision needed', 'name the revision you saw, as If-Match: "7"');
  }
  return Number(match[1]);
}

function etag(machine: Machine): string {
  return `"${machine.revision}"`;
}

/** Routes under /api/machines. */
export function machineRoutes(store: MachineStore): Router {
  const router = Router();

  router.get('/', async (req, res) => {
    const { q, page, pageSize, sort, putAside } = parse(listQuery, req.query);
    const descending = sort.startsWith('-');
    const { items, total } = await store.list({
      q,
      page,
      pageSize,
      sort: sort.replace('-', '') as (typeof SORTABLE)[number],
      descending,
      putAside: putAside === '1',
    });
    res.json({ items, total, page, pageSize });
  });

  router.post('/', async (req, res) => {
    const machine = await store.create(parse(recordBody, req.body).record);
    res
      .status(201)
      .location(`/api/machines/${machine.id}`)
      .set('ETag', etag(machine))
      .json(machine);
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

  return router;
}
