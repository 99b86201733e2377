import { Link } from 'react-router';
import { wattsText } from '@zugluft/core/case/answerWords';
import { bandText, type Band3 } from '@zugluft/core/verdict/bandWords';
import type { LearnedAnswer } from '../../api/learned';
import { BandBar } from '../../documents/answer/BandBar';
import { atCap } from '../../documents/answer/caps';

/** Each machine that taught: what it was measured at, beside what the others foretell. */
export function LearnedMachines({ learned: { machines, lacking } }: { learned: LearnedAnswer }) {
  const most =
    1.05 * Math.max(1, ...machines.flatMap((m) => [m.before.p95, m.after.p95, m.measuredW]));
  const outside = (m: { measuredW: number }, band: Band3) =>
    m.measuredW < band.p05 || m.measuredW > band.p95;
  return (
    <section aria-label="machines that taught">
      <h2 className="font-semibold">Machines that taught</h2>
      <ul>
        {machines.map((m) => (
          <li
            key={m.id}
            className="grid sm:grid-cols-[minmax(0,2fr)_minmax(0,3fr)] gap-x-6 border-b border-rule py-1.5 items-center"
          >
            <span>
              <Link
                to={`/machines/${m.id}/runs`}
                className="hover:underline underline-offset-2 inline-block py-1"
              >
                {m.name}
              </Link>
              <span className="block text-small text-quiet">
                {m.kind}; measured {wattsText(m.measuredW)} W {atCap(m.cap)}
              </span>
            </span>
            <span className="text-small">
              {(['before', 'after'] as const).map((which) => (
                <span
                  key={which}
                  className="grid grid-cols-[4rem_minmax(0,1fr)_9rem] gap-x-3 items-center"
                >
                  <span className="text-quiet">{which === 'before' ? 'built in' : 'learned'}</span>
                  <BandBar
                    band={m[which]}
                    most={most}
                    tone={which === 'before' ? 'computed' : 'measured'}
                  />
                  <span className={outside(m, m[which]) ? 'text-heat' : 'text-quiet'}>
                    {bandText(m[which])} W{outside(m, m[which]) && ', outside'}
                  </span>
                </span>
              ))}
            </span>
          </li>
        ))}
      </ul>
      {lacking.length > 0 && (
        <p className="text-small text-quiet mt-2">
          Not learned from:{' '}
          {lacking.map((l, i) => (
            <span key={l.id}>
              {i > 0 && '; '}
              <Link to={`/machines/${l.id}/runs`} className="underline underline-offset-2">
                {l.name}
              </Link>
              , {l.why}
            </span>
          ))}
          .
        </p>
      )}
    </section>
  );
}
