import type { HeatWay } from '@zugluft/core/airway/heatWays';
import type { PlacedPart } from '@zugluft/core/airway/placeParts';
import { FaultMark } from './FaultMark';

/** Width of a pipe's line, mm. */
const PIPE_MM = (watts: number) => 1.2 + 0.13 * watts;

/** Pipes between the same parts lie beside each other. */
const offset = (index: number) => ((index % 5) - 2) * 4.5;

/** A heat pipe from part to part, between each two as wide as the watts that flow there. */
export function PipeLine({
  id,
  index,
  through,
  ways,
  chosen,
  faults,
  fontMm,
  px,
  choose,
}: {
  id: string;
  index: number;
  through: readonly PlacedPart[];
  /** What flows between its parts; empty while it is not known. */
  ways: readonly HeatWay[];
  chosen: boolean;
  faults: readonly string[] | undefined;
  fontMm: number;
  px: (p: { xMm: number }) => number;
  choose: () => void;
}) {
  const middle = through[Math.floor((through.length - 1) / 2)];
  const known = ways.length === through.length - 1;
  const at = (p: PlacedPart) => ({ x: px(p), y: p.yMm + offset(index) });
  const points = through.map((p) => `${at(p).x},${at(p).y}`).join(' ');
  return (
    <g
      role="button"
      tabIndex={0}
      data-part={id}
      data-chosen={chosen || undefined}
      aria-pressed={chosen}
      aria-label={`heat pipe ${id}${faults ? `: ${faults.join('; ')}` : ''}`}
      style={{ cursor: 'pointer' }}
      onClick={choose}
      onKeyDown={(e) => {
        if (e.key !== 'Enter' && e.key !== ' ') return;
        e.preventDefault();
        e.stopPropagation();
        choose();
      }}
    >
      {chosen && (
        <polyline
          points={points}
          fill="none"
          stroke="var(--color-primary)"
          strokeWidth={PIPE_MM(known ? Math.max(...ways.map((w) => Math.abs(w.watts))) : 5) + 3}
          strokeLinejoin="round"
          strokeLinecap="round"
        />
      )}
      {through.slice(0, -1).map((p, i) => {
        const [a, b] = [at(p), at(through[i + 1]!)];
        return (
          <line
            key={i}
            x1={a.x}
            y1={a.y}
            x2={b.x}
            y2={b.y}
            stroke="var(--color-secondary)"
            strokeWidth={PIPE_MM(known ? Math.abs(ways[i]!.watts) : 5)}
            strokeOpacity={known ? 0.85 : 0.4}
            strokeLinecap="round"
          />
        );
      })}
      {/* a thin pipe is met with a finger too */}
      <polyline
        points={points}
        fill="none"
        stroke="transparent"
        strokeWidth="9"
        pointerEvents="stroke"
      />
      <title>{id}</title>
      {faults && middle && (
        <FaultMark x={at(middle).x} y={at(middle).y - 8} fontMm={fontMm} words={faults} />
      )}
    </g>
  );
}
