import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { toast } from 'sonner';
import type { KeptLabDefaults } from '@zugluft/core/documents/labDefaults/labDefaultsKind';
import { LEAST_RENEWALS, LINT_RATE, type WearAnswer } from '@zugluft/core/library/wearAnswer';
import { DEFAULTS, type Default, type DefaultKey } from '@zugluft/core/record/defaults';
import { plural } from '@zugluft/core/record/plural';
import { learnedKeys, readWear } from '../../api/learned';
import type { Keeper } from '../../documents/keeper';
import { ReadingHead } from '../../kit/ReadingHead';
import { ratesToTake, takeOverRates } from './takeOverRates';

const short = (x: number): string => String(Number(x.toPrecision(2)));
const rangeText = (middle: number, low: number, high: number, unit: string) =>
  unit === ''
    ? `${short(100 * middle)}\u00a0%, ${short(100 * low)} to ${short(100 * high)}\u00a0%`
    : `${short(middle)}, ${short(low)} to ${short(high)}\u00a0${unit}`;
const rateText = (key: DefaultKey, { p05, p50, p95 }: { p05: number; p50: number; p95: number }) =>
  rangeText(p50, p05, p95, (DEFAULTS[key] as Default).unit);

/** A rate in few words; in full it stands in the table above. */
const shortly = (key: DefaultKey): string =>
  key === LINT_RATE ? 'lint in 1000 h' : `${key.split('.').at(-1)} ages, a year`;

/** How fast dust gathers and interface material ages, from runs before and after renewals, and the way to take it over. */
export function LearnedWear({
  keeper,
  own,
}: {
  /** Of the lab's defaults; null until they are read. */
  keeper: Keeper<KeptLabDefaults> | null;
  own: KeptLabDefaults | null;
}) {
  const { data, error } = useQuery({
    queryKey: learnedKeys.wear,
    queryFn: ({ signal }) => readWear(signal),
    retry: false,
  });
  return (
    <section aria-label="dust and ageing" className="mt-4 mb-5">
      <h2 className="font-semibold">Dust and ageing, from runs before and after</h2>
      {error && (
        <p role="alert" className="text-heat">
          Renewals could not be read: {error.message}.
        </p>
      )}
      {!data && !error && (
        <p role="status" className="text-quiet">
          Reading renewals.
        </p>
      )}
      {data && data.renewals.length === 0 && (
        <p className="text-quiet max-w-prose">
          No renewal has a run before and one after yet. Make a plan of levers that cleans fins or
          renews interface material, run the machine before and after, and name both runs where the
          plan asks what came of it.
        </p>
      )}
      {data && data.renewals.length > 0 && (
        <>
          <Rates wear={data} keeper={keeper} own={own} />
          <Renewals wear={data} />
        </>
      )}
    </section>
  );
}

function Rates({
  wear,
  keeper,
  own,
}: {
  wear: WearAnswer;
  keeper: Keeper<KeptLabDefaults> | null;
  own: KeptLabDefaults | null;
}) {
  const { count, taken } = own ? ratesToTake(own, wear) : { count: 0, taken: false };
  const take = () => {
    keeper?.change((all) => takeOverRates(all, wear, new Date().toISOString()));
    toast('Taken over as the laboratory’s defaults', {
      action: { label: 'Undo', onClick: () => keeper?.undo() },
    });
  };
  return (
    <>
      <p className="text-small text-quiet max-w-prose">
        Of the next machine; each renewal counts, and how far machines differ. Offered from{' '}
        {LEAST_RENEWALS} renewals on, where they tell more than is built in.
      </p>
      {count > 0 && (
        <button
          type="button"
          className="btn btn-sm mt-1"
          disabled={!keeper || taken}
          onClick={take}
        >
          {taken ? 'Taken over' : `Take over ${plural(count, 'rate')}`}
        </button>
      )}
      {wear.rates.length > 0 && (
        <table className="text-[0.95rem] mt-1 mb-3">
          <ReadingHead titles={['rate', 'built in', 'learned', 'renewals']} />
          <tbody>
            {wear.rates.map((r) => {
              const d = DEFAULTS[r.key] as Default;
              return (
                <tr key={r.key} className="border-t border-rule align-baseline">
                  <th scope="row" className="font-normal text-left pr-6 py-1" title={r.key}>
                    {d.about}
                  </th>
                  <td className="figure pr-6">{rangeText(d.value, d.low, d.high, d.unit)}</td>
                  <td className="figure pr-6">
                    {r.offered
                      ? rangeText(r.offered.value, r.offered.low, r.offered.high, d.unit)
                      : '–'}
                  </td>
                  <td className="figure">{r.machines}</td>
                </tr>
              );
            })}
          </tbody>
        </table>
      )}
    </>
  );
}

function Renewals({ wear: { renewals } }: { wear: WearAnswer }) {
  return (
    <table className="text-[0.95rem]">
      <ReadingHead titles={['machine', 'what was done', 'used since clean', 'what it tells']} />
      <tbody>
        {renewals.map((r) => (
          <tr key={`${r.machineId} ${r.planId}`} className="border-t border-rule align-baseline">
            <th scope="row" className="font-normal text-left pr-6 py-1">
              <Link
                to={`/machines/${r.machineId}/levers`}
                className="hover:underline underline-offset-2"
              >
                {r.machine}
              </Link>
            </th>
            <td className="pr-6">{r.plan}</td>
            <td className="figure pr-6">{r.hoursSince === null ? '–' : `${r.hoursSince} h`}</td>
            <td>
              {r.why && <span className="text-quiet">{r.why}</span>}
              {r.rates.map((x) => (
                <div key={x.key}>
                  {shortly(x.key)}: <span className="figure">{rateText(x.key, x)}</span>
                </div>
              ))}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
