import type { PipePass } from '@zugluft/core/photo/passesOfMarks';
import type { PlaceOfPart } from '@zugluft/core/photo/placesOfMarks';
import type { Renewal } from '@zugluft/core/photo/renewals';
import type { RenewedPasses } from '@zugluft/core/photo/renewedPasses';
import { Kbd } from '../../kit/Kbd';
import { figureWords, unitAt } from '../../documents/record/figureWords';

const shown = (x: number) => String(Number(x.toPrecision(5)));

const passed = (all: readonly Partial<PipePass>[]) =>
  all
    .map(({ part, fromMm, toMm }) =>
      fromMm === undefined && toMm === undefined ? part : `${part} ${fromMm ?? '?'}–${toMm ?? '?'}`,
    )
    .join(', ');

/** What the marks would change of the record: shown first, taken over one by one or all together. */
export function TakeOver({
  renewals,
  places,
  passes,
  pending,
  take,
  takePlaces,
  takePasses,
}: {
  renewals: readonly Renewal[];
  places: readonly PlaceOfPart[];
  passes: readonly RenewedPasses[];
  /** Marks are being measured: what differs is not known yet. */
  pending: boolean;
  take: (renewals: readonly Renewal[]) => void;
  takePlaces: () => void;
  takePasses: (passes: RenewedPasses) => void;
}) {
  const unsure = renewals.filter((r) => !r.isSurer);
  return (
    <section aria-label="into the record">
      <div className="flex flex-wrap items-center gap-x-3">
        <h3 className="font-semibold text-[0.95rem]">Into the record</h3>
        {unsure.length > 1 && (
          <button type="button" className="btn btn-sm" onClick={() => take(unsure)}>
            Take {unsure.length === renewals.length ? 'all ' : ''}
            {unsure.length} <Kbd>t</Kbd>
          </button>
        )}
      </div>
      {renewals.length === 0 ? (
        <p className="text-small text-quiet py-1">
          {pending
            ? 'measuring'
            : 'Nothing differs: what the marks tell of figures stands in the record.'}
        </p>
      ) : (
        <table className="w-full text-[0.9rem]">
          <thead className="text-small text-quiet text-left">
            <tr>
              <th className="font-normal">figure</th>
              <th className="font-normal text-right">now</th>
              <th className="font-normal text-right">by its mark</th>
              <th>
                <span className="sr-only">take over</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {renewals.map((r) => (
              <tr key={r.path} className="border-t border-rule" data-renewal={r.path}>
                <td className="py-1">
                  {figureWords(r.path)}
                  {r.other === 'differs' && (
                    <span className="block text-small text-heat">
                      told otherwise before, by more than both ±
                    </span>
                  )}
                  {r.isSurer && (
                    <span className="block text-small text-quiet">known better already</span>
                  )}
                </td>
                <td className="figure text-right whitespace-nowrap pl-2">
                  {r.before === undefined ? 'blank' : shown(r.before)}
                </td>
                <td className="figure text-right whitespace-nowrap pl-2">
                  {shown(r.value)}
                  {r.plusMinus > 0 && ` ± ${shown(r.plusMinus)}`}{' '}
                  <span className="unit">{unitAt(r.path)}</span>
                </td>
                <td className="text-right">
                  <button
                    type="button"
                    className="btn btn-sm"
                    aria-label={`take ${figureWords(r.path)}`}
                    onClick={() => take([r])}
                  >
                    Take {unsure.length === 1 && r === unsure[0] && <Kbd>t</Kbd>}
                  </button>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {passes.map((p) => (
        <div
          key={p.pipe}
          className="flex flex-wrap items-baseline gap-x-3 border-t border-rule py-1 text-[0.9rem]"
          data-passes={p.pipe}
        >
          <span className="grow">
            {p.pipe} passes <span className="figure">{passed(p.after)}</span>{' '}
            <span className="unit">mm</span>
            <span className="block text-small text-quiet">
              now {p.before.length === 0 ? 'blank' : passed(p.before)}
            </span>
          </span>
          <button
            type="button"
            className="btn btn-sm"
            aria-label={`take what ${p.pipe} passes`}
            onClick={() => takePasses(p)}
          >
            Take
          </button>
        </div>
      ))}
      {places.length > 0 && (
        <p className="py-1 text-[0.9rem]">
          <button type="button" className="btn btn-sm h-auto min-h-8 py-1" onClick={takePlaces}>
            Places on the map: {places.map((p) => p.part).join(', ')}
          </button>
        </p>
      )}
    </section>
  );
}
