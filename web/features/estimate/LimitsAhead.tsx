import type { Explanation, LimitAhead } from '@zugluft/core/case/explain';
import { bindingWords } from '@zugluft/core/case/answerWords';

const SHOWN = 4;
/** Nearer than this a limit binds. */
const BINDS_W = 0.05;

function Row({ limit }: { limit: LimitAhead }) {
  const { moreWatts } = limit;
  const binds = Math.abs(moreWatts) <= BINDS_W;
  return (
    <tr className="border-b border-rule">
      <th scope="row" className={`text-left py-0.5 ${binds ? 'font-semibold' : 'font-normal'}`}>
        {bindingWords(limit.binding)}
      </th>
      <td className="figure text-right whitespace-nowrap">
        {binds ? (
          'binds'
        ) : (
          <>
            {moreWatts < 0 ? '−' : '+'} {Math.abs(moreWatts).toFixed(0)}{' '}
            <span className="unit">W</span>
          </>
        )}
      </td>
    </tr>
  );
}

/** What binds, and what would be next along the same direction, with the watts in between; then where the setting stops. */
export function LimitsAhead({ why }: { why: Explanation }) {
  return (
    <>
      <table className="w-full text-small" data-testid="limits-ahead">
        <tbody>
          {why.limits.slice(0, SHOWN).map((l, i) => (
            <Row key={i} limit={l} />
          ))}
        </tbody>
      </table>
      {(why.limits[0]?.moreWatts ?? 0) > BINDS_W && (
        <p className="text-small text-quiet leading-snug mt-1">
          Read at the central figures; the line is the median of the draws, where one limit or
          another holds sooner.
        </p>
      )}
      {why.configured.length > 0 && (
        <>
          <h3 className="text-small font-semibold mt-3 mb-0.5">Where the setting stops</h3>
          <table className="w-full text-small" data-testid="limits-set">
            <tbody>
              {why.configured.map((l, i) => (
                <Row key={i} limit={l} />
              ))}
            </tbody>
          </table>
        </>
      )}
    </>
  );
}
