import { useCommands } from '../../documents/commands';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useEffect, useMemo, useRef, useState } from 'react';
import { Link, useLocation, useNavigate, useNavigation, useSearchParams } from 'react-router';
import { toast } from 'sonner';
import { capsOf } from '@zugluft/core/case/laboratory';
import { bringBack, putAside } from '../../api/machines';
import { EmptyLibrary } from '../../documents/EmptyLibrary';
import { documentMoved } from '../../documents/keepers';
import { exchangeAsked } from '../../documents/places';
import { UnsentMachines } from '../../documents/UnsentMachines';
import { useLaboratory } from '../../documents/useLaboratory';
import { PageFrame } from '../../kit/PageFrame';
import { Kbd } from '../../kit/Kbd';
import { SearchField } from '../../kit/SearchField';
import { beginMachine } from '../../documents/record/freshMachine';
import { ExchangeDialog } from './ExchangeDialog';
import { LibraryFilters } from './LibraryFilters';
import { LibraryTable } from './LibraryTable';
import { capOf, filtersSet, neededW, PAGE_SIZE } from './libraryView';
import { ChosenBar } from './ChosenBar';
import { useChosenRows } from './useChosenRows';
import { allIds, useLibraryRows } from './useLibraryRows';

/** All machines: searched, filtered, sorted, tagged, opened, put aside. The view stands in the address bar. */
export function LibraryPage() {
  const [view, setView] = useSearchParams();
  const q = view.get('q') ?? '';
  const aside = view.get('aside') === '1';
  const navigate = useNavigate();
  const client = useQueryClient();
  const search = useRef<HTMLInputElement>(null);
  const [text, setText] = useState(q);
  const [filtering, setFiltering] = useState(filtersSet(view) > 0);
  // filters that somebody opened take the hand
  const asked = useRef(false);
  const asksExchange = exchangeAsked(useLocation().state);
  const [exchanging, setExchanging] = useState(asksExchange);
  const [seen, setSeen] = useState({ from: 0, to: 0 });
  // changes in quick succession each start from the one before, shown yet or not
  const latest = useRef(view);
  useEffect(() => {
    latest.current = view;
  }, [view]);
  const set = (changes: Record<string, string | null>) => {
    const next = new URLSearchParams(latest.current);
    for (const [key, value] of Object.entries(changes)) {
      if (value === null || value === '') next.delete(key);
      else next.set(key, value);
    }
    latest.current = next;
    setView(next, { replace: true });
  };
  // a machine that is being opened is not called back by the words still to be searched
  const leaving = useNavigation().state !== 'idle';
  useEffect(() => {
    if (text === q || leaving) return;
    const timer = setTimeout(() => set({ q: text }), 150);
    return () => clearTimeout(timer);
    // `set` is made anew on each render and changes nothing by itself
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [text, q, leaving]);
  const lab = useLaboratory();
  const caps = useMemo(() => capsOf(lab), [lab]);
  const { total, row, data, error, refetch, isPlaceholderData } = useLibraryRows(
    view,
    caps,
    seen.from,
    seen.to,
  );
  const rows = useChosenRows((index) => row(index)?.id);
  const { chosen } = rows;
  const again = () => client.invalidateQueries({ queryKey: ['machines'] });
  const move = useMutation({
    mutationFn: ({ id, revision, back }: { id: string; revision: number; back: boolean }) =>
      back ? bringBack(id, revision) : putAside(id, revision),
    onSuccess: ({ revision, record }, { id, back }) => {
      documentMoved('record', id, { revision, value: record });
      void again();
      toast(back ? 'Brought back' : 'Put aside', {
        action: { label: 'Undo', onClick: () => move.mutate({ id, revision, back: !back }) },
      });
    },
    onError: (cause) => {
      void again();
      toast.error(`${cause.message}. The list is read anew; try again.`);
    },
  });
  const toggleFilters = () => {
    asked.current = true;
    setFiltering((x) => !x);
  };
  const closeExchange = () => {
    setExchanging(false);
    // what another page asked for is done
    if (asksExchange) set({});
  };
  const showAside = () => {
    rows.clear();
    set({ aside: aside ? null : '1' });
  };
  useCommands({
    'library-new': () => beginMachine(navigate),
    'library-count': () => beginMachine(navigate, 'count'),
    'library-find': () => search.current?.focus(),
    'library-filter': toggleFilters,
    'library-exchange': () => setExchanging(true),
    'library-aside': showAside,
    'library-rows': () =>
      document.querySelector<HTMLElement>('[data-testid="library-rows"]')?.focus(),
  });
  const narrowed = filtersSet(view);
  const pending = data?.pending ?? 0;
  // as long as watts are being computed the list is looked at again
  useEffect(() => {
    if (!pending) return;
    const timer = setTimeout(() => void refetch(), 1500);
    return () => clearTimeout(timer);
  }, [pending, data, refetch]);
  return (
    <PageFrame crumbs={[]}>
      <main className="p-4 max-w-[92rem] mx-auto">
        <div className="flex flex-wrap items-center gap-3 mb-3">
          <h1 className="text-lg font-semibold mr-2">Library</h1>
          <SearchField
            field={search}
            label="search the library"
            hint="maker, model, code, part, note"
            value={text}
            set={setText}
            max={200}
          />
          <button
            type="button"
            className="btn btn-ghost btn-sm"
            aria-expanded={filtering}
            onClick={toggleFilters}
          >
            Filter{narrowed > 0 && ` (${narrowed})`} <Kbd>g</Kbd>
          </button>
          <span className="text-quiet text-[0.9rem] grow" role="status">
            {data && `${total} ${total === 1 ? 'machine' : 'machines'}${aside ? ' put aside' : ''}`}
            {pending > 0 && ` · watts of ${pending} being computed`}
          </span>
          <Link to="/runs" className="btn btn-ghost btn-sm">
            Runs
          </Link>
          <Link to="/bench-day" className="btn btn-ghost btn-sm">
            Bench day
          </Link>
          <button
            type="button"
            className="btn btn-ghost btn-sm"
            onClick={() => setExchanging(true)}
          >
            Import, export <Kbd>x</Kbd>
          </button>
          <button
            type="button"
            className="btn btn-ghost btn-sm"
            aria-pressed={aside}
            onClick={showAside}
          >
            {aside ? 'Show the library' : 'Show put aside'}
          </button>
          <button
            type="button"
            className="btn btn-ghost btn-sm"
            onClick={() => beginMachine(navigate, 'count')}
          >
            Quick count <Kbd>q</Kbd>
          </button>
          <button
            type="button"
            className="btn btn-primary btn-sm"
            onClick={() => beginMachine(navigate)}
          >
            New machine <span className="figure opacity-80 key-hint">n</span>
          </button>
        </div>
        <p className="text-quiet text-[0.9rem] -mt-1 mb-2">
          How many watts a notebook’s cooling sustains under a noise limit, what holds it, and how
          sure that is.
        </p>
        <UnsentMachines />
        <ExchangeDialog open={exchanging} close={closeExchange} />
        {filtering && <LibraryFilters view={view} set={set} caps={caps} enter={asked.current} />}
        {chosen.size > 0 && <ChosenBar chosen={[...chosen]} clear={rows.clear} />}
        {error && (
          <div className="border-l-2 border-heat pl-3 my-3" role="alert">
            <p>The library could not be read: {error.message}.</p>
            <button type="button" className="btn btn-sm mt-2" onClick={() => void refetch()}>
              Try again
            </button>
          </div>
        )}
        <LibraryTable
          total={total}
          row={row}
          sort={view.get('sort') ?? 'maker'}
          setSort={(sort) => set({ sort })}
          cap={capOf(view, caps)}
          caps={caps}
          needW={neededW(view)}
          aside={aside}
          move={({ id, revision }) => move.mutate({ id, revision, back: aside })}
          rows={rows}
          chooseAll={(all) => {
            if (!all) rows.clear();
            else void allIds(view, caps).then(rows.choose);
          }}
          // whole pages are read: between them the page is not drawn anew
          window_={(first, last) => {
            const from = first - (first % PAGE_SIZE);
            const to = last - (last % PAGE_SIZE);
            setSeen((s) => (s.from === from && s.to === to ? s : { from, to }));
          }}
          dim={isPlaceholderData}
        />
        {data && total === 0 && (
          <div className="text-quiet py-8 text-center">
            {q ? (
              'No machine has these words. Try fewer of them.'
            ) : narrowed ? (
              'No machine passes these filters.'
            ) : aside ? (
              'Nothing is put aside.'
            ) : (
              <EmptyLibrary exchange={() => setExchanging(true)} />
            )}
          </div>
        )}
      </main>
    </PageFrame>
  );
}
