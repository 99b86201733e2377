import { MAX_CAP_DBA, MIN_CAP_DBA } from '@zugluft/core/case/laboratory';
import type { Cap } from '@zugluft/core/envelope/fanStates';
import { z } from 'zod';

/** Columns of the library that it sorts by, apart from watts. */
export const SORTABLE = [
  'maker',
  'variant',
  'fans',
  'pipes',
  'finAreaCm2',
  'thicknessMm',
  'massKg',
  'updatedAt',
] as const;

const bound = z.coerce.number('must be a number').min(0).max(1e6).optional();
export const tagName = z
  .string('needs a name')
  .trim()
  .min(1, 'needs a name')
  .max(40, 'must be at most 40 characters');

const CAP_WORDS = `must be off, full or a level from ${MIN_CAP_DBA} to ${MAX_CAP_DBA} dB(A)`;

/** A cap as an address names it: off, full, or a level. */
export const capText = z.string().transform((text, context): Cap => {
  if (text === 'off' || text === 'full') return text;
  const level = Number(text);
  if (/^\d+(\.\d{1,2})?$/.test(text) && level >= MIN_CAP_DBA && level <= MAX_CAP_DBA) return level;
  context.addIssue({ code: 'custom', message: CAP_WORDS });
  return z.NEVER;
});

/** By the least level for some watts. */
const QUIET_SORT = /^-?quietFor\d{1,4}(\.\d{1,2})?W$/;
const WATTS_SORT = /^-?together(Off|Full|At(\d+(\.\d{1,2})?))W$/;

/** How the library is asked: words, filters, order, page. */
export const listQuery = z.strictObject({
  q: z.string().max(200).default(''),
  page: z.coerce.number().int().min(1).max(100_000).default(1),
  pageSize: z.coerce.number().int().min(1).max(200).default(50),
  sort: z
    .string()
    .refine(
      (x) =>
        new RegExp(`^-?(${SORTABLE.join('|')})$`).test(x) ||
        WATTS_SORT.test(x) ||
        QUIET_SORT.test(x),
      `must be one of ${SORTABLE.join(', ')}, watts at a cap such as togetherAt36W, or the level for some watts such as quietFor80W`,
    )
    .default('maker'),
  putAside: z.enum(['0', '1']).default('0'),
  tag: tagName.optional(),
  chamber: z.enum(['0', '1']).optional(),
  fansMin: bound,
  fansMax: bound,
  pipesMin: bound,
  pipesMax: bound,
  massMin: bound,
  massMax: bound,
  thicknessMin: bound,
  thicknessMax: bound,
  finAreaMin: bound,
  finAreaMax: bound,
  /** The cap that `wattsMin` and `wattsMax` are about; that of the laboratory in the middle by default. */
  cap: capText.optional(),
  wattsMin: bound,
  wattsMax: bound,
  /** Watts of both dies that are wanted, and the greatest level, dB(A), at which the machine has to sustain them. */
  needW: bound,
  levelMax: bound,
});
export type ListQuery = z.infer<typeof listQuery>;

/** The cap whose watts an order goes by, null where it goes by something else. */
export function capOfSort(sort: string): Cap | null {
  const match = WATTS_SORT.exec(sort);
  if (!match) return null;
  return match[1] === 'Off' ? 'off' : match[1] === 'Full' ? 'full' : Number(match[2]);
}

/** What was typed as a full-text query: every word must begin a word of the machine; nothing typed is syntax. */
export function matchOf(typed: string): string {
  return typed
    .split(/\s+/)
    .map((word) => word.replace(/"/g, ''))
    .filter((word) => /[\p{L}\p{N}]/u.test(word))
    .slice(0, 10)
    .map((word) => `"${word}"*`)
    .join(' ');
}
