import {
  ARTICLE_FIELDS,
  MAX_WORDS,
  type Article,
  type ArticleField,
} from '@zugluft/core/report/article';
import { ConflictPanel } from '../../documents/ConflictPanel';
import type { Keeper, KeepView } from '../../documents/keeper';

const HINTS: Record<ArticleField, string> = {
  lead: 'under the headline of the report',
  impressions: 'before what a reader asks',
  closing: 'after it, before cautions and method',
};

/** A field is told how much is left of it from here on. */
const NEARLY_FULL = MAX_WORDS - 500;

/** What the reviewer tells readers in words of their own, in Markdown; kept as it is typed. */
export function OwnWords({
  view,
  keeper,
  problem,
  again,
  wrote,
}: {
  /** Null while it is being read. */
  view: KeepView<Article> | null;
  keeper: Keeper<Article> | null;
  problem: string | null;
  again: () => void;
  /** Told that something was written here, so that it is what is undone. */
  wrote: () => void;
}) {
  return (
    <section aria-label="own words" className="mt-6">
      <h2 className="font-semibold">In your own words</h2>
      {problem && (
        <p role="alert" className="text-heat">
          What was written could not be read: {problem}.{' '}
          <button type="button" className="btn btn-xs" onClick={again}>
            try again
          </button>
        </p>
      )}
      {view?.state.kind === 'conflict' && (
        <ConflictPanel kind="article" conflicts={view.state.conflicts} choose={keeper!.choose} />
      )}
      {view && keeper && (
        <div className="grid gap-x-6 gap-y-3 mt-1 sm:grid-cols-3">
          {ARTICLE_FIELDS.map(({ id, title }) => {
            const text = view.value[id] ?? '';
            return (
              <label key={id} className="block">
                <span className="text-small">
                  {title}
                  <span className="text-quiet">, {HINTS[id]}</span>
                </span>
                <textarea
                  className="textarea textarea-sm text-[0.9rem] w-full"
                  rows={5}
                  maxLength={MAX_WORDS}
                  value={text}
                  onChange={(e) => {
                    const words = e.currentTarget.value;
                    wrote();
                    keeper.change((a) => ({ ...a, [id]: words }), title.toLowerCase());
                  }}
                />
                {text.length > NEARLY_FULL && (
                  <span role="status" className="text-small text-heat">
                    {MAX_WORDS - text.length} letters left
                  </span>
                )}
              </label>
            );
          })}
        </div>
      )}
      <p className="text-small text-quiet">
        Markdown: *emphasis*, **weight**, lists, quotations, links.{' '}
        {view && STATE_WORDS[view.state.kind]}
      </p>
    </section>
  );
}

const STATE_WORDS: Record<KeepView<Article>['state']['kind'], string> = {
  saved: '',
  saving: 'Saving.',
  held: 'Something here cannot be kept.',
  offline: 'The server is away: it is kept here and sent later.',
  failed: 'It could not be saved.',
  conflict: '',
};
