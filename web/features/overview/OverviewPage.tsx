import { useQuery } from '@tanstack/react-query';
import { formatDistanceToNow } from 'date-fns';
import { Link, useNavigate } from 'react-router';
import { wattsText } from '@zugluft/core/case/answerWords';
import { wattsColumn, type MachineSummary } from '@zugluft/core/library/answers';
import { plural } from '@zugluft/core/record/plural';
import { readResiduals, runKeys } from '../../api/runs';
import { CapSketch } from '../../documents/answer/CapSketch';
import { atCap, middleCap } from '../../documents/answer/caps';
import { beginMachine } from '../../documents/record/freshMachine';
import { useCommands } from '../../documents/commands';
import { EmptyLibrary } from '../../documents/EmptyLibrary';
import { LIBRARY, WITH_EXCHANGE } from '../../documents/places';
import { UnsentMachines } from '../../documents/UnsentMachines';
import { onWords } from '../../documents/runName';
import { Kbd } from '../../kit/Kbd';
import { PageFrame } from '../../kit/PageFrame';
import { QuietestFor } from './QuietestFor';
import { useInWork } from './useInWork';

const LATEST_RUNS = 6;

/** What is going on: machines in work with what comes next, the latest runs against what was foretold, care that is due. */
export function OverviewPage() {
  const { inWork, caps, total, error, isPending } = useInWork();
  const navigate = useNavigate();
  const begin = () => beginMachine(navigate);
  const count = () => beginMachine(navigate, 'count');
  const exchange = () => void navigate(LIBRARY, WITH_EXCHANGE);
  useCommands({
    'library-new': begin,
    'library-count': count,
    'library-exchange': exchange,
  });
  const cap = middleCap(caps);
  const watts = (m: MachineSummary, c: (typeof caps)[number]) => m[wattsColumn(c)] ?? 0;
  const mostW = Math.max(1, ...inWork.flatMap(({ summary }) => caps.map((c) => watts(summary, c))));
  const due = inWork.filter((m) => m.care.length > 0);
  return (
    <PageFrame crumbs={[]}>
      <main className="p-4 max-w-[92rem] mx-auto">
        <div className="flex flex-wrap items-center gap-3 mb-1">
          <h1 className="text-lg font-semibold grow">Overview</h1>
          {total > 0 && (
            <button type="button" className="btn btn-ghost btn-sm" onClick={count}>
              Quick count <Kbd>q</Kbd>
            </button>
          )}
          <button type="button" className="btn btn-primary btn-sm" onClick={begin}>
            New machine <span className="figure opacity-80 key-hint">n</span>
          </button>
        </div>
        <p className="text-quiet mb-3">
          How many watts a notebook’s cooling sustains under a noise limit, what holds it back, and
          how sure that is.
        </p>
        <UnsentMachines />
        {error && (
          <p role="alert" className="text-heat">
            The library could not be read: {error.message}.
          </p>
        )}
        {isPending && <p className="text-quiet">Reading the library.</p>}
        {!isPending && !error && total === 0 && (
          <section aria-label="begin" className="text-quiet py-8 text-center">
            <EmptyLibrary exchange={exchange} />
          </section>
        )}
        {total > 0 && <QuietestFor />}
        {total > 0 && (
          <div className="grid grid-cols-[minmax(0,1fr)] xl:grid-cols-[minmax(0,3fr)_minmax(0,2fr)] gap-x-10 gap-y-6">
            <section aria-label="in work">
              <h2 className="font-semibold mb-1">In work</h2>
              <ul>
                {inWork.map(({ summary: m, next }) => (
                  <li
                    key={m.id}
                    className="grid grid-cols-[minmax(0,1fr)_auto] sm:grid-cols-[minmax(0,3fr)_minmax(0,2fr)_auto] gap-x-4 py-2 border-b border-rule items-center"
                  >
                    <span className="min-w-0">
                      <Link
                        to={`/machines/${m.id}/${next?.path ?? 'cooling'}`}
                        className="font-semibold hover:underline underline-offset-2 inline-block py-0.5"
                      >
                        {[m.maker, m.model].filter(Boolean).join(' ') || 'Unnamed machine'}
                      </Link>
                      <span className="block text-small text-quiet truncate">
                        {[m.variant, m.stateName === 'as found' ? '' : m.stateName]
                          .filter(Boolean)
                          .join(' · ')}
                      </span>
                    </span>
                    <span className="max-sm:row-start-2">
                      {next ? next.words : <span className="text-quiet">reading</span>}
                      <span className="block text-small text-quiet">
                        {formatDistanceToNow(new Date(m.updatedAt), { addSuffix: true })}
                      </span>
                    </span>
                    <span className="flex items-center gap-3">
                      <span className="figure w-16 text-right">
                        {typeof m[wattsColumn(cap)] === 'number' ? wattsText(watts(m, cap)) : '–'}{' '}
                        <span className="unit">W</span>
                      </span>
                      <CapSketch m={m} caps={caps} cap={cap} mostW={mostW} />
                    </span>
                  </li>
                ))}
              </ul>
              <p className="mt-2 text-small text-quiet">
                Watts {atCap(cap)} and over all caps.{' '}
                <Link to={LIBRARY} className="underline underline-offset-2">
                  All {plural(total, 'machine')} of the library
                </Link>
              </p>
            </section>
            <div className="space-y-6">
              <LatestRuns />
              <section aria-label="care">
                <h2 className="font-semibold mb-1">Care that is due</h2>
                {due.length === 0 && (
                  <p className="text-quiet">None that the records of these machines tell of.</p>
                )}
                <ul className="space-y-1">
                  {due.map(({ summary: m, care }) => (
                    <li key={m.id}>
                      <Link
                        to={`/machines/${m.id}/levers`}
                        className="hover:underline underline-offset-2 inline-block py-0.5"
                      >
                        {[m.maker, m.model].filter(Boolean).join(' ') || 'Unnamed machine'}
                      </Link>
                      <span className="text-quiet">: {care.join(', ')}</span>
                    </li>
                  ))}
                </ul>
              </section>
            </div>
          </div>
        )}
      </main>
    </PageFrame>
  );
}

