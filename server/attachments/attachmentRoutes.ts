import { raw, Router, type Request, type Response } from 'express';
import { MAX_ATTACHMENT_MB, type Attachment } from '@zugluft/core/library/attachment';
import { photoMarksSchema } from '@zugluft/core/photo/photoMarks';
import { SOUGHT } from '@zugluft/core/photo/sought';
import { z } from 'zod';
import { expectedRevision } from '../documents/lock';
import { writeIdOf } from '../documents/writeId';
import { parse } from '../security/parse';
import { Problem } from '../security/problem';
import { stillWanted } from '../security/stillWanted';
import type { AttachmentStore } from './attachmentStore';

export const addQuery = z.strictObject({
  name: z.string().min(1).max(200),
  path: z.string().max(200).default(''),
  /** The sender's own, so that what is sent twice is taken once. */
  id: z.uuid('is not a photo’s id').optional(),
});
export const attachmentListQuery = z.strictObject({
  page: z.coerce.number().int().min(1).max(1000).default(1),
  aside: z.enum(['0', '1']).default('0'),
});
const params = z.object({
  id: z.uuid('is not a machine’s id'),
  file: z.uuid('is not a photo’s id'),
});

const tileNumber = z.coerce.number('must be a number').int().min(0).max(1000);
/** What is looked for; all of it where nothing is said. */
export const proposalQuery = z.strictObject({ of: z.enum(SOUGHT).optional() });
export const tileParams = z.object({ column: tileNumber, row: tileNumber });

/** The browser’s own reader shows a paper with styles of its own; nothing in the paper runs or loads anything. */
const PAPER_POLICY =
  "default-src 'none'; style-src 'unsafe-inline'; object-src 'self'; img-src 'self' data:; frame-ancestors 'self'; base-uri 'none'; form-action 'none'";

/** A name that means nothing to a shell or a folder. */
const safeName = (name: string) =>
  name.replace(/[^\p{L}\p{N}._-]+/gu, '-').replace(/\.{2,}|^[.-]+/g, '') || 'photo';

/** Routes under /api/machines/:id/attachments. */
export function attachmentRoutes(store: AttachmentStore): Router {
  const router = Router({ mergeParams: true });
  const machineOf = (req: Request) => parse(params.shape.id, (req.params as { id?: string }).id);
  const both = (req: Request): [string, string] => {
    const { id, file } = parse(params, req.params);
    return [id, file];
  };
  const about = (req: Request) => ({ writeId: writeIdOf(req) });
  const send = (res: Response, photo: Attachment) =>
    res.set('ETag', `"${photo.revision}"`).json(photo);
  const keepFor = (res: Response, sha256: string) =>
    res.set('Cache-Control', 'private, max-age=31536000, immutable').set('ETag', `"${sha256}"`);

  router.get('/', async (req, res) => {
    const { page, aside } = parse(attachmentListQuery, req.query);
    res.json(await store.list(machineOf(req), page, aside === '1'));
  });

  router.post(
    '/',
    raw({ type: 'application/octet-stream', limit: MAX_ATTACHMENT_MB * 1024 * 1024 }),
    async (req, res) => {
      const bytes = Buffer.isBuffer(req.body) ? req.body : Buffer.alloc(0);
      const { id, ...about } = parse(addQuery, req.query);
      const known = id && (await store.find(machineOf(req), id));
      if (!known && id && (await store.knows(id))) {
        throw new Problem(409, 'Taken', 'this id is another machine’s photo');
      }
      if (known) res.json(known);
      else res.status(201).json(await store.add(machineOf(req), bytes, about, id ? { id } : {}));
    },
  );

  router.put('/:file', async (req, res) => {
    send(res, await store.change(...both(req), expectedRevision(req), req.body, about(req)));
  });

  router.post('/:file/put-aside', async (req, res) => {
    send(res, await store.setAside(...both(req), expectedRevision(req), true, about(req)));
  });

  router.post('/:file/bring-back', async (req, res) => {
    send(res, await store.setAside(...both(req), expectedRevision(req), false, about(req)));
  });

  router.get('/:file/content', async (req, res) => {
    const { row, bytes } = await store.content(...both(req));
    // the browser's own reader of papers needs parts that the page's policy forbids
    if (row.type === 'application/pdf') res.set('Content-Security-Policy', PAPER_POLICY);
    keepFor(res, row.sha256).type(row.type).send(bytes);
  });

  router.get('/:file/copy', async (req, res) => {
    const { row, bytes } = await store.copy(...both(req), stillWanted(res));
    res.attachment(safeName(row.name)).type(row.type).send(bytes);
  });

  // boxes: changes whenever the boxes do, so that the picture can be kept for good
  router.get('/:file/small', async (req, res) => {
    const bytes = await store.small(...both(req), stillWanted(res));
    res.set('Cache-Control', 'private, max-age=31536000, immutable').type('image/webp').send(bytes);
  });

  // its bytes never change, so that they can be kept for good
  router.get('/:file/view', async (req, res) => {
    const { row, bytes } = await store.view(...both(req), stillWanted(res));
    keepFor(res, row.sha256).type('image/webp').send(bytes);
  });

  router.get('/:file/tiles/:column/:row', async (req, res) => {
    const at = parse(tileParams, req.params);
    const { row, bytes } = await store.tile(...both(req), at, stillWanted(res));
    keepFor(res, row.sha256).type('image/jpeg').send(Buffer.from(bytes));
  });

  router.post('/:file/measures', async (req, res) => {
    const marks = parse(photoMarksSchema, req.body);
    res.json(await store.measure(...both(req), marks, stillWanted(res)));
  });

  router.post('/:file/proposals', async (req, res) => {
    const { of } = parse(proposalQuery, req.query);
    const marks = parse(photoMarksSchema, req.body);
    const sought = of ? [of] : SOUGHT;
    res.json({ items: await store.propose(...both(req), marks, sought, stillWanted(res)) });
  });

  return router;
}
