import { lazy, Suspense, useContext, useMemo } from 'react';
import { useSearchParams } from 'react-router';
import { plural } from '@zugluft/core/record/plural';
import type { CaseRequest } from '@zugluft/core/case/openCase';
import type { Cap } from '@zugluft/core/envelope/fanStates';
import { atCap } from '../../documents/answer/caps';
import { ThemeContext } from '../../kit/theme';
import { useAddressText } from '../../kit/useAddressText';
import { useSetAddress } from '../../kit/useSetAddress';
import { Outlines } from './Outlines';
import { AXES, axisIn, levelCurve, scatterOf, type AxisId, type Row } from './comparedFigures';

const CurvesChart = lazy(() => import('./CurvesChart'));
const FiguresScatter = lazy(() => import('./FiguresScatter'));

/** Watts over the level, envelopes over each other, and any figure over any other, which the address keeps. */
export function Charts({
  rows,
  requests,
  cap,
}: {
  rows: readonly Row[];
  /** The case of each row, by its id. */
  requests: ReadonlyMap<string, CaseRequest>;
  cap: Cap;
}) {
  const { theme } = useContext(ThemeContext);
  const [params] = useSearchParams();
  const setAddress = useSetAddress();
  const [x, y] = [axisIn(params.get('x'), 'finAreaCm2'), axisIn(params.get('y'), 'watts')];
  const points = useMemo(() => scatterOf(rows, x, y, cap), [rows, x, y, cap]);
  const axes = useMemo(() => [axisOf(x, cap), axisOf(y, cap)] as const, [x, y, cap]);
  const choose = (name: 'x' | 'y') => (axis: string) => setAddress(name, axis);
  const lacking = rows.length - points.length;
  const hasCurves = rows.some((r) => levelCurve(r).length > 1);
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] xl:grid-cols-2 gap-x-8 gap-y-4 mt-4 print:hidden">
      {hasCurves && (
        <section aria-label="watts over the level">
          <h3 className="font-semibold min-h-7">Watts over the level</h3>
          <Suspense fallback={<p className="h-72 text-quiet">Drawing.</p>}>
            <CurvesChart rows={rows} theme={theme} />
          </Suspense>
        </section>
      )}
      <Outlines rows={rows} requests={requests} cap={cap} />
      <section aria-label="one figure over another">
        <h3 className="font-semibold flex flex-wrap items-center gap-x-2">
          <AxisSelect label="up" value={y} choose={choose('y')} />
          <span className="font-normal text-quiet">over</span>
          <AxisSelect label="along" value={x} choose={choose('x')} />
        </h3>
        {points.length > 0 ? (
          <Suspense fallback={<p className="h-72 text-quiet">Drawing.</p>}>
            <FiguresScatter points={points} x={axes[0]} y={axes[1]} theme={theme} />
          </Suspense>
        ) : (
          <p className="text-quiet">No record of these machines tells both figures.</p>
        )}
        {points.length > 0 && lacking > 0 && (
          <p className="text-small text-quiet">
            {plural(lacking, 'machine')} left out: a figure is not recorded.
          </p>
        )}
      </section>
    </div>
  );
}

function axisOf(axis: AxisId, cap: Cap) {
  const [id, words, digits] = AXES.find(([own]) => own === axis)!;
  return { words: id === 'watts' ? `watts ${atCap(cap)}` : words, digits };
}

function AxisSelect({
  label,
  value,
  choose,
}: {
  label: string;
  value: AxisId;
  choose: (axis: string) => void;
}) {
  const [shown, turn] = useAddressText(value, choose);
  return (
    <select
      className="select select-xs w-auto pr-9"
      aria-label={`figure ${label}`}
      value={shown}
      onChange={(e) => turn(e.currentTarget.value)}
    >
      {AXES.map(([id, words]) => (
        <option key={id} value={id}>
          {words}
        </option>
      ))}
    </select>
  );
}
