import { Archive, ArchiveRestore } from 'lucide-react';
import { memo } from 'react';
import type { MachineSummary } from '@zugluft/core/library/answers';
import type { Column } from './libraryColumns';

/** What a row is told to do; the same for as long as the list stands, so that rows are drawn anew only where they changed. */
export interface RowActions {
  turn: (index: number, reach: boolean) => void;
  move: (m: MachineSummary) => void;
}

/** One row of the library, or its place while it is read. */
export const LibraryRow = memo(function LibraryRow({
  m,
  index,
  inHand,
  chosen,
  columns,
  aside,
  heightPx,
  actions,
}: {
  m: MachineSummary | undefined;
  index: number;
  inHand: boolean;
  chosen: boolean;
  columns: readonly Column[];
  aside: boolean;
  heightPx: number;
  actions: RowActions;
}) {
  return (
    <tr
      aria-rowindex={index + 2}
      style={{ height: heightPx }}
      data-at={inHand || undefined}
      className={`border-b border-rule hover:bg-base-200 ${inHand ? 'outline-2 -outline-offset-2 outline-air' : ''} ${chosen ? 'bg-base-200' : ''}`}
    >
      {m ? (
        <>
          <td className="text-center">
            <input
              type="checkbox"
              data-chooses
              className="checkbox checkbox-xs"
              aria-label={`choose ${m.maker} ${m.model}, ${m.variant}`}
              checked={chosen}
              title="Shift chooses a range"
              onClick={(e) => actions.turn(index, e.shiftKey)}
              onChange={() => undefined}
            />
          </td>
          {columns.map((c) => (
            <td
              key={c.header}
              className={`px-2 whitespace-nowrap truncate ${c.numeric ? 'figure text-right' : ''} ${c.wide ? 'hidden sm:table-cell' : ''}`}
            >
              {c.cell(m)}
            </td>
          ))}
          <td className="text-right">
            <button
              type="button"
              className="btn btn-ghost btn-xs px-1"
              aria-label={`${aside ? 'bring back' : 'put aside'} ${m.maker} ${m.model}, ${m.variant}`}
              title={aside ? 'bring back' : 'put aside'}
              onClick={() => actions.move(m)}
            >
              {aside ? <ArchiveRestore size={15} aria-hidden /> : <Archive size={15} aria-hidden />}
            </button>
          </td>
        </>
      ) : (
        <td colSpan={columns.length + 2} className="px-2 text-quiet">
          reading
        </td>
      )}
    </tr>
  );
});
