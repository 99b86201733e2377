import type { PlacedPart } from '@zugluft/core/airway/placeParts';

/** Width of a line of air, mm. */
const AIR_MM = (lps: number) => 0.8 + 2.2 * lps;

/** A way of the air, as wide as what flows there. */
export function AirLine({
  from,
  to,
  lps,
  px,
}: {
  from: PlacedPart;
  to: PlacedPart;
  lps: number | undefined;
  px: (p: { xMm: number }) => number;
}) {
  const [x1, y1, x2, y2] = [px(from), from.yMm, px(to), to.yMm];
  if (Math.hypot(x2 - x1, y2 - y1) < 4) return null;
  return (
    <line
      x1={x1}
      y1={y1}
      x2={x2}
      y2={y2}
      stroke="var(--color-primary)"
      strokeWidth={AIR_MM(lps ?? 0)}
      strokeOpacity="0.8"
      strokeDasharray="5 3"
      markerEnd="url(#air-tip)"
    />
  );
}
