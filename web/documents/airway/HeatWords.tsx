import type { HeatWay } from '@zugluft/core/airway/heatWays';
import type { PlacedPart } from '@zugluft/core/airway/placeParts';
import { wattsText } from '@zugluft/core/case/answerWords';

/** Less than that is not worth a word. */
const MIN_W = 0.5;

/** Watts along the pipes: written beside them, with the way that they take. */
export function HeatWords({
  ways,
  byId,
  px,
  fontMm,
}: {
  ways: readonly HeatWay[];
  byId: ReadonlyMap<string, PlacedPart>;
  px: (p: { xMm: number }) => number;
  fontMm: number;
}) {
  return (
    <g aria-hidden pointerEvents="none" data-testid="heat">
      {ways.map((w) => {
        const [from, to] = [byId.get(w.from), byId.get(w.to)];
        if (!from || !to || w.watts < MIN_W) return null;
        const [x1, y1, x2, y2] = [px(from), from.yMm, px(to), to.yMm];
        const far = Math.hypot(x2 - x1, y2 - y1);
        if (far < 12) return null;
        const angle = (Math.atan2(y2 - y1, x2 - x1) * 180) / Math.PI;
        const [mx, my] = [(x1 + x2) / 2, (y1 + y2) / 2];
        // above the line for who reads it, whichever way it runs
        const up = Math.abs(angle) > 90 ? -1 : 1;
        const turn = up < 0 ? angle + 180 : angle;
        return (
          <g key={`${w.from}>${w.to}`} transform={`translate(${mx} ${my})`}>
            <path
              d="M-3 -4 L2 0 L-3 4"
              transform={`rotate(${angle})`}
              fill="none"
              stroke="var(--color-base-100)"
              strokeWidth="1.6"
            />
            <text
              transform={`rotate(${turn})`}
              y={0.35 * fontMm + 8}
              fontSize={fontMm}
              textAnchor="middle"
              fill="var(--color-secondary)"
              paintOrder="stroke"
              stroke="var(--color-base-100)"
              strokeWidth="2.5"
              className="figure"
            >
              {wattsText(w.watts)} W
            </text>
          </g>
        );
      })}
    </g>
  );
}
