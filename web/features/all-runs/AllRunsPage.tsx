import { useQuery } from '@tanstack/react-query';
import { Link, useSearchParams } from 'react-router';
import { readResiduals, runKeys, type ResidualPage } from '../../api/runs';
import { wattsText } from '@zugluft/core/case/answerWords';
import { onWords } from '../../documents/runName';
import { PageFrame } from '../../kit/PageFrame';
import { Pages } from '../../kit/Pages';
import { residualSummary } from './residualSummary';

/** Every run of the library against what its record foretells: how far the estimate can be trusted. */
export function AllRunsPage() {
  const [params, setParams] = useSearchParams();
  const page = Math.max(1, Number(params.get('page')) || 1);
  const { data, error, isPending } = useQuery({
    queryKey: runKeys.residuals(page),
    queryFn: ({ signal }) => readResiduals(page, signal),
    placeholderData: (before) => before,
    retry: false,
  });
  const pages = data ? Math.max(1, Math.ceil(data.total / data.pageSize)) : 1;
  const turn = (to: number) => setParams(to === 1 ? {} : { page: String(to) }, { replace: true });
  const told = data ? residualSummary(data.items) : null;
  return (
    <PageFrame crumbs={['Runs']}>
      <main className="p-4 max-w-[78rem]">
        <h1 className="text-lg font-semibold">Runs of the library</h1>
        <div className="text-[0.9rem]">
          <Link to="/learned" className="underline underline-offset-2 inline-block py-1">
            What they teach about the next machine
          </Link>
        </div>
        {isPending && <p className="text-quiet">Holding each run against its record.</p>}
        {error && (
          <p role="alert" className="text-heat">
            {error.message}.
          </p>
        )}
        {data?.items.length === 0 && (
          <p className="text-quiet max-w-prose">
            No run yet: they are made in the step Runs of a machine’s file.
          </p>
        )}
        {told && told.count > 0 && (
          <p className="text-[0.95rem] mb-2" data-testid="residual-summary">
            <span className="figure">{told.inside}</span> of{' '}
            <span className="figure">{told.count}</span> lie inside the band that their record
            foretells
            {told.ratio !== null && (
              <>
                ; in the middle they sustained{' '}
                <span className="figure">{told.ratio.toFixed(2)}</span> times what was foretold
              </>
            )}
            {told.held > 0 &&
              `; ${told.held} ${told.held === 1 ? 'was' : 'were'} held by the setting and ${told.held === 1 ? 'counts' : 'count'} for no ratio`}
            .
          </p>
        )}
        {data && data.items.length > 0 && <Residuals items={data.items} />}
        <Pages page={page} pages={pages} turn={turn} />
      </main>
    </PageFrame>
  );
}

/** Widest residual that is drawn, of the foretold middle. */
const WIDEST = 0.6;

function Residuals({ items }: { items: ResidualPage['items'] }) {
  const at = (share: number) =>
    `${50 + (50 * Math.max(-WIDEST, Math.min(WIDEST, share))) / WIDEST}%`;
  return (
    <table className="w-full text-[0.95rem]">
      <thead className="max-sm:sr-only">
        <tr className="text-quiet text-small text-left">
          <th scope="col" className="font-normal pr-3">
            machine
          </th>
          <th scope="col" className="font-normal pr-3">
            run
          </th>
          <th scope="col" className="font-normal pr-3 text-right">
            measured <span className="unit">W</span>
          </th>
          <th scope="col" className="font-normal pr-3">
            foretold <span className="unit">W</span>
          </th>
          <th scope="col" className="font-normal w-[22%]">
            from the middle of the band
          </th>
          <th scope="col" className="font-normal pl-3">
            <span className="sr-only">how far from it</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {items.map((r) => {
          const a = r.against;
          const by = (w: number) => w / a!.p50 - 1;
          return (
            <tr
              key={r.id}
              className="border-b border-rule align-baseline max-sm:flex max-sm:flex-wrap max-sm:py-1.5"
            >
              <td className="pr-3 max-sm:w-full">
                <Link className="underline" to={`/machines/${r.machineId}/runs?run=${r.id}`}>
                  {r.machine || 'Unnamed machine'}
                </Link>
              </td>
              <td className="pr-3">{r.name || onWords(r.on as 'both')}</td>
              {a ? (
                <>
                  <td className="figure pr-3 text-right">
                    {a.measuredW.toFixed(1)}
                    <span className="unit sm:hidden"> W measured,</span>
                  </td>
                  <td className="pr-3 whitespace-nowrap">
                    <span className="figure">{wattsText(a.p50)}</span>{' '}
                    <span className="text-quiet">
                      {wattsText(a.p05)} to {wattsText(a.p95)}
                    </span>
                    <span className="unit sm:hidden"> W foretold</span>
                  </td>
                  <td className="max-sm:w-full">
                    <span className="relative block h-4" aria-hidden>
                      <span
                        className="absolute inset-y-1 bg-heat/25"
                        style={{
                          left: at(by(a.p05)),
                          width: `calc(${at(by(a.p95))} - ${at(by(a.p05))})`,
                        }}
                      />
                      <span className="absolute inset-y-0 border-l border-ink left-1/2" />
                      <span
                        className="absolute top-1 w-2 h-2 -ml-1 rotate-45 bg-ink"
                        style={{ left: at(by(a.measuredW)) }}
                      />
                    </span>
                  </td>
                  <td
                    className={`pl-3 max-sm:pl-0 whitespace-nowrap ${a.inBand ? 'text-quiet' : 'text-heat'}`}
                  >
                    {percent(by(a.measuredW))} %{' '}
                    {a.inBand ? (a.held ? 'held by the setting' : 'inside') : 'outside'}
                  </td>
                </>
              ) : (
                <td colSpan={4} className="text-quiet">
                  {r.lacks}
                </td>
              )}
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

const percent = (share: number): string =>
  `${share < 0 ? '−' : '+'}${Math.abs(100 * share).toFixed(0)}`;
