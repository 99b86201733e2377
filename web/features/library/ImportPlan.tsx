import type { ImportItem, WhenChanged } from '@zugluft/core/library/answers';
import { DifferenceList } from '../../documents/record/DifferenceList';
import { figureWords } from '../../documents/record/figureWords';

const WORDS: Record<ImportItem['action'], string> = {
  new: 'new',
  changed: 'changed',
  same: 'the same',
  refused: 'refused',
};
const SHOWN = 100;

/** What an import would do, machine by machine, and what becomes of those that differ. */
export function ImportPlan({
  items,
  changed,
  setChanged,
  apply,
}: {
  items: readonly ImportItem[];
  changed: WhenChanged;
  setChanged: (what: WhenChanged) => void;
  apply: () => void;
}) {
  const count = (a: ImportItem['action']) => items.filter((i) => i.action === a).length;
  const photos = items.reduce((n, i) => n + i.photos, 0);
  const editions = items.reduce((n, i) => n + i.editions, 0);
  // a machine that is the same here may still bring photos and published reports
  const useful = items.filter(
    (i) =>
      i.action === 'new' ||
      (i.action === 'changed' && changed !== 'skip') ||
      (i.action === 'same' && i.photos + i.editions > 0),
  ).length;
  return (
    <>
      <p className="mt-3" data-testid="import-counts">
        <span className="figure">{count('new')}</span> new,{' '}
        <span className="figure">{count('changed')}</span> changed,{' '}
        <span className="figure">{count('same')}</span> the same,{' '}
        <span className="figure">{count('refused')}</span> refused
        {photos > 0 && (
          <>
            , <span className="figure">{photos}</span> photos and papers
          </>
        )}
        {editions > 0 && (
          <>
            , <span className="figure">{editions}</span> published{' '}
            {editions === 1 ? 'report' : 'reports'}
          </>
        )}
        . Nothing is written yet.
      </p>
      <div
        className="max-h-64 overflow-y-auto my-2 border-y border-rule"
        tabIndex={0}
        role="region"
        aria-label="what the import would do"
      >
        <ul>
          {items.slice(0, SHOWN).map((i, k) => (
            <li key={k} className="py-1 border-b border-rule last:border-0">
              <div className="grid grid-cols-[5rem_minmax(0,1fr)] gap-2">
                <span className={i.action === 'refused' ? 'text-heat font-semibold' : 'text-quiet'}>
                  {WORDS[i.action]}
                </span>
                <span className="min-w-0 break-words">
                  {i.name || i.label}
                  {i.name && <span className="text-quiet text-small"> · {i.label}</span>}
                  {i.reasons.map((r) => (
                    <span key={r.path + r.message} className="block text-[0.9rem]">
                      {r.path && <span className="text-quiet">{figureWords(r.path)}: </span>}
                      {r.message}
                    </span>
                  ))}
                </span>
              </div>
              {i.first.length > 0 && <DifferenceList differences={i.first} />}
              {i.changed > i.first.length && (
                <p className="text-quiet text-small px-1.5">
                  and {i.changed - i.first.length} more
                </p>
              )}
            </li>
          ))}
        </ul>
        {items.length > SHOWN && <p className="text-quiet py-1">and {items.length - SHOWN} more</p>}
      </div>
      {count('changed') > 0 && (
        <label className="flex items-center gap-2 my-2">
          <span className="text-quiet">changed ones</span>
          <select
            className="select select-sm w-72"
            value={changed}
            onChange={(e) => setChanged(e.currentTarget.value as WhenChanged)}
          >
            <option value="update">become a new revision</option>
            <option value="new">are added as machines of their own</option>
            <option value="skip">are left as they are here</option>
          </select>
        </label>
      )}
      <button
        type="button"
        className="btn btn-sm btn-primary"
        disabled={useful === 0}
        onClick={apply}
      >
        {useful === 0 ? 'Nothing to import' : `Import ${useful}`}
      </button>
    </>
  );
}
