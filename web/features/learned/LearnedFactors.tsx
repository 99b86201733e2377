import { toast } from 'sonner';
import type { KeptLabDefaults } from '@zugluft/core/documents/labDefaults/labDefaultsKind';
import { DEFAULTS, type Default } from '@zugluft/core/record/defaults';
import { plural } from '@zugluft/core/record/plural';
import type { LearnedAnswer } from '../../api/learned';
import type { Keeper } from '../../documents/keeper';
import { noteOf, taken, takeOver } from './takeOver';
import { ReadingHead } from '../../kit/ReadingHead';

/** Contact resistances are millionths of their unit. */
const TINY: Record<string, { unit: string; times: number }> = {
  'm²K/W': { unit: 'mm²K/W', times: 1e6 },
};
const short = (x: number): string => String(Number(x.toPrecision(3)));
const rangeText = (
  { value, low, high }: { value: number; low: number; high: number },
  times: number,
) => `${short(value * times)}, ${short(low * times)} to ${short(high * times)}`;

const capital = (words: string) => words.charAt(0).toUpperCase() + words.slice(1);

/** Defaults that are offered, and the way to take them over. */
export function LearnedFactors({
  learned,
  keeper,
  own,
}: {
  learned: LearnedAnswer;
  /** Of the lab's defaults; null until they are read. */
  keeper: Keeper<KeptLabDefaults> | null;
  own: KeptLabDefaults | null;
}) {
  const offered = learned.factors.filter((f) => f.offered !== null);
  const isTaken = own !== null && taken(own, learned);
  const take = () => {
    keeper?.change((all) => takeOver(all, learned, new Date().toISOString()));
    toast('Taken over as the laboratory’s defaults', {
      action: { label: 'Undo', onClick: () => keeper?.undo() },
    });
  };
  return (
    <section aria-label="offered defaults" className="mb-5">
      <div className="flex flex-wrap items-baseline gap-3">
        <h2 className="font-semibold">Offered as this laboratory’s defaults</h2>
        {offered.length > 0 && (
          <button type="button" className="btn btn-sm" disabled={!keeper || isTaken} onClick={take}>
            {isTaken ? 'Taken over' : `Take over ${plural(offered.length, 'default')}`}
          </button>
        )}
      </div>
      <p className="text-small text-quiet max-w-prose">
        {offered.length === 0
          ? 'These machines tell no factor better than is built in.'
          : `${capital(noteOf(learned))}. Ranges stand each for itself, so that together they give the watts of these machines the spread that was learned. A fit to a machine’s own runs begins without them.`}
      </p>
      {offered.length > 0 && (
        <table className="text-[0.95rem] mt-1">
          <ReadingHead titles={['factor', 'built in', 'learned', 'machines']} />
          <tbody>
            {offered.map((f) => {
              const d = DEFAULTS[f.key] as Default;
              const { unit, times } = TINY[d.unit] ?? { unit: d.unit, times: 1 };
              return (
                <tr key={f.key} className="border-t border-rule align-baseline">
                  <th scope="row" className="font-normal text-left pr-6 py-1" title={f.key}>
                    {d.about}
                  </th>
                  <td className="figure pr-6 sm:whitespace-nowrap">{rangeText(d, times)}</td>
                  <td className="figure pr-6 sm:whitespace-nowrap">
                    {rangeText(f.offered!, times)} <span className="unit">{unit}</span>
                  </td>
                  <td className="figure">{f.machines}</td>
                </tr>
              );
            })}
          </tbody>
        </table>
      )}
    </section>
  );
}
