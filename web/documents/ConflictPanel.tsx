import type { MergeConflict, Side } from '@zugluft/core/documents/mergeDocuments';
import type { KindName } from '@zugluft/core/documents/kinds';
import { valueWordsOf } from './record/fieldWords';
import { pathWordsOf } from './record/figureWords';

/** What two windows changed to different things: asked figure by figure, or for all at once. */
export function ConflictPanel({
  conflicts,
  choose,
  kind,
  nameOf = pathWordsOf(kind),
  keys = false,
}: {
  conflicts: readonly MergeConflict[];
  choose: (side: Side, path?: string) => void;
  /** The kind of document, a record where its figures have units. */
  kind: KindName;
  /** What a field is called, where its kind does not tell. */
  nameOf?: (path: string) => string;
  /** Says which keys choose, where there are some. */
  keys?: boolean;
}) {
  const valueOf = valueWordsOf(kind);
  const words = (c: MergeConflict, side: Side) =>
    side in c ? valueOf(c[side], c.path) : 'removed';
  return (
    <div role="alert" className="border-l-2 border-heat pl-3 my-2" data-testid="conflict">
      <p className="mb-1">
        {conflicts.length === 1
          ? 'One figure was changed in another window too.'
          : `${conflicts.length} figures were changed in another window too.`}{' '}
        All else is joined; the version you do not take stays in the history.
      </p>
      <table className="text-[0.92rem] mb-2">
        <thead className="text-quiet text-left text-small">
          <tr>
            <th className="font-normal pr-4">figure</th>
            <th className="font-normal pr-4">before</th>
            <th className="font-normal pr-4">here{keys && ', key 1'}</th>
            <th className="font-normal">other window{keys && ', key 2'}</th>
          </tr>
        </thead>
        <tbody>
          {conflicts.map((c, i) => (
            <tr key={c.path} className="align-top border-t border-rule" data-conflict={c.path}>
              <td className="pr-4 py-1">{nameOf(c.path)}</td>
              <td className="pr-4 py-1 text-quiet">
                {'base' in c ? valueOf(c.base, c.path) : 'not there'}
              </td>
              {(['mine', 'theirs'] as const).map((side) => (
                <td key={side} className="pr-2 py-1">
                  <button
                    type="button"
                    className="btn btn-sm h-auto min-h-8 py-1 text-left"
                    aria-label={`${nameOf(c.path)}: ${side === 'mine' ? 'keep what stands here' : 'take the other window’s'}, ${words(c, side)}`}
                    onClick={() => choose(side, c.path)}
                  >
                    {words(c, side)}
                    {keys && i === 0 && (
                      <span className="figure opacity-70"> {side === 'mine' ? '1' : '2'}</span>
                    )}
                  </button>
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
      {conflicts.length > 1 && (
        <div className="flex gap-2">
          <button type="button" className="btn btn-sm" onClick={() => choose('mine')}>
            Keep all that stands here
          </button>
          <button type="button" className="btn btn-sm" onClick={() => choose('theirs')}>
            Take all of the other window
          </button>
        </div>
      )}
    </div>
  );
}
