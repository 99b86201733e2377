import type { Measuring } from '@zugluft/core/record/howToMeasure';
import { useUnits } from '../../../kit/units';
import { shownUnit, toShown } from '@zugluft/core/record/units';
import { MeasureDrawing } from './MeasureDrawing';

const short = (x: number) => String(Number(x.toPrecision(3)));

/** A range in the units that one prefers. */
export function RangeWords({ low, high, unit }: { low: number; high: number; unit: string }) {
  const { units } = useUnits();
  const shown = (x: number) => short(unit ? toShown(x, unit === '0–1' ? 'share' : unit, units) : x);
  return (
    <>
      <span className="figure">
        {shown(low)} to {shown(high)}
      </span>{' '}
      <span className="unit">{unit === '0–1' ? 'share' : unit && shownUnit(unit, units)}</span>
    </>
  );
}

/** How a figure is taken: by what, where, what is often misread, what is usual, what is assumed without it. */
export function MeasureWords({ how }: { how: Measuring }) {
  return (
    <div className="flex flex-wrap gap-x-6 gap-y-2">
      {how.drawing && <MeasureDrawing id={how.drawing} />}
      <dl className="grid grid-cols-[6rem_minmax(0,1fr)] gap-x-3 gap-y-1 grow basis-72 content-start">
        <dt className="text-quiet">Taken</dt>
        <dd>{how.tool}</dd>
        <dt className="text-quiet">Where</dt>
        <dd>{how.where}</dd>
        <dt className="text-quiet">Mind</dt>
        <dd>{how.misread}</dd>
        {how.usual && (
          <>
            <dt className="text-quiet">Usual</dt>
            <dd>
              <RangeWords low={how.usual[0]} high={how.usual[1]} unit={how.unit} />
            </dd>
          </>
        )}
        {how.assumed && (
          <>
            <dt className="text-quiet">Without it</dt>
            <dd>
              <RangeWords low={how.assumed.low} high={how.assumed.high} unit={how.unit} />
              <span className="text-quiet"> is assumed</span>
            </dd>
          </>
        )}
      </dl>
    </div>
  );
}