function LatestRuns() {
  const { data, error } = useQuery({
    queryKey: runKeys.residuals(1),
    queryFn: ({ signal }) => readResiduals(1, signal),
    retry: false,
  });
  return (
    <section aria-label="latest runs">
      <h2 className="font-semibold mb-1">Latest runs against what was foretold</h2>
      {error && <p className="text-quiet">They could not be read: {error.message}.</p>}
      {!data && !error && <p className="text-quiet">Holding each against its record.</p>}
      {data?.items.length === 0 && <p className="text-quiet">Nothing was run yet.</p>}
      <ul className="space-y-1.5">
        {data?.items
          .slice(0, LATEST_RUNS)
          .map(({ id, machineId, machine, name, on, against, lacks }) => (
            <li key={id}>
              <Link
                to={`/machines/${machineId}/runs?run=${id}`}
                className="hover:underline underline-offset-2 inline-block py-0.5"
              >
                {name || onWords(on as 'both')}
              </Link>
              <span className="text-quiet">, {machine || 'Unnamed machine'}</span>
              <span className="block text-small">
                {against ? (
                  <>
                    <span className="figure">{wattsText(against.measuredW)}</span> W, foretold{' '}
                    {wattsText(against.p05)} to {wattsText(against.p95)}
                    {against.inBand ? (
                      <span className="text-quiet">, inside</span>
                    ) : (
                      <strong className="text-heat font-semibold">
                        {against.held ? ', held by the setting' : ', outside'}
                      </strong>
                    )}
                  </>
                ) : (
                  <span className="text-quiet">{lacks}</span>
                )}
              </span>
            </li>
          ))}
      </ul>
      {data && data.total > LATEST_RUNS && (
        <Link to="/runs" className="text-small underline underline-offset-2 inline-block py-1 mt-1">
          all {data.total} runs
        </Link>
      )}
    </section>
  );
}
