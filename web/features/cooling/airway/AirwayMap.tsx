import { useMemo, useState } from 'react';
import { airwayFaults } from '@zugluft/core/airway/airwayFaults';
import { placeParts } from '@zugluft/core/airway/placeParts';
import { setAt } from '../../../documents/record/draft';
import { useMachineFile } from '../../../documents/record/MachineFile';
import type { Cap } from '@zugluft/core/envelope/fanStates';
import { CapSelect } from '../../../documents/answer/CapSelect';
import { middleCap } from '../../../documents/answer/caps';
import { AirwayPlan } from './AirwayPlan';
import { usePointAtCap } from './usePointAtCap';

/**
 * The machine from below, drawn from its record: what lies where, how many watts each pipe carries and how much air each fan
 * moves at a cap. Parts are dragged, or moved with the arrow keys, to where they sit; a click opens their figures.
 */
export function AirwayMap({ open }: { open: (list: string) => void }) {
  const { change, issues, caps, addCap, readable: record, readsBefore: stale } = useMachineFile();
  const plan = useMemo(() => (record ? placeParts(record) : null), [record]);
  const [chosen, setCap] = useState<Cap | null>(null);
  const cap = chosen !== null && caps.includes(chosen) ? chosen : middleCap(caps);
  const point = usePointAtCap(cap);
  const faults = useMemo(() => (record ? airwayFaults(record, issues) : []), [record, issues]);
  if (!record || !plan) {
    return <p className="text-quiet px-1.5 py-3">The map is drawn once the record can be read.</p>;
  }
  if (!plan.parts.length) {
    return (
      <p className="text-quiet px-1.5 py-3">
        The airway map is drawn from the parts above. Add the first ones.
      </p>
    );
  }
  const place = (id: string, xMm: number, yMm: number) => {
    const at = {
      xMm: Math.round(Math.min(plan.widthMm, Math.max(0, xMm))),
      yMm: Math.round(Math.min(plan.depthMm, Math.max(0, yMm))),
    };
    change((d) => setAt(d, ['airway', 'places', id], at), `airway.${id}`);
  };
  return (
    <section aria-label="airway map" className="px-1.5 py-2">
      <div className="flex items-baseline gap-4 text-[0.85rem] text-quiet">
        <h3 className="text-[0.95rem] font-semibold text-ink">Airway map</h3>
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
          from below · <span className="text-heat">solid: watts in pipes</span> ·{' '}
          <span className="text-air">dashed: air</span>
        </span>
      </div>
      <AirwayPlan
        record={record}
        plan={plan}
        point={point}
        faults={faults}
        place={place}
        open={open}
      />
      {stale && (
        <p className="text-[0.85rem] text-quiet">The map is that of before the figure in hand.</p>
      )}
      {faults.length > 0 && (
        <ul className="text-[0.9rem] border-l-2 border-heat pl-2" aria-label="faults on the map">
          {faults.slice(0, 8).map((f) => (
            <li key={f.part + f.message}>
              <span className="figure text-heat">{f.part}</span>: {f.message}
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}
