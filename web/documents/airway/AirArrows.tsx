import type { AirArrow } from './airArrows';

/** The air on the map: arrows whose number follows the flow. */
export function AirArrows({
  arrows,
  px,
}: {
  arrows: readonly AirArrow[];
  px: (p: { xMm: number }) => number;
}) {
  return (
    <g aria-hidden pointerEvents="none" data-testid="air">
      {arrows.map((a) => (
        <line
          key={a.key}
          x1={px({ xMm: a.x1 })}
          y1={a.y1}
          x2={px({ xMm: a.x2 })}
          y2={a.y2}
          stroke="var(--color-primary)"
          strokeWidth="1.1"
          markerEnd="url(#air-tip)"
        />
      ))}
    </g>
  );
}
