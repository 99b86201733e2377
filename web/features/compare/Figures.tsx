import {
  createColumnHelper,
  flexRender,
  getCoreRowModel,
  getSortedRowModel,
  useReactTable,
  functionalUpdate,
  type SortingState,
  type Updater,
  type VisibilityState,
} from '@tanstack/react-table';
import { useMemo, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { quietBand, quietText } from '../../documents/answer/quietText';
import { figureValue } from '@zugluft/core/record/figure';
import { wattsText } from '@zugluft/core/case/answerWords';
import { comparisonCsv, comparisonDocument } from '@zugluft/core/compare/comparisonDocument';
import type { Laboratory } from '@zugluft/core/case/laboratory';
import type { Cap } from '@zugluft/core/envelope/fanStates';
import type { CaseRecord } from '@zugluft/core/record/recordSchema';
import { bandText } from '@zugluft/core/verdict/bandWords';
import type { Machine } from '../../api/machines';
import { atCap } from '../../documents/answer/caps';
import { CapSelect } from '../../documents/answer/CapSelect';
import { BandBar } from '../../documents/answer/BandBar';
import { wattsWanted } from '../../documents/answer/wattsWanted';
import { OnceStatus } from '../../documents/answer/OnceStatus';
import { useAddressText } from '../../kit/useAddressText';
import { useSetAddress } from '../../kit/useSetAddress';
import { CardSave } from './CardSave';
import { Chances } from './Chances';
import { Charts } from './Charts';
import { bandAt, BESIDE, quietOf, quietOrder, type Row } from './comparedFigures';
import { saveBlob } from './saveBlob';
import { sortingIn, sortText } from './sortInAddress';
import { WattsWanted } from './WattsWanted';
import { useComparison } from './useComparison';
import { useServiceScores } from './useServiceScores';

const column = createColumnHelper<Row>();

/** Machines ranked at a cap with their bands, what else is told of them, and which of two is really better. */
export function Figures({
  machines,
  lab,
  levels,
  cap,
  choose,
}: {
  machines: readonly Machine[];
  lab: Laboratory;
  /** Of the laboratory; the chosen one may be another. */
  levels: readonly Cap[];
  cap: Cap;
  /** Puts another level into the address. */
  choose: (level: string) => void;
}) {
  const caps = useMemo(() => (levels.includes(cap) ? levels : [...levels, cap]), [levels, cap]);
  const { comparison, ids, requests, calibrated, draws, once } = useComparison(machines, lab, caps);
  const scores = useServiceScores(ids);
  const rows = useMemo(
    () =>
      comparison?.machines.map((m, i): Row => ({
        ...m,
        id: ids[i]!,
        isCalibrated: calibrated.has(ids[i]!),
        ...sizeOf(machines.find((own) => own.id === ids[i])),
        serviceScore: scores[ids[i]!] ?? null,
      })) ?? [],
    // the machines of the ids: their list is made anew each time
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [comparison, ids, calibrated, scores],
  );
  const [level, turnLevel] = useAddressText(String(cap), choose);
  const needW = wattsWanted(useSearchParams()[0].get('needW'));
  const lacking = machines.length - ids.length;
  return (
    <section aria-label="figures" className="mb-6">
      <div className="flex flex-wrap items-baseline gap-x-4 gap-y-1 mb-2">
        <h2 className="font-semibold">Ranked, {atCap(cap)}</h2>
        <CapSelect
          caps={levels}
          value={Number(level)}
          choose={(c) => turnLevel(String(c))}
          label="compared at"
        />
        <WattsWanted />
        <OnceStatus once={once} what="machines" />
        {lacking > 0 && (
          <span className="text-small text-quiet">
            {lacking} without an answer yet: figures are missing
          </span>
        )}
      </div>
      {comparison && (
        <>
          <FiguresTable rows={rows} cap={cap} needW={needW} />
          <Charts rows={rows} requests={requests} cap={cap} />
          <Chances machines={rows} better={comparison.better} cap={cap} />
          <p className="mt-3 flex flex-wrap gap-2">
            <Save
              name="comparison.json"
              type="application/json"
              text={() => `${JSON.stringify(comparisonDocument(comparison), null, 2)}\n`}
            >
              Save as JSON
            </Save>
            <Save name="comparison.csv" type="text/csv" text={() => comparisonCsv(comparison)}>
              Save as CSV
            </Save>
            <CardSave rows={rows} better={comparison.better} cap={cap} draws={draws} />
          </p>
        </>
      )}
    </section>
  );
}

/** Mass and thickness as they are recorded. */
function sizeOf(machine: Machine | undefined): Pick<Row, 'massKg' | 'thicknessMm'> {
  const shell = (machine?.record as CaseRecord | undefined)?.shell;
  return {
    massKg: figureValue(shell?.massKg) ?? null,
    thicknessMm: figureValue(shell?.thicknessMm) ?? null,
  };
}

function Save({
  name,
  type,
  text,
  children,
}: {
  name: string;
  type: string;
  text: () => string;
  children: string;
}) {
  const save = () => saveBlob(new Blob([text()], { type }), name);
  return (
    <button type="button" className="btn btn-sm" onClick={save}>
      {children}
    </button>
  );
}

/** A phone has room for what is asked for. */
const onPhone = (column: string): boolean => ['name', 'watts', 'quiet'].includes(column);

function FiguresTable({
  rows,
  cap,
  needW,
}: {
  rows: readonly Row[];
  cap: Cap;
  /** Watts whose least level has a column, where somebody asks for it. */
  needW: number | null;
}) {
  const [params] = useSearchParams();
  const setAddress = useSetAddress();
  const asked = params.get('sort');
  const sorting = useMemo(() => sortingIn(asked, needW !== null), [asked, needW]);
  const sort = (change: Updater<SortingState>) =>
    setAddress('sort', sortText(functionalUpdate(change, sorting)) || null);
  const [visible, setVisible] = useState<VisibilityState>({});
  const most = Math.max(1, ...rows.map((r) => bandAt(r, cap)?.p95 ?? 0));
  const columns = useMemo(
    () => [
      column.accessor('name', {
        header: 'machine',
        sortingFn: 'text',
        cell: ({ row }) => (
          <Link
            to={`/machines/${row.original.id}/verdict`}
            className="hover:underline underline-offset-2 py-0.5 inline-block"
          >
            {row.original.name}
          </Link>
        ),
      }),
      column.accessor((r) => bandAt(r, cap)?.p50 ?? 0, {
        id: 'watts',
        header: 'watts, 5–95 %',
        cell: ({ row }) => <Band row={row.original} cap={cap} most={most} />,
      }),
      ...(needW === null
        ? []
        : [
            column.accessor((r) => quietOrder(r, needW), {
              id: 'quiet',
              sortDescFirst: false,
              sortingFn: 'basic',
              header: `dB(A) for ${needW} W`,
              cell: ({ row }) => <Quiet row={row.original} watts={needW} />,
            }),
          ]),
      ...BESIDE.map(([id, header, digits]) =>
        column.accessor((r) => r[id] ?? -1, {
          id,
          header,
          cell: ({ row }) => row.original[id]?.toFixed(digits) ?? '–',
        }),
      ),
    ],
    [cap, most, needW],
  );
  const table = useReactTable({
    data: rows as Row[],
    columns,
    state: { sorting, columnVisibility: visible },
    onSortingChange: sort,
    onColumnVisibilityChange: setVisible,
    getCoreRowModel: getCoreRowModel(),
    getSortedRowModel: getSortedRowModel(),
    getRowId: (r) => r.id,
  });
  return (
    <>
      <div
        className="overflow-x-auto"
        tabIndex={0}
        role="region"
        aria-label="figures of each machine"
      >
        <table className="w-full text-left border-collapse text-[0.95rem]">
          <thead>
            <tr className="border-b border-ink text-small align-bottom">
              {table.getFlatHeaders().map((h, i) => {
                const sorted = h.column.getIsSorted();
                return (
                  <th
                    key={h.id}
                    scope="col"
                    className={`font-normal px-1.5 py-1 ${i > 1 ? 'text-right' : ''} ${onPhone(h.id) ? '' : 'max-sm:hidden'}`}
                    aria-sort={sorted ? (sorted === 'asc' ? 'ascending' : 'descending') : undefined}
                  >
                    <button
                      type="button"
                      className="hover:underline min-h-6"
                      onClick={h.column.getToggleSortingHandler()}
                    >
                      {flexRender(h.column.columnDef.header, h.getContext())}
                      {sorted ? (sorted === 'asc' ? ' ↑' : ' ↓') : ''}
                    </button>
                  </th>
                );
              })}
            </tr>
          </thead>
          <tbody>
            {table.getRowModel().rows.map((r) => (
              <tr key={r.id} className="border-b border-rule">
                {r.getVisibleCells().map((c, i) => (
                  <td
                    key={c.id}
                    className={`px-1.5 py-1 ${i > 1 ? 'figure text-right' : i === 1 ? 'w-2/5' : ''} ${onPhone(c.column.id) ? '' : 'max-sm:hidden'}`}
                  >
                    {flexRender(c.column.columnDef.cell, c.getContext())}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <details className="mt-2 text-small text-quiet max-sm:hidden">
        <summary className="cursor-pointer">Columns</summary>
        <div className="flex flex-wrap gap-x-4 gap-y-1 mt-1">
          {table
            .getAllLeafColumns()
            .filter((c) => c.id !== 'name' && c.id !== 'watts')
            .map((c) => (
              <label key={c.id} className="inline-flex items-center gap-1.5 min-h-6">
                <input
                  type="checkbox"
                  data-chooses
                  className="checkbox checkbox-xs"
                  checked={c.getIsVisible()}
                  onChange={c.getToggleVisibilityHandler()}
                />
                {String(c.columnDef.header)}
              </label>
            ))}
        </div>
      </details>
    </>
  );
}

function Band({ row, cap, most }: { row: Row; cap: Cap; most: number }) {
  const band = bandAt(row, cap);
  if (!band) return '–';
  return (
    <span className="grid grid-cols-[minmax(3rem,1fr)_2.5rem] sm:grid-cols-[minmax(4rem,1fr)_2.5rem_6rem] gap-x-2 items-center">
      <BandBar band={band} most={most} tone={row.isCalibrated ? 'measured' : 'computed'} />
      <span className="figure text-right">{wattsText(band.p50)}</span>
      <span className="text-small text-quiet whitespace-nowrap max-sm:col-span-2 max-sm:text-right">
        {bandText(band)}
        {row.isCalibrated ? ', runs' : ''}
      </span>
    </span>
  );
}

/** Least level for some watts, with its band. */
function Quiet({ row, watts }: { row: Row; watts: number }) {
  const at = (end: 'p05' | 'p50' | 'p95') => quietText(quietOf(row, watts, end));
  return (
    <>
      {at('p50')}
      <span className="block text-small text-quiet whitespace-nowrap">
        {quietBand(at('p05'), at('p95'))}
      </span>
    </>
  );
}
