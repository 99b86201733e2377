import { z } from 'zod';

/** The reviewer's own words for readers, in Markdown, beside what the program says. */

/** Letters of a field. */
export const MAX_WORDS = 10_000;

/** Fields, in the order in which they stand in a report, with the heading that they stand under there. */
export const ARTICLE_FIELDS = [
  { id: 'lead', title: 'To begin with', heading: null },
  { id: 'impressions', title: 'Impressions', heading: 'Impressions' },
  { id: 'closing', title: 'In short', heading: 'In short' },
] as const;

export type ArticleField = (typeof ARTICLE_FIELDS)[number]['id'];

const words = z
  .string('must be text')
  .max(MAX_WORDS, `must be at most ${MAX_WORDS.toLocaleString('en')} characters`);

export const articleSchema = z.looseObject({
  format: z.literal('zugluft-article', { error: 'is no article' }),
  formatVersion: z.literal(1, { error: 'was written by a newer version' }),
  lead: words.optional(),
  impressions: words.optional(),
  closing: words.optional(),
});

export type Article = z.infer<typeof articleSchema>;

export const NO_ARTICLE: Article = { format: 'zugluft-article', formatVersion: 1 };

/** The format as a JSON Schema document, for other programs that read or write it. */
export function articleJsonSchema(): string {
  return `${JSON.stringify(z.toJSONSchema(articleSchema, { io: 'input' }), null, 2)}\n`;
}
