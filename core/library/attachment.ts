import { z } from 'zod';

/** Kinds of photos and papers that are taken, told by their content. */
export const ATTACHMENT_TYPES = [
  'image/jpeg',
  'image/png',
  'image/webp',
  'application/pdf',
] as const;
export type AttachmentType = (typeof ATTACHMENT_TYPES)[number];

export const MAX_ATTACHMENT_MB = 25;
export const MAX_MEGAPIXELS = 60;
/** Longer than any camera’s; a picture of one row of pixels takes gigabytes to turn. */
export const MAX_SIDE_PX = 32_767;
export const MAX_ATTACHMENTS = 500;
export const MAX_COVERS = 40;

const share = z.number().min(0).max(1);

/** A box that hides part of a photo: left, top, width and height as shares of the photo's. */
export const cover = z
  .tuple([share, share, share, share])
  .refine(([x, y, w, h]) => w > 0 && h > 0 && x + w <= 1 + 1e-6 && y + h <= 1 + 1e-6, {
    error: 'a box lies within the photo',
  });
export type Cover = z.infer<typeof cover>;

/**
 * What somebody may change of a photo or paper. `path` is what it belongs to: empty for the machine, `fans.fan-left` for a part,
 * `fans.fan-left.maxRpm` for a figure. `exported`: it goes into exports, with its boxes burned in, once it was `looked` at.
 */
export const attachmentFacts = z.strictObject({
  path: z.string().max(200),
  name: z.string().trim().min(1, 'needs a name').max(200, 'at most 200 characters'),
  caption: z.string().max(500, 'at most 500 characters'),
  covers: z.array(cover).max(MAX_COVERS, `at most ${MAX_COVERS} boxes`),
  exported: z.boolean(),
  /** Somebody looked through it for serial numbers, names and faces and said that it may be seen. */
  looked: z.boolean().default(false),
});
export type AttachmentFacts = z.infer<typeof attachmentFacts>;

/** A photo or paper as it is answered. */
export const attachment = attachmentFacts.extend({
  id: z.string(),
  machineId: z.string(),
  revision: z.int(),
  type: z.enum(ATTACHMENT_TYPES),
  sha256: z.string(),
  bytes: z.int(),
  widthPx: z.int().nullable(),
  heightPx: z.int().nullable(),
  /** By the camera's clock, without a zone, such as `2026-03-02T10:11:12`. */
  takenAt: z.string().nullable(),
  /** Focal length in pixels, as the camera wrote it. */
  focalPx: z.number().nullable(),
  createdAt: z.iso.datetime(),
  putAsideAt: z.iso.datetime().nullable(),
});
export type Attachment = z.infer<typeof attachment>;
