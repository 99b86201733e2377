import { printedDocument } from '@zugluft/core/exchange/jsonFault';
import { Router, type Request, type Response } from 'express';
import {
  DOCUMENT_KINDS,
  KIND_NAMES,
  kindNamed,
  type KindName,
} from '@zugluft/core/documents/kinds';
import type { DocumentAnswer } from '@zugluft/core/library/answers';
import { z } from 'zod';
import { parse } from '../security/parse';
import { Problem } from '../security/problem';
import type { DocumentHistory } from './documentHistory';
import type { DocumentStore } from './documentStore';
import { expectedRevision } from './lock';
import type { KeptDocument } from './shelf';
import { writeIdOf } from './writeId';

const params = z.object({
  kind: z.enum(KIND_NAMES as [KindName, ...KindName[]], 'is no kind of document'),
  id: z.string().regex(/^[\w-]{1,60}$/, 'is no document’s id'),
});
export const historyQuery = z.strictObject({
  page: z.coerce.number().int().min(1).max(100_000).default(1),
});
export const revisionParam = z.coerce.number('is no revision').int().min(1).max(1e9);
export const valueBody = z.strictObject({ value: z.unknown() });

/** A document as the routes for every kind answer it. */
export function documentAnswer(now: KeptDocument<unknown>): DocumentAnswer {
  return {
    kind: now.kind,
    id: now.id,
    revision: now.revision,
    value: now.value,
    name: now.name,
    putAsideAt: now.putAsideAt?.toISOString() ?? null,
    createdAt: now.createdAt?.toISOString() ?? null,
    updatedAt: now.updatedAt?.toISOString() ?? null,
  };
}

/** Routes under /api/documents, the same for every kind: read, write, put aside, bring back, history, step back, export. */
export function documentRoutes(store: DocumentStore, history: DocumentHistory): Router {
  const router = Router();
  const of = (req: Request) => parse(params, req.params);
  const send = (res: Response, now: KeptDocument<unknown>) =>
    res.set('ETag', `"${now.revision}"`).json(documentAnswer(now));
  const about = (req: Request) => ({ writeId: writeIdOf(req) });

  router.get('/', (_req, res) => {
    res.json({
      items: KIND_NAMES.map((name) => {
        const { title, belongsTo, travels } = DOCUMENT_KINDS[name];
        return { kind: name, title, belongsTo, travels: travels?.as ?? null };
      }),
    });
  });

  router.get('/:kind/:id', async (req, res) => {
    const { kind, id } = of(req);
    send(res, await store.read(kind, id));
  });

  router.put('/:kind/:id', async (req, res) => {
    const { kind, id } = of(req);
    const seen = expectedRevision(req);
    const value = store.accept(kind, parse(valueBody, req.body).value, 'value');
    send(res, await store.write(kind, id, seen, value, about(req)));
  });

  router.post('/:kind/:id/put-aside', async (req, res) => {
    const { kind, id } = of(req);
    send(res, await store.setAside(kind, id, expectedRevision(req), true, about(req)));
  });

  router.post('/:kind/:id/bring-back', async (req, res) => {
    const { kind, id } = of(req);
    send(res, await store.setAside(kind, id, expectedRevision(req), false, about(req)));
  });

  router.get('/:kind/:id/revisions', async (req, res) => {
    const { kind, id } = of(req);
    res.json(await history.list(kind, id, parse(historyQuery, req.query).page));
  });

  router.get('/:kind/:id/revisions/:revision', async (req, res) => {
    const { kind, id } = of(req);
    res.json(await history.read(kind, id, parse(revisionParam, req.params.revision)));
  });

  router.post('/:kind/:id/revisions/:revision/restore', async (req, res) => {
    const { kind, id } = of(req);
    const revision = parse(revisionParam, req.params.revision);
    send(res, await store.restore(kind, id, expectedRevision(req), revision, about(req)));
  });

  router.get('/:kind/:id/export', async (req, res) => {
    const { kind, id } = of(req);
    const { travels, title } = kindNamed(kind);
    if (!travels) throw new Problem(405, 'Not for this', `${title} stay in this library`);
    const { value } = await store.read(kind, id);
    res
      .attachment(`${kind}.json`)
      .type('application/json')
      .send(printedDocument(travels.strip(value)));
  });

  return router;
}
