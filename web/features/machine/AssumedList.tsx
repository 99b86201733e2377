import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import type { AssumedFigure } from '@zugluft/core/record/resolver';
import { figureWords, unitAt } from '../../documents/record/figureWords';
import { useMachineFile } from '../../documents/record/MachineFile';
import { middleCap } from '../../documents/answer/caps';

/** A share of the spread below which a figure is not said to matter. */
const MATTERS = 0.02;

const short = (x: number) => String(Number(x.toPrecision(3)));

/** What was assumed because nobody recorded it, what widens the band most first. */
export function AssumedList({ assumed }: { assumed: readonly AssumedFigure[] }) {
  const { draws, caps } = useMachineFile();
  const [open, setOpen] = useState(false);
  const cap = middleCap(caps);
  const summary = draws.summary;
  const rows = useMemo(() => {
    const shares = new Map<string, number>();
    for (const s of summary?.sensitivity ?? []) {
      if (s.cap === cap && s.readout === 'together') shares.set(s.input, s.share);
    }
    return assumed
      .map((a) => ({ ...a, share: shares.get(a.path) ?? 0 }))
      .sort((a, b) => b.share - a.share);
  }, [assumed, summary, cap]);
  const matter = rows.filter((r) => r.share >= MATTERS).length;
  return (
    <section className="border-t border-rule mt-2 pt-2 text-small">
      <button
        type="button"
        aria-expanded={open}
        className="text-quiet cursor-pointer hover:text-ink underline underline-offset-2"
        onClick={() => setOpen((x) => !x)}
      >
        {assumed.length} {assumed.length === 1 ? 'figure' : 'figures'} assumed
        {matter > 0 && `, ${matter} ${matter === 1 ? 'matters' : 'matter'}`}
      </button>
      {open && (
        <table className="mt-1 w-full text-left">
          <caption className="sr-only">figures assumed, what widens the band most first</caption>
          <thead>
            <tr className="text-quiet">
              <th className="font-normal">figure</th>
              <th className="font-normal text-right">taken</th>
              <th className="font-normal text-right pl-2">of the band</th>
            </tr>
          </thead>
          <tbody>
            {rows.map((a) => (
              <tr key={a.path} className="align-top border-t border-rule/60">
                <td className="py-0.5 pr-2">
                  <Link
                    to={`/method?find=${encodeURIComponent(a.path)}`}
                    className="break-words hover:underline underline-offset-2"
                  >
                    {figureWords(a.path)}
                  </Link>
                </td>
                <td className="figure whitespace-nowrap text-right py-0.5">
                  {short(a.value)} <span className="unit">{unitAt(a.path)}</span>
                  <span className="block text-quiet">
                    {short(a.low)}–{short(a.high)}
                  </span>
                </td>
                <td className="figure text-right py-0.5 pl-2">
                  {a.share >= MATTERS ? `${(100 * a.share).toFixed(0)} %` : '–'}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </section>
  );
}
