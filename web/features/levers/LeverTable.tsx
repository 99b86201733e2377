import { Fragment, useState } from 'react';
import { minutesOf, type WeighedLever } from '@zugluft/core/levers/rankLevers';
import type { OpenUpLog } from '@zugluft/core/service/openUpLog';
import { GainBand } from './GainBand';
import { LeverDetails } from './LeverDetails';
import { feltWords, signed } from './leverWords';

const canPull = ({ lever }: WeighedLever) => lever.possible && lever.change.length > 0;

/** Levers one below the other: what each brings with its band, what it asks for, whether it would be noticed. */
export function LeverTable({
  weighed,
  chosen,
  choose,
  point,
  log,
}: {
  weighed: readonly WeighedLever[];
  chosen: ReadonlySet<string>;
  choose: (id: string) => void;
  /** Told which one is pointed at, or null. */
  point: (id: string | null) => void;
  log: OpenUpLog | null;
}) {
  const [opened, setOpened] = useState<string | null>(null);
  const [withOthers, setWithOthers] = useState(false);
  const others = weighed.filter((w) => !canPull(w)).length;
  const shown = withOthers ? weighed : weighed.filter(canPull);
  const reach = Math.max(
    5,
    ...shown.flatMap(({ gain }) =>
      gain ? [Math.abs(gain.wattsGained.p05), Math.abs(gain.wattsGained.p95)] : [],
    ),
  );
  const least = Math.min(0, ...shown.map(({ gain }) => gain?.wattsGained.p05 ?? 0));
  const move = (e: React.KeyboardEvent<HTMLInputElement>, id: string) => {
    if (e.key === 'Enter') {
      e.preventDefault();
      e.stopPropagation();
      setOpened(opened === id ? null : id);
      return;
    }
    if (e.key !== 'ArrowDown' && e.key !== 'ArrowUp') return;
    e.preventDefault();
    e.stopPropagation();
    const all = [
      ...document.querySelectorAll<HTMLInputElement>('[data-levers] input:not(:disabled)'),
    ];
    all[all.indexOf(e.currentTarget) + (e.key === 'ArrowDown' ? 1 : -1)]?.focus();
  };
  return (
    <table className="w-full text-[0.95rem] mt-2" data-levers onMouseLeave={() => point(null)}>
      <thead>
        <tr className="text-left text-small text-quiet border-b border-ink">
          <th className="w-7">
            <span className="sr-only">chosen</span>
          </th>
          <th className="font-normal py-1">lever</th>
          <th className="font-normal max-md:hidden">watts gained, 5–95 %</th>
          <th className="font-normal pl-3 text-right align-bottom leading-tight">more W</th>
          <th className="font-normal pl-3 text-right max-sm:hidden align-bottom leading-tight">
            quieter dB
          </th>
          <th className="font-normal pl-3 text-right max-sm:hidden align-bottom leading-tight">
            cooler K
          </th>
          <th className="font-normal pl-3 text-right align-bottom leading-tight">work min</th>
          <th className="font-normal pl-3 max-sm:hidden">asks for</th>
          <th className="font-normal text-right max-sm:hidden">noticed</th>
        </tr>
      </thead>
      <tbody>
        {shown.map((w) => {
          const { lever, gain, effort } = w;
          const can = canPull(w);
          // of a setting that stops earlier no level holds the watts of before
          const isCooling = lever.moves === 'cooling';
          const { minutes, usual } = minutesOf(w);
          const isOpen = opened === lever.id;
          return (
            <Fragment key={lever.id}>
              <tr
                className={`border-b border-rule align-top ${can ? '' : 'text-quiet'} ${chosen.has(lever.id) ? 'bg-base-200' : ''}`}
                data-lever={lever.id}
                onMouseEnter={() => point(lever.id)}
              >
                <td className="py-1.5">
                  <input
                    type="checkbox"
                    data-chooses
                    className="checkbox checkbox-sm"
                    aria-label={lever.name}
                    disabled={!can}
                    checked={chosen.has(lever.id)}
                    onChange={() => choose(lever.id)}
                    onFocus={() => point(lever.id)}
                    onBlur={() => point(null)}
                    onKeyDown={(e) => move(e, lever.id)}
                  />
                </td>
                <td className="py-1.5 pr-2">
                  <button
                    type="button"
                    aria-expanded={isOpen}
                    className={`text-left cursor-pointer hover:underline ${can ? 'font-semibold' : ''}`}
                    onClick={() => setOpened(isOpen ? null : lever.id)}
                  >
                    {lever.name}
                  </button>
                  {lever.whyNot && (
                    <span className="block text-small leading-tight">{lever.whyNot}</span>
                  )}
                </td>
                <td className="py-1.5 max-md:hidden">
                  {gain && <GainBand gain={gain.wattsGained} least={least} reach={reach} />}
                </td>
                <td className="py-1.5 pl-3 text-right figure text-base whitespace-nowrap">
                  {gain ? signed(gain.wattsGained.p50) : '–'}
                </td>
                <td className="py-1.5 pl-3 text-right figure whitespace-nowrap max-sm:hidden">
                  {gain && isCooling ? signed(gain.dbSaved.p50) : '–'}
                </td>
                <td className="py-1.5 pl-3 text-right figure whitespace-nowrap max-sm:hidden">
                  {gain && isCooling ? signed(gain.kelvinSaved.p50) : '–'}
                </td>
                <td className="py-1.5 pl-3 text-right figure whitespace-nowrap">
                  {can ? `${usual ? '~' : ''}${minutes}` : '–'}
                </td>
                <td className="py-1.5 pl-3 text-small max-sm:hidden">
                  {!can
                    ? 'not possible here'
                    : lever.goal === null
                      ? 'nothing to open'
                      : effort.screws === null
                        ? 'an opening, not logged yet'
                        : `${effort.steps} steps, ${effort.screws} screws`}
                </td>
                <td className="py-1.5 text-right whitespace-nowrap max-sm:hidden">
                  {gain && (
                    <>
                      <span className="figure">{Math.round(100 * gain.chanceNoticeable)}</span>{' '}
                      <span className="unit">%</span>
                      {feltWords(gain) && (
                        <span className="block text-small">{feltWords(gain)}</span>
                      )}
                    </>
                  )}
                </td>
              </tr>
              {isOpen && (
                <tr className="border-b border-rule">
                  <td />
                  <td colSpan={8} className="pb-3">
                    <LeverDetails weighed={w} log={log} />
                  </td>
                </tr>
              )}
            </Fragment>
          );
        })}
        {others > 0 && (
          <tr>
            <td />
            <td colSpan={8} className="py-1.5">
              <button
                type="button"
                aria-expanded={withOthers}
                className="text-small text-quiet underline cursor-pointer hover:text-ink"
                onClick={() => setWithOthers(!withOthers)}
              >
                {withOthers
                  ? 'only what can be done'
                  : `${others} more that cannot be done here, and why`}
              </button>
            </td>
          </tr>
        )}
      </tbody>
    </table>
  );
}
