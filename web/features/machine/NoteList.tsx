import { useState } from 'react';
import type { RangeNote } from '@zugluft/core/network/rangeNotes';
import { fieldAt } from '@zugluft/core/record/fieldTable';
import { partsOf, type Draft, type PartList } from '../../documents/record/draft';
import { figureWords } from '../../documents/record/figureWords';
import { useMachineFile } from '../../documents/record/MachineFile';
import { useGoToField } from './useGoToField';

/** Further ones would push the ladder out of sight. */
const SHOWN = 3;

/** The path with parts by their place, as fields are known by; null where it leads to no field. */
function placed(draft: Draft, path: string): string | null {
  const [list = '', id, ...field] = path.split('.');
  const index = partsOf(draft, list as PartList).findIndex((p) => p.id === id);
  return index < 0 || !fieldAt(path) ? null : [list, index, ...field].join('.');
}

/** What should be looked at once more, and where the computation left the range of its sources. */
export function NoteList({ notes }: { notes: readonly RangeNote[] }) {
  const { draft } = useMachineFile();
  const goTo = useGoToField();
  const [all, setAll] = useState(false);
  if (!notes.length) return null;
  const shown = all ? notes : notes.slice(0, SHOWN);
  return (
    <ul aria-label="notes" className="text-small border-l-2 border-heat pl-2 my-1.5 space-y-0.5">
      {shown.map((n) => {
        const at = placed(draft, n.path);
        // a message that names its part stands alone
        const named = n.message.startsWith('“');
        const words = (
          <>
            {!named && (
              <span className="text-heat">
                {at ? figureWords(n.path) : n.path.split('.').pop()}:{' '}
              </span>
            )}
            {n.message}
          </>
        );
        return (
          <li key={n.path + n.message}>
            {at ? (
              <button
                type="button"
                className="text-left cursor-pointer underline underline-offset-2 decoration-rule hover:decoration-ink"
                onClick={() => goTo(at)}
              >
                {words}
              </button>
            ) : (
              words
            )}
          </li>
        );
      })}
      {notes.length > SHOWN && (
        <li>
          <button
            type="button"
            aria-expanded={all}
            className="cursor-pointer text-quiet hover:text-ink"
            onClick={() => setAll((x) => !x)}
          >
            {all ? 'fewer' : `and ${notes.length - SHOWN} more`}
          </button>
        </li>
      )}
    </ul>
  );
}
