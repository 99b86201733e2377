import type { ReactNode } from 'react';
import { shownUnit } from '@zugluft/core/record/units';
import { useUnits } from './units';

/** A field with its name and unit, for steps that are not tables. */
export function FieldRow({
  name,
  unit,
  children,
}: {
  name: string;
  unit?: string;
  children: ReactNode;
}) {
  const { units } = useUnits();
  return (
    <div className="grid grid-cols-[9.5rem_minmax(0,1fr)] gap-2 items-start border-b border-rule py-0.5">
      <span className="text-quiet pt-1.5">
        {name} {unit && <span className="unit">{shownUnit(unit, units)}</span>}
      </span>
      {children}
    </div>
  );
}
