import type { PlannedVent } from '@zugluft/core/airway/outsidePlan';
import { figureValue } from '@zugluft/core/record/figure';
import type { VentRecord } from '@zugluft/core/record/partSchema';
import type { ComponentProps } from 'react';

const COLOUR: Readonly<Record<VentRecord['flow'], string>> = {
  intake: 'var(--color-primary)',
  exhaust: 'var(--color-secondary)',
  passive: 'currentColor',
};
const DASHES: Readonly<Record<VentRecord['flow'], string | undefined>> = {
  intake: '5 3',
  exhaust: undefined,
  passive: '1 2.5',
};

/** A vent on the plan: how air goes through it, what is blocked of it, its name. */
export function VentShape({
  planned: v,
  vent,
  by: [dx, dy],
  selected,
  wrong,
  fontMm,
  ...handlers
}: {
  planned: PlannedVent;
  vent: VentRecord;
  /** How far it is dragged. */
  by: readonly [number, number];
  selected: boolean;
  wrong: boolean;
  fontMm: number;
} & Omit<ComponentProps<'g'>, 'by'>) {
  const at = { x: v.x + dx, y: v.y + dy };
  const shut = Math.min(1, Math.max(0, figureValue(vent.blockedShare) ?? 0));
  return (
    <g {...handlers}>
      <rect
        x={at.x}
        y={at.y}
        width={v.width}
        height={v.height}
        rx="1.5"
        fill={vent.mesh ? 'url(#mesh)' : 'var(--color-base-100)'}
        stroke={COLOUR[vent.flow] ?? 'currentColor'}
        strokeWidth={selected ? 2.6 : 1.4}
        strokeDasharray={DASHES[vent.flow]}
      />
      {shut > 0 && (
        <rect
          x={at.x}
          y={at.y}
          width={v.width * shut}
          height={v.height}
          fill="currentColor"
          fillOpacity="0.55"
        >
          <title>{Math.round(100 * shut)} % blocked</title>
        </rect>
      )}
      <text
        x={at.x + v.width / 2}
        y={at.y + v.height / 2}
        fontSize={fontMm}
        textAnchor="middle"
        dominantBaseline="central"
        fill="currentColor"
        stroke="var(--color-base-100)"
        strokeWidth={fontMm / 3}
        paintOrder="stroke"
        pointerEvents="none"
        transform={
          v.face === 'left' || v.face === 'right'
            ? `rotate(${v.face === 'left' ? 90 : -90} ${at.x + v.width / 2} ${at.y + v.height / 2})`
            : undefined
        }
      >
        {v.id}
        {wrong ? ' !' : ''}
      </text>
    </g>
  );
}
