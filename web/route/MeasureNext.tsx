import { Link } from 'react-router';
import { useMachineFile } from '../machine/MachineFile';
import { figureWords, stepOfFigure } from '../ui/figureWords';

const AT_CAP = 36;
const SHOWN = 3;

/** What to measure next because it narrows the band most, and what only a run under load can tell. */
export function MeasureNext() {
  const { draws, machine } = useMachineFile();
  const summary = draws.summary;
  if (!summary) return null;
  const here = (x: { readout: string; cap: unknown }) =>
    x.readout === 'together' && x.cap === AT_CAP;
  const pick = summary.next.some(here)
    ? here
    : (x: { readout: string; cap: unknown }) => x.readout === 'cpuAlone' && x.cap === AT_CAP;
  const items = summary.next.find(pick)?.items.slice(0, SHOWN) ?? [];
  const factors = summary.sensitivity
    .filter(pick)
    .filter((s) => !items.some((i) => i.input === s.input))
    .slice(0, 2);
  return (
    <section
      aria-label="measure next"
      className="hidden lg:block border-t border-rule mt-4 pt-3 px-2"
    >
      <h2 className="text-[0.85rem] font-semibold text-quiet mb-1.5">Measure next</h2>
      {items.length === 0 && (
        <p className="text-[0.85rem] text-quiet">
          No single figure narrows the band; a run under load does.
        </p>
      )}
      <ul className="space-y-2">
        {items.map((i) => (
          <li key={i.input} className="text-[0.9rem] leading-snug">
            <Link
              to={`/machines/${machine.id}/${stepOfFigure(i.input)}`}
              className="hover:underline underline-offset-2"
            >
              {figureWords(i.input)}
            </Link>
            <div className="figure text-[0.8rem] text-quiet">
              ± {i.nowW.toFixed(1)} → {i.thenW.toFixed(1)} <span className="unit">W</span>
            </div>
          </li>
        ))}
      </ul>
      {factors.length > 0 && (
        <p className="text-[0.8rem] text-quiet mt-3 leading-snug">
          Most of what is left:{' '}
          {factors.map((f, k) => (
            <span key={f.input}>
              {k > 0 && ', '}
              <Link
                to={`/method?find=${encodeURIComponent(f.input)}`}
                className="underline underline-offset-2 hover:text-ink"
              >
                {f.input}
              </Link>{' '}
              <span className="figure">{(100 * f.share).toFixed(0)} %</span>
            </span>
          ))}
          . A run under load tells.
        </p>
      )}
    </section>
  );
}
