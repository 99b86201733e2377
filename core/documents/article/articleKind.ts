import { ARTICLE_FIELDS, articleSchema, NO_ARTICLE, type Article } from '../../report/article';
import { acceptBy, type DocumentKind } from '../documentKind';

/** What the reviewer tells readers of a machine in words of their own. */
export const articleKind: DocumentKind<Article> = {
  name: 'article',
  title: 'words for readers',
  belongsTo: 'machine',
  schema: articleSchema,
  blank: () => NO_ARTICLE,
  read: (kept) => articleSchema.safeParse(kept).data ?? null,
  accept: acceptBy(articleSchema),
  describe: (article) =>
    ARTICLE_FIELDS.filter((f) => article[f.id]?.trim())
      .map((f) => f.title)
      .join(', ') || 'nothing written',
  refersTo: () => [],
  travels: { as: 'file', folder: 'articles', strip: (article) => article },
};
