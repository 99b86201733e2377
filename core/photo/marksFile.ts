import { z } from 'zod';
import { LEAST_K1, MOST_K1 } from './distortion';

const FAR = 100_000;
const point = z.tuple(
  [
    z.number('must be a number').min(-FAR).max(FAR),
    z.number('must be a number').min(-FAR).max(FAR),
  ],
  'must be two numbers [x, y]',
);
const sizeMm = z.number('must be a number of mm').positive('must be more than 0').max(10_000);
/** A height over a plane, towards the camera. */
export const heightMmSchema = z.number('must be a number of mm').min(-200).max(200);
const above = { aboveMm: heightMmSchema.optional() };
const MOST_POINTS = 500;

/** What lies in a picture and is known. */
export const scaleItemSchema = z.discriminatedUnion(
  'kind',
  [
    z.strictObject({
      kind: z.literal('rectangle'),
      corners: z.array(point).length(4, 'needs four corners, in the order they go round'),
      widthMm: sizeMm,
      heightMm: sizeMm,
      ...above,
    }),
    z.strictObject({ kind: z.literal('length'), from: point, to: point, mm: sizeMm, ...above }),
    z.strictObject({
      kind: z.literal('circle'),
      points: z.array(point).min(3, 'needs three points on the rim or more').max(MOST_POINTS),
      diameterMm: sizeMm,
      ...above,
    }),
    /** An edge that is straight: it tells how the lens bends. */
    z.strictObject({
      kind: z.literal('straight'),
      points: z.array(point).min(3, 'needs three points along the edge or more').max(MOST_POINTS),
    }),
    /** How the lens bends, as straight edges or a grid told it in another photo. */
    z.strictObject({
      kind: z.literal('lens'),
      k1: z
        .number('must be a number')
        .min(LEAST_K1, `must be at least ${LEAST_K1}`)
        .max(MOST_K1, `must be at most ${MOST_K1}`),
      plusMinus: z.number('must be a number').gt(0, 'must be more than 0').max(1),
    }),
  ],
  'must be a rectangle, a length, a circle, a straight edge or a lens',
);
export type ScaleItem = z.infer<typeof scaleItemSchema>;
/** One that tells the size of things. */
export type SizedItem = Exclude<ScaleItem, { kind: 'straight' | 'lens' }>;
export const isSized = (item: ScaleItem): item is SizedItem =>
  item.kind !== 'straight' && item.kind !== 'lens';

export const MARK_KINDS = [
  'length',
  'strip',
  'circle',
  'path',
  'fins',
  'openShare',
  'area',
  'angle',
] as const;
export type MarkKind = (typeof MARK_KINDS)[number];

/** How many points a mark of each kind has: at least, at most. */
export const POINTS_OF: Record<MarkKind, readonly [least: number, most: number]> = {
  length: [2, 2],
  strip: [2, 2],
  circle: [3, MOST_POINTS],
  path: [2, MOST_POINTS],
  fins: [2, 2],
  openShare: [3, MOST_POINTS],
  area: [3, MOST_POINTS],
  angle: [3, 3],
};

const markId = z.string('needs an id').min(1, 'must not be empty').max(80);
const markFields = {
  kind: z.enum(MARK_KINDS, `must be one of ${MARK_KINDS.join(', ')}`),
  points: z.array(point).max(MOST_POINTS, `has at most ${MOST_POINTS} points`),
  /** Over the plane that is measured, towards the camera; of fins that of their tips. */
  aboveMm: heightMmSchema.optional(),
  /** Of an open share: light under which it is a hole, 0 to 1 of white; found where it is absent. */
  threshold: z.number().gt(0).lt(1).optional(),
};

function hasItsPoints(
  { kind, points }: { kind: MarkKind; points: readonly unknown[] },
  ctx: z.RefinementCtx,
): void {
  const [least, most] = POINTS_OF[kind];
  if (points.length >= least && points.length <= most) return;
  const wanted = least === most ? `${least}` : `${least} or more`;
  ctx.addIssue({
    code: 'custom',
    path: ['points'],
    message: `a mark of kind ${kind} needs ${wanted} points, not ${points.length}`,
  });
}

/** What is measured. */
export const markSchema = z.strictObject({ id: markId, ...markFields }).superRefine(hasItsPoints);
/** The same where its name stands beside it. */
export const namelessMarkSchema = z.strictObject(markFields).superRefine(hasItsPoints);
/** A name of a mark. */
export const markIdSchema = markId;
export type Mark = z.infer<typeof markSchema>;

/** Tells of each id that stood before. */
export function uniqueIds(
  ids: readonly string[],
  tell: (index: number, message: string) => void,
): void {
  const seen = new Set<string>();
  ids.forEach((id, i) => {
    if (seen.has(id)) tell(i, `there is another mark “${id}”`);
    seen.add(id);
  });
}

/** Marks of a photo with what gives its scale. Coordinates are pixels of the picture as displayed. */
export const marksFileSchema = z
  .strictObject({
    scale: z
      .array(scaleItemSchema, 'must be a list of what is known in the picture')
      .min(1, 'needs at least one thing of known size')
      .max(50)
      .refine(
        (all) => all.length === 0 || all.some(isSized),
        'needs at least one thing of known size',
      ),
    /** Height of what is measured over the plane of the references. */
    planeMm: heightMmSchema.optional(),
    /** One standard deviation of a click, each axis. */
    clickPx: z.number().gt(0, 'must be more than 0').max(50).optional(),
    marks: z.array(markSchema, 'must be a list of marks').max(2000),
  })
  .superRefine(({ marks }, ctx) => {
    uniqueIds(
      marks.map((m) => m.id),
      (i, message) => ctx.addIssue({ code: 'custom', path: ['marks', i, 'id'], message }),
    );
  });
export type MarksFile = z.infer<typeof marksFileSchema>;

/** One standard deviation of a click, each axis, where a file says nothing else. */
export const CLICK_PX = 1;

/** The format as a JSON Schema document, for other programs that write it. */
export function marksJsonSchema(): string {
  return `${JSON.stringify(z.toJSONSchema(marksFileSchema, { io: 'input' }), null, 2)}\n`;
}
