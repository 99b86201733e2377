import type { PlacedPart } from '@zugluft/core/airway/placeParts';
import { wattsText } from '../../../documents/answer/words';
import { FaultMark } from './FaultMark';

/** Width of a pipe's line, mm. */
const PIPE_MM = (watts: number) => 1.2 + 0.13 * watts;

/** Pipes between the same parts lie beside each other. */
const offset = (index: number) => ((index % 5) - 2) * 4.5;

/** A heat pipe from part to part, as wide as the watts that it carries. */
export function PipeLine({
  id,
  index,
  through,
  watts,
  faults,
  px,
  open,
}: {
  id: string;
  index: number;
  through: readonly PlacedPart[];
  watts: number | undefined;
  faults: readonly string[] | undefined;
  px: (p: { xMm: number }) => number;
  open: () => void;
}) {
  const middle = through[Math.floor((through.length - 1) / 2)];
  return (
    <g
      role="button"
      tabIndex={0}
      data-part={id}
      aria-label={`heat pipe ${id}${faults ? `: ${faults.join('; ')}` : ''}`}
      style={{ cursor: 'pointer' }}
      onClick={open}
      onKeyDown={(e) => {
        if (e.key !== 'Enter' && e.key !== ' ') return;
        e.preventDefault();
        open();
      }}
    >
      <polyline
        points={through.map((p) => `${px(p)},${p.yMm + offset(index)}`).join(' ')}
        fill="none"
        stroke="var(--color-secondary)"
        strokeWidth={PIPE_MM(watts ?? 5)}
        strokeOpacity={watts === undefined ? 0.4 : 0.85}
        strokeLinejoin="round"
        strokeLinecap="round"
      />
      {middle && (
        <title>
          {id}
          {watts !== undefined && `, ${wattsText(watts)} W`}
        </title>
      )}
      {faults && middle && (
        <FaultMark x={px(middle)} y={middle.yMm + offset(index) - 8} words={faults} />
      )}
    </g>
  );
}
