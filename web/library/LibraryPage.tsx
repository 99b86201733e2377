import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import {
  createColumnHelper,
  flexRender,
  getCoreRowModel,
  useReactTable,
  type SortingState,
} from '@tanstack/react-table';
import { Archive, ArchiveRestore } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { Link, useNavigate, useNavigation, useSearchParams } from 'react-router';
import { toast } from 'sonner';
import {
  bringBack,
  createMachine,
  listMachines,
  machineKeys,
  putAside,
  type MachineSummary,
} from '../api/machines';
import { emptyRecord } from '../machine/draft';
import { AppShell } from '../ui/AppShell';
import { Kbd } from '../ui/Kbd';
import { toShown } from '@zugluft/core/record/units';
import { useKeys } from '../ui/useKeys';
import { useUnits } from '../ui/units';
import { wattsText } from '../ui/words';

const PAGE_SIZE = 50;
const helper = createColumnHelper<MachineSummary>();

const number = (value: number | null, digits: number, unit: string) =>
  value === null ? (
    <span className="text-quiet">–</span>
  ) : (
    <>
      {digits < 0 ? wattsText(value) : value.toFixed(digits)} <span className="unit">{unit}</span>
    </>
  );

function Thickness({ mm }: { mm: number | null }) {
  const { units } = useUnits();
  return number(
    mm === null ? null : toShown(mm, 'mm', units),
    units.length === 'in' ? 2 : 1,
    units.length,
  );
}

const columns = [
  helper.accessor('maker', {
    header: 'machine',
    cell: ({ row: { original: m } }) => (
      <Link
        to={`/machines/${m.id}/cooling`}
        className="font-semibold hover:underline underline-offset-2"
      >
        {[m.maker, m.model].filter(Boolean).join(' ') || 'Unnamed machine'}
      </Link>
    ),
  }),
  helper.accessor('variant', {
    header: 'variant',
    cell: ({ row: { original: m } }) => (
      <span className="text-quiet">
        {[m.variant, m.stateName === 'as found' ? '' : m.stateName].filter(Boolean).join(' · ')}
      </span>
    ),
  }),
  helper.accessor('fans', { header: 'fans', cell: (c) => c.getValue() }),
  helper.accessor('pipes', { header: 'pipes', cell: (c) => c.getValue() }),
  helper.accessor('thicknessMm', {
    header: 'thickness',
    cell: (c) => <Thickness mm={c.getValue()} />,
  }),
  helper.accessor('massKg', { header: 'mass', cell: (c) => number(c.getValue(), 2, 'kg') }),
  helper.accessor('togetherAt36W', {
    header: 'at 36 dB(A)',
    cell: (c) => number(c.getValue(), -1, 'W'),
  }),
  helper.accessor('togetherFullW', {
    header: 'full speed',
    cell: (c) => number(c.getValue(), -1, 'W'),
  }),
];
const NUMERIC = new Set([
  'fans',
  'pipes',
  'thicknessMm',
  'massKg',
  'togetherAt36W',
  'togetherFullW',
]);

