import { useMemo, useState, type ReactNode } from 'react';
import { airwayFaults } from '@zugluft/core/airway/airwayFaults';
import { placeParts } from '@zugluft/core/airway/placeParts';
import { setAt } from '../record/draft';
import { useMachineFile } from '../record/MachineFile';
import type { Cap } from '@zugluft/core/envelope/fanStates';
import { CapSelect } from '../answer/CapSelect';
import { middleCap } from '../answer/caps';
import { AirwayPlan } from './AirwayPlan';
import { PaneEdge } from '../../kit/PaneEdge';
import { usePaneHeight } from '../../kit/usePaneHeight';
import { LPS_PER_ARROW } from './airArrows';
import { usePointAtCap } from './usePointAtCap';

const BOUNDS = { min: 120, max: 520 };
const FAULTS_SHOWN = 3;
/** In sight while its tables scroll, where there is room beside them; on a phone it stands behind them. */
const PANE =
  'px-1.5 pt-2 pb-1 order-last lg:order-none lg:sticky lg:-top-4 lg:-mt-4 lg:mb-2 z-20 bg-base-100';

/**
 * The machine from below, drawn from its record: what lies where, how many watts each pipe carries and how much air each fan
 * moves at a cap. It stays in sight while figures are typed below it, as high as its user likes. Parts are dragged, or moved with the
 * arrow keys, to where they sit; a click takes one in hand and opens its figures.
 */
export function AirwayMap({
  chosen: inHand,
  choose,
  empty,
}: {
  /** Name of the part in hand. */
  chosen: string | undefined;
  choose: (list: string, index: number) => void;
  /** What to do while there is nothing to draw. */
  empty: ReactNode;
}) {
  const { change, issues, caps, addCap, readable: record, readsBefore: stale } = useMachineFile();
  const plan = useMemo(() => (record ? placeParts(record) : null), [record]);
  const [chosen, setCap] = useState<Cap | null>(null);
  const cap = chosen !== null && caps.includes(chosen) ? chosen : middleCap(caps);
  const point = usePointAtCap(cap);
  const [height, setHeight] = usePaneHeight('zugluft.map-height', { usual: 214, ...BOUNDS });
  const faults = useMemo(() => (record ? airwayFaults(record, issues) : []), [record, issues]);
  if (!record || !plan) {
    return <p className="text-quiet px-1.5 pb-3">The map is drawn once the record can be read.</p>;
  }
  if (!plan.parts.length) {
    return <p className="text-quiet px-1.5 pb-3">{empty}</p>;
  }
  const place = (id: string, xMm: number, yMm: number) => {
    const at = {
      xMm: Math.round(Math.min(plan.widthMm, Math.max(0, xMm))),
      yMm: Math.round(Math.min(plan.depthMm, Math.max(0, yMm))),
    };
    change((d) => setAt(d, ['airway', 'places', id], at), `airway.${id}`);
  };
  return (
    <section aria-label="airway map" className={PANE}>
      <div className="flex flex-wrap items-baseline gap-x-4 text-small text-quiet">
        <h2 className="text-[0.95rem] font-semibold text-ink">Airway map</h2>
        <label className="flex items-center gap-1">
          at
          <CapSelect
            label="cap of the map"
            caps={caps}
            value={cap}
            choose={(c) => {
              addCap(c);
              setCap(c);
            }}
          />
        </label>
        <span>
          from below · <span className="text-heat">a pipe is as wide as its watts</span> ·{' '}
          <span className="text-air">an arrow of air is {LPS_PER_ARROW} L/s</span>
        </span>
      </div>
      <div style={{ height }}>
        <AirwayPlan
          record={record}
          plan={plan}
          point={point}
          faults={faults}
          place={place}
          chosen={inHand}
          choose={choose}
        />
      </div>
      {stale && (
        <p className="text-small text-quiet">The map is that of before the figure in hand.</p>
      )}
      {faults.length > 0 && (
        <ul className="text-[0.9rem] border-l-2 border-heat pl-2" aria-label="faults on the map">
          {faults.slice(0, FAULTS_SHOWN).map((f) => (
            <li key={f.part + f.message}>
              <span className="figure text-heat">{f.part}</span>: {f.message}
            </li>
          ))}
          {faults.length > FAULTS_SHOWN && <li>and {faults.length - FAULTS_SHOWN} more</li>}
        </ul>
      )}
      <PaneEdge label="height of the map" height={height} {...BOUNDS} set={setHeight} />
    </section>
  );
}
