import { Link } from 'react-router';
import { useMachineFile } from '../../documents/record/MachineFile';
import { useMeasureNext } from '../../documents/record/useMeasureNext';

const SHOWN = 3;

/** What to measure next because it narrows the band most. */
export function MeasureNext() {
  const { machine } = useMachineFile();
  const items = useMeasureNext()?.slice(0, SHOWN);
  if (!items) return null;
  return (
    <section
      aria-label="measure next"
      className="hidden lg:block border-t border-rule mt-4 pt-3 px-2"
    >
      <h2 className="text-small font-semibold text-quiet mb-1.5">Measure next</h2>
      {items.length === 0 && (
        <p className="text-small text-quiet">No single measurement narrows the band much.</p>
      )}
      <ul className="space-y-2.5">
        {items.map((i) => (
          <li key={i.key} className="text-[0.9rem] leading-snug">
            <Link to={i.to} title={i.settles} className="hover:underline underline-offset-2">
              {i.what}
            </Link>
            {i.to.startsWith('/machines') && i.how && (
              <span className="text-quiet text-small">, {i.how}</span>
            )}
            <div className="figure text-small text-quiet">
              ± {i.nowW} → {i.thenW} <span className="unit">W</span>
            </div>
          </li>
        ))}
      </ul>
      <Link
        to={`/machines/${machine.id}/bench-sheet`}
        className="inline-block mt-2 text-small text-quiet hover:text-ink underline underline-offset-2"
      >
        bench sheet to print
      </Link>
    </section>
  );
}