/** All machines: searched, sorted, opened, put aside. The view stands in the address bar. */
export function LibraryPage() {
  const [view, setView] = useSearchParams();
  const q = view.get('q') ?? '';
  const sort = view.get('sort') ?? 'maker';
  const page = Math.max(1, Number(view.get('page')) || 1);
  const aside = view.get('aside') === '1';
  const navigate = useNavigate();
  const client = useQueryClient();
  const search = useRef<HTMLInputElement>(null);
  const [text, setText] = useState(q);
  const set = (changes: Record<string, string | null>) =>
    setView(
      (v) => {
        const next = new URLSearchParams(v);
        for (const [key, value] of Object.entries(changes)) {
          if (value === null || value === '') next.delete(key);
          else next.set(key, value);
        }
        return next;
      },
      { replace: true },
    );
  // a machine that is being opened is not called back by the words still to be searched
  const leaving = useNavigation().state !== 'idle';
  useEffect(() => {
    if (text === q || leaving) return;
    const timer = setTimeout(() => set({ q: text, page: null }), 150);
    return () => clearTimeout(timer);
    // `set` is made anew on each render and changes nothing by itself
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [text, q, leaving]);
  const params = new URLSearchParams({
    q: q.slice(0, 200),
    sort,
    page: String(page),
    pageSize: String(PAGE_SIZE),
    putAside: aside ? '1' : '0',
  }).toString();
  const { data, error, refetch, isPlaceholderData } = useQuery({
    queryKey: machineKeys.list(params),
    queryFn: ({ signal }) => listMachines(params, signal),
    placeholderData: keepPreviousData,
  });
  const again = () => client.invalidateQueries({ queryKey: ['machines'] });
  const create = useMutation({
    mutationFn: () => createMachine(emptyRecord()),
    onSuccess: (made) => {
      void again();
      void navigate(`/machines/${made.id}/identify`);
    },
    onError: (cause) => toast.error(`No machine was made: ${cause.message}`),
  });
  const move = useMutation({
    mutationFn: ({ id, back }: { id: string; back: boolean }) =>
      back ? bringBack(id) : putAside(id),
    onSuccess: (_, { id, back }) => {
      void again();
      toast(back ? 'Brought back' : 'Put aside', {
        action: { label: 'Undo', onClick: () => move.mutate({ id, back: !back }) },
      });
    },
    onError: (cause) => toast.error(cause.message),
  });
  useKeys({ n: () => create.mutate(), f: () => search.current?.focus() });
  const sorting: SortingState = [{ id: sort.replace('-', ''), desc: sort.startsWith('-') }];
  const table = useReactTable({
    data: data?.items ?? [],
    columns,
    state: { sorting },
    manualSorting: true,
    manualPagination: true,
    enableSortingRemoval: false,
    onSortingChange: (update) => {
      const [next] = typeof update === 'function' ? update(sorting) : update;
      if (next) set({ sort: `${next.desc ? '-' : ''}${next.id}`, page: null });
    },
    getRowId: (m) => m.id,
    getCoreRowModel: getCoreRowModel(),
  });
  const pages = data ? Math.max(1, Math.ceil(data.total / PAGE_SIZE)) : 1;
  return (
    <AppShell crumbs={[]}>
      <main className="p-4 max-w-[80rem] mx-auto">
        <div className="flex flex-wrap items-center gap-3 mb-3">
          <h1 className="text-lg font-semibold mr-2">Library</h1>
          <input
            ref={search}
            type="search"
            className="input input-sm w-72"
            placeholder="maker, model, code or variant"
            aria-label="search the library"
            value={text}
            maxLength={200}
            onChange={(e) => setText(e.currentTarget.value)}
          />
          <Kbd>f</Kbd>
          <span className="text-quiet text-[0.9rem] grow" role="status">
            {data &&
              `${data.total} ${data.total === 1 ? 'machine' : 'machines'}${aside ? ' put aside' : ''}`}
          </span>
          <button
            type="button"
            className="btn btn-ghost btn-sm"
            aria-pressed={aside}
            onClick={() => set({ aside: aside ? null : '1', page: null })}
          >
            {aside ? 'Show the library' : 'Show put aside'}
          </button>
          <button
            type="button"
            className="btn btn-sm btn-primary"
            disabled={create.isPending}
            onClick={() => create.mutate()}
          >
            New machine <span className="figure opacity-80">n</span>
          </button>
        </div>
        {error && (
          <div role="alert" className="border-l-2 border-heat pl-3 my-4">
            <p>The library could not be read: {error.message}.</p>
            <button type="button" className="btn btn-sm mt-2" onClick={() => void refetch()}>
              Try again
            </button>
          </div>
        )}
        <div className="overflow-x-auto">
          <table
            className={`w-full text-left border-collapse ${isPlaceholderData ? 'opacity-60' : ''}`}
            data-testid="library"
          >
            <thead>
              {table.getHeaderGroups().map((group) => (
                <tr key={group.id} className="border-b border-ink text-[0.85rem]">
                  {group.headers.map((h) => {
                    const sorted = h.column.getIsSorted();
                    return (
                      <th
                        key={h.id}
                        aria-sort={
                          sorted === 'asc' ? 'ascending' : sorted === 'desc' ? 'descending' : 'none'
                        }
                        className={`font-normal py-1.5 px-2 whitespace-nowrap ${NUMERIC.has(h.id) ? 'text-right' : ''}`}
                      >
                        <button
                          type="button"
                          className={`cursor-pointer ${sorted ? 'font-semibold' : 'text-quiet hover:text-ink'}`}
                          onClick={h.column.getToggleSortingHandler()}
                        >
                          {flexRender(h.column.columnDef.header, h.getContext())}
                          {sorted === 'asc' ? ' ↑' : sorted === 'desc' ? ' ↓' : ''}
                        </button>
                      </th>
                    );
                  })}
                  <th className="w-10">
                    <span className="sr-only">{aside ? 'bring back' : 'put aside'}</span>
                  </th>
                </tr>
              ))}
            </thead>
            <tbody>
              {table.getRowModel().rows.map((row) => (
                <tr key={row.id} className="border-b border-rule hover:bg-base-200">
                  {row.getVisibleCells().map((cell) => (
                    <td
                      key={cell.id}
                      className={`py-2 px-2 ${NUMERIC.has(cell.column.id) ? 'figure text-right whitespace-nowrap' : ''}`}
                    >
                      {flexRender(cell.column.columnDef.cell, cell.getContext())}
                    </td>
                  ))}
                  <td className="text-right">
                    <button
                      type="button"
                      className="btn btn-ghost btn-xs px-1"
                      aria-label={`${aside ? 'bring back' : 'put aside'} ${row.original.maker} ${row.original.model}, ${row.original.variant}`}
                      title={aside ? 'bring back' : 'put aside'}
                      onClick={() => move.mutate({ id: row.id, back: aside })}
                    >
                      {aside ? (
                        <ArchiveRestore size={15} aria-hidden />
                      ) : (
                        <Archive size={15} aria-hidden />
                      )}
                    </button>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
        {data && data.total === 0 && (
          <p className="text-quiet py-8 text-center">
            {q
              ? 'No machine has these words. Try fewer of them.'
              : aside
                ? 'Nothing is put aside.'
                : 'The library is empty. Add the first machine with the button above, or with the key n.'}
          </p>
        )}
        {pages > 1 && (
          <div className="flex items-center gap-3 justify-end py-3 text-[0.9rem]">
            <button
              type="button"
              className="btn btn-sm"
              disabled={page <= 1}
              onClick={() => set({ page: String(page - 1) })}
            >
              Earlier
            </button>
            page {page} of {pages}
            <button
              type="button"
              className="btn btn-sm"
              disabled={page >= pages}
              onClick={() => set({ page: String(page + 1) })}
            >
              Later
            </button>
          </div>
        )}
      </main>
    </AppShell>
  );
}
