import type { ReactNode } from 'react';

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
  return (
    <div className="grid grid-cols-[9.5rem_minmax(0,1fr)] gap-2 items-start border-b border-rule py-0.5">
      <span className="text-quiet pt-1.5">
        {name} {unit && <span className="unit">{unit}</span>}
      </span>
      {children}
    </div>
  );
}
