import { useVirtualizer, type Range } from '@tanstack/react-virtual';
import { memo, useEffect, useMemo, useRef, type KeyboardEvent } from 'react';
import { useNavigate } from 'react-router';
import type { Cap } from '@zugluft/core/envelope/fanStates';
import { wattsColumn, type MachineSummary } from '@zugluft/core/library/answers';
import type { ChosenRows } from './useChosenRows';
import { columnsFor, type Column } from './libraryColumns';
import { LibraryRow, type RowActions } from './LibraryRow';
import { useNarrow } from '../../kit/useNarrow';
import { useUnits } from '../../kit/units';

const ROW_PX = 37;
/** On a phone a row has more lines. */
const TALL_ROW_PX = 74;
const OVERSCAN = 2;
/** Steps of the scale of the small drawings. */
const SCALE_STEP_W = 50;
/** Rows come and go by so many at a time: the table is laid out anew at some frames of a scroll, not at each. */
const BLOCK = 16;

/** The rows to draw: those in sight and some around them, in whole blocks. */
function inBlocks({ startIndex, endIndex, overscan, count }: Range): number[] {
  const from = Math.max(0, Math.floor((startIndex - overscan) / BLOCK) * BLOCK);
  const to = Math.min(count, Math.ceil((endIndex + 1 + overscan) / BLOCK) * BLOCK);
  return Array.from({ length: Math.max(0, to - from) }, (_, i) => from + i);
}
/** Rows of the library; only those in sight are drawn, so that thousands scroll as lightly as ten. */
export function LibraryTable({
  total,
  row,
  sort,
  setSort,
  cap,
  caps,
  needW,
  aside,
  move,
  rows,
  chooseAll,
  window_,
  dim,
}: {
  total: number;
  row: (index: number) => MachineSummary | undefined;
  sort: string;
  setSort: (sort: string) => void;
  cap: Cap;
  caps: readonly Cap[];
  /** Watts whose least level is shown, where somebody asks for them. */
  needW: number | undefined;
  aside: boolean;
  move: (m: MachineSummary) => void;
  rows: ChosenRows;
  /** All that the view shows, or none. */
  chooseAll: (all: boolean) => void;
  /** Told which rows are in sight. */
  window_: (from: number, to: number) => void;
  dim: boolean;
}) {
  const holder = useRef<HTMLDivElement>(null);
  const navigate = useNavigate();
  const { units } = useUnits();
  const rowPx = useNarrow() ? TALL_ROW_PX : ROW_PX;
  const virtual = useVirtualizer({
    count: total,
    getScrollElement: () => holder.current,
    estimateSize: () => rowPx,
    overscan: OVERSCAN,
    rangeExtractor: inBlocks,
    onChange: (v) => {
      const seen = v.getVirtualItems();
      if (seen.length) window_(seen[0]!.index, seen[seen.length - 1]!.index);
    },
  });
  useEffect(() => virtual.measure(), [virtual, rowPx]);
  const items = virtual.getVirtualItems();
  // one scale for the rows in sight and those around them, in steps, so that it stands while one scrolls
  const most = Math.max(
    1,
    ...items.flatMap((item) => {
      const m = row(item.index);
      return m ? caps.map((c) => m[wattsColumn(c)] ?? 0) : [];
    }),
  );
  const mostW = Math.ceil(most / SCALE_STEP_W) * SCALE_STEP_W;
  const columns = useMemo(
    () => columnsFor(cap, units.length, caps, mostW, needW),
    [cap, units.length, caps, mostW, needW],
  );
  const latest = useRef({ rows, move });
  useEffect(() => {
    latest.current = { rows, move };
  });
  const actions = useMemo<RowActions>(
    () => ({
      turn: (index, reach) => latest.current.rows.turn(index, reach),
      move: (m) => latest.current.move(m),
    }),
    [],
  );
  const go = (index: number) => {
    rows.take(index);
    virtual.scrollToIndex(index);
  };
  const onKeyDown = (e: KeyboardEvent) => {
    if (e.target !== holder.current || !total) return;
    const here = rows.at ?? -1;
    if (e.key === 'ArrowDown' || e.key === 'ArrowUp') {
      const next = Math.min(total - 1, Math.max(0, here + (e.key === 'ArrowDown' ? 1 : -1)));
      if (e.shiftKey && here >= 0) {
        if (!rows.chosen.has(row(here)?.id ?? '')) rows.turn(here);
        rows.turn(next, true);
      }
      go(next);
    } else if (e.key === 'Home') go(0);
    else if (e.key === 'End') go(total - 1);
    else if (e.key === ' ' && here >= 0) rows.turn(here, e.shiftKey);
    else if (e.key === 'Enter' && here >= 0) {
      const m = row(here);
      if (m) void navigate(`/machines/${m.id}/cooling`);
    } else if (e.key === 'a' && (e.ctrlKey || e.metaKey)) chooseAll(true);
    else if (e.key === 'Escape') rows.clear();
    else return;
    e.preventDefault();
    e.stopPropagation();
  };
  const key = sort.replace('-', '');
  const falling = sort.startsWith('-');
  return (
    <div
      ref={holder}
      // the ground makes it a layer of its own, so that what has been drawn moves without being drawn again
      className="bg-base-100 overflow-auto max-h-[calc(100vh-12.5rem)] min-h-40"
      // a scrolling region is reached with the keyboard
      tabIndex={0}
      role="region"
      aria-label="machines: arrows go through them, Space chooses, Enter opens"
      data-testid="library-rows"
      onKeyDown={onKeyDown}
    >
      <table
        className={`w-full sm:min-w-[62rem] text-left border-collapse table-fixed ${dim ? 'opacity-60' : ''}`}
        data-testid="library"
        aria-rowcount={total + 1}
      >
        <thead className="sticky top-0 bg-base-100 z-10">
          <tr className="border-b border-ink text-small">
            <th className="w-8">
              <input
                type="checkbox"
                data-chooses
                className="checkbox checkbox-xs"
                aria-label="choose all that are shown"
                title="all, Ctrl+A in the list"
                checked={total > 0 && rows.chosen.size >= total}
                onChange={(e) => chooseAll(e.currentTarget.checked)}
              />
            </th>
            {columns.map((c) => (
              <th
                key={c.header}
                aria-sort={
                  c.sort === ''
                    ? undefined
                    : key !== c.sort
                      ? 'none'
                      : falling
                        ? 'descending'
                        : 'ascending'
                }
                className={`font-normal py-1.5 px-2 align-bottom leading-tight ${c.width} ${c.numeric ? 'text-right' : ''} ${c.wide ? 'hidden sm:table-cell' : ''}`}
              >
                {c.sort === '' ? (
                  <span className="text-quiet">{c.header}</span>
                ) : (
                  <button
                    type="button"
                    className={`cursor-pointer ${key === c.sort ? 'font-semibold' : 'text-quiet hover:text-ink'}`}
                    onClick={() =>
                      setSort(
                        key === c.sort
                          ? `${falling ? '' : '-'}${c.sort}`
                          : c.numeric
                            ? `-${c.sort}`
                            : c.sort,
                      )
                    }
                  >
                    {c.header}
                    {key === c.sort && (falling ? ' ↓' : ' ↑')}
                  </button>
                )}
              </th>
            ))}
            <th className="w-10">
              <span className="sr-only">{aside ? 'bring back' : 'put aside'}</span>
            </th>
          </tr>
        </thead>
        <LibraryBody
          from={items[0]?.index ?? 0}
          to={(items[items.length - 1]?.index ?? -1) + 1}
          total={total}
          row={row}
          at={rows.at}
          chosen={rows.chosen}
          columns={columns}
          aside={aside}
          rowPx={rowPx}
          actions={actions}
        />
      </table>
    </div>
  );
}

