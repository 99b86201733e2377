import type { LimitAhead } from '@zugluft/core/envelope/explain';
import { bindingWords } from '../../ui/words';

const SHOWN = 5;
/** Nearer than this a limit binds. */
const BINDS_W = 0.05;

/** What binds, and what would be next along the same direction, with the watts in between. */
export function LimitsAhead({ limits }: { limits: readonly LimitAhead[] }) {
  return (
    <table className="w-full text-[0.88rem]" data-testid="limits-ahead">
      <tbody>
        {limits.slice(0, SHOWN).map((l, i) => {
          const binds = Math.abs(l.moreWatts) <= BINDS_W;
          return (
            <tr key={i} className="border-b border-rule">
              <th
                scope="row"
                className={`text-left py-0.5 ${binds ? 'font-semibold' : 'font-normal'}`}
              >
                {bindingWords(l.binding)}
              </th>
              <td className="figure text-right whitespace-nowrap">
                {binds
                  ? 'binds'
                  : `${l.moreWatts < 0 ? '−' : '+'} ${Math.abs(l.moreWatts).toFixed(0)}`}{' '}
                {!binds && <span className="unit">W</span>}
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}
