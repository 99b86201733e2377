import type { DesignAnswer } from '@zugluft/core/levers/designSearch';

const WIDTH = 300;
const HEIGHT = 90;
const LEFT = 34;
const BOTTOM = 16;
const TOP = 6;

/** Watts over one figure of a design: today's as an upright, what is needed as a level, the least that would do as a ring. */
export function DesignCurve({ answer, neededW }: { answer: DesignAnswer; neededW: number }) {
  const { curve, today, least, unit } = answer;
  const sizes = curve.map((p) => p.size);
  const [low, high] = [Math.min(...sizes), Math.max(...sizes)];
  const most = 1.05 * Math.max(neededW, ...curve.map((p) => p.watts));
  const x = (size: number) => LEFT + ((size - low) / (high - low || 1)) * (WIDTH - LEFT - 8);
  const y = (w: number) => TOP + (1 - w / most) * (HEIGHT - TOP - BOTTOM);
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      className="w-full max-w-[22rem]"
      role="img"
      aria-label={curve.map((p) => `${p.size} ${unit}: ${p.watts.toFixed(0)} W`).join(', ')}
    >
      <line x1={LEFT} x2={WIDTH} y1={y(0)} y2={y(0)} className="stroke-rule" />
      <line
        x1={LEFT}
        x2={WIDTH}
        y1={y(neededW)}
        y2={y(neededW)}
        className="stroke-ink"
        strokeDasharray="2 3"
      />
      <text
        x={LEFT - 4}
        y={y(neededW) + 4}
        textAnchor="end"
        className="figure fill-ink text-[11px]"
      >
        {neededW.toFixed(0)}
      </text>
      <line x1={x(today.size)} x2={x(today.size)} y1={TOP} y2={y(0)} className="stroke-rule" />
      <polyline
        points={curve.map((p) => `${x(p.size)},${y(p.watts)}`).join(' ')}
        fill="none"
        className="stroke-ink"
        strokeWidth={1.6}
      />
      {least && (
        <circle
          cx={x(least.size)}
          cy={y(least.watts)}
          r={4}
          fill="var(--color-base-100)"
          stroke="var(--color-secondary)"
          strokeWidth={2}
        />
      )}
      <text x={x(low)} y={HEIGHT - 3} className="figure fill-ink text-[11px]">
        {low}
      </text>
      <text x={x(high)} y={HEIGHT - 3} textAnchor="end" className="figure fill-ink text-[11px]">
        {high} {unit}
      </text>
    </svg>
  );
}
