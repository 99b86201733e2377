import { balanceWords } from '@zugluft/core/service/balanceWords';
import { screwBalance } from '@zugluft/core/service/screwBalance';
import { screwWarnings, type ScrewWarning } from '@zugluft/core/service/screwWarnings';
import type { OpenUpLog } from '../../api/openUp';

/** Screws by group: taken, back, left over or missing; and what looks wrong on the map. */
export function BalancePanel({ log }: { log: OpenUpLog }) {
  const balance = screwBalance(log);
  const warnings = screwWarnings(log);
  if (!log.screws.length) return null;
  const letterOf = (screw: string) => {
    const group = log.screws.find((s) => s.id === screw)?.group;
    return `${log.groups.find((g) => g.id === group)?.letter ?? '?'} ${screw}`;
  };
  const wordsOf = (w: ScrewWarning): string => {
    if (w.kind === 'two-lengths') {
      return `${w.screws.map(letterOf).join(', ')} stand in one row and are ${w.lengthsMm.join(' and ')} mm long: check which goes where`;
    }
    if (w.kind === 'odd-near') {
      return `${letterOf(w.screw)} is longer than most and near the ${log.parts.find((p) => p.id === w.part)?.name ?? w.part}: in the wrong hole it presses on it`;
    }
    return `${letterOf(w.screw)} has no mate on the other side: look under feet, covers, seals at ${Math.round(w.xMm)}, ${Math.round(w.yMm)} mm`;
  };
  return (
    <section aria-label="balance of screws" className="text-[0.95rem]">
      <h2 className="font-semibold mb-1">Screws</h2>
      <table className="w-full text-left border-collapse" data-testid="balance">
        <thead>
          <tr className="text-small text-quiet border-b border-rule">
            {['group', 'holes', 'missing before', 'out', 'back', 'on the bench'].map((x, i) => (
              <th key={x} className={`font-normal px-1.5 py-1 ${i ? 'text-right' : ''}`}>
                {x}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {balance.groups.map((g) => {
            const group = log.groups.find((x) => x.id === g.group);
            return (
              <tr key={g.group ?? '?'} className="border-b border-rule">
                <td className="px-1.5 py-1">
                  <span className="figure font-semibold">{group?.letter ?? '?'}</span>{' '}
                  <span className="text-quiet text-small">
                    {[group?.thread, group?.lengthMm && `${group.lengthMm} mm`]
                      .filter(Boolean)
                      .join(' × ')}
                  </span>
                </td>
                {[g.holes, g.missingOnArrival.length, g.taken, g.back, g.leftOver.length].map(
                  (n, i) => (
                    <td
                      key={i}
                      className={`px-1.5 py-1 figure text-right ${i === 4 && n ? 'text-heat font-semibold' : ''}`}
                    >
                      {n || (i === 0 ? 0 : '–')}
                    </td>
                  ),
                )}
              </tr>
            );
          })}
        </tbody>
      </table>
      <p className="py-1" role="status" data-testid="balance-words">
        {balanceWords(log, balance)}
      </p>
      {balance.advice.map((a) => (
        <p key={a.gap} className="text-[0.9rem]">
          {letterOf(a.gap)} at the rim is open: take {letterOf(a.takeFrom)} from further in, where a
          gap does less harm.
        </p>
      ))}
      {warnings.length > 0 && (
        <ul className="border-l-2 border-heat pl-2 mt-2 text-[0.9rem]" aria-label="warnings">
          {warnings.slice(0, 8).map((w) => (
            <li key={JSON.stringify(w)}>{wordsOf(w)}</li>
          ))}
        </ul>
      )}
    </section>
  );
}
