import { lazy, Suspense, useContext, useMemo } from 'react';
import { useSearchParams } from 'react-router';
import type { CaseRequest } from '@zugluft/core/case/openCase';
import type { Cap } from '@zugluft/core/envelope/fanStates';
import { ThemeContext } from '../../kit/theme';
import { useAddressText } from '../../kit/useAddressText';
import { useSetAddress } from '../../kit/useSetAddress';
import { atCap } from '../../documents/answer/caps';
import type { Row } from './comparedFigures';
import { MAX_OUTLINES, outlinesShown, outlinesText } from './outlinesShown';
import { useOutlines } from './useOutlines';

const OutlinesChart = lazy(() => import('./OutlinesChart'));

/** Envelopes of a few machines over each other at the cap that is looked at; the address keeps which. */
export function Outlines({
  rows,
  requests,
  cap,
}: {
  rows: readonly Row[];
  requests: ReadonlyMap<string, CaseRequest>;
  cap: Cap;
}) {
  const { theme } = useContext(ThemeContext);
  const [params] = useSearchParams();
  const setAddress = useSetAddress();
  const asked = params.get('over');
  const shown = useMemo(() => outlinesShown(rows, asked, cap), [rows, asked, cap]);
  const cases = shown.flatMap((row) => {
    const request = requests.get(row.id);
    return request ? [{ name: row.name, place: rows.indexOf(row), request }] : [];
  });
  const { outlines, problems } = useOutlines(cases, cap);
  // the hand is not kept waiting by the drawing
  const [text, choose] = useAddressText(asked ?? shown.map((r) => r.id).join(','), (next) =>
    setAddress('over', next),
  );
  const chosen = useMemo(() => outlinesShown(rows, text, cap), [rows, text, cap]);
  return (
    <section aria-label="envelopes over each other" className="print:hidden">
      <h3 className="font-semibold min-h-7">CPU and GPU watts {atCap(cap)}</h3>
      {problems.map(({ name, problem }) => (
        <p key={name} role="alert" className="text-heat">
          The envelope of {name} could not be computed: {problem}.
        </p>
      ))}
      {cases.length === 0 ? (
        <p className="text-quiet">Choose up to {MAX_OUTLINES} machines.</p>
      ) : (
        <Suspense fallback={<p className="h-72 text-quiet">Drawing.</p>}>
          <OutlinesChart outlines={outlines} of={cases.length} theme={theme} />
        </Suspense>
      )}
      {rows.length > 1 && (
        <details className="text-small text-quiet">
          <summary className="cursor-pointer">
            {cases.length} of {rows.length} machines
          </summary>
          <div className="grid gap-x-4 sm:grid-cols-2 mt-1">
            {rows.map((r) => {
              const isChosen = chosen.includes(r);
              return (
                <label key={r.id} className="flex items-center gap-1.5 min-h-6">
                  <input
                    type="checkbox"
                    data-chooses
                    className="checkbox checkbox-xs"
                    checked={isChosen}
                    disabled={!isChosen && chosen.length >= MAX_OUTLINES}
                    onChange={() => choose(outlinesText(chosen, r.id))}
                  />
                  {r.name}
                </label>
              );
            })}
          </div>
          {rows.length > MAX_OUTLINES && <p>At most {MAX_OUTLINES} at once.</p>}
        </details>
      )}
    </section>
  );
}