/** The rows from one to another, and the room of all others above and below; drawn anew only where these change. */
const LibraryBody = memo(function LibraryBody({
  from,
  to,
  total,
  row,
  at,
  chosen,
  columns,
  aside,
  rowPx,
  actions,
}: {
  from: number;
  to: number;
  total: number;
  row: (index: number) => MachineSummary | undefined;
  at: number | null;
  chosen: ReadonlySet<string>;
  columns: readonly Column[];
  aside: boolean;
  rowPx: number;
  actions: RowActions;
}) {
  const above = from * rowPx;
  const below = (total - to) * rowPx;
  return (
    <>
      {above > 0 && (
        <tbody aria-hidden>
          <tr style={{ height: above }} />
        </tbody>
      )}
      <tbody data-testid="rows">
        {Array.from({ length: to - from }, (_, i) => {
          const index = from + i;
          const m = row(index);
          return (
            <LibraryRow
              key={index}
              m={m}
              index={index}
              inHand={at === index}
              chosen={m !== undefined && chosen.has(m.id)}
              columns={columns}
              aside={aside}
              heightPx={rowPx}
              actions={actions}
            />
          );
        })}
      </tbody>
      {below > 0 && (
        <tbody aria-hidden>
          <tr style={{ height: below }} />
        </tbody>
      )}
    </>
  );
});
