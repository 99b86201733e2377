import type { PlacedPart } from '@zugluft/core/airway/placeParts';
import type { ComponentProps } from 'react';
import { FaultMark } from './FaultMark';

/** A part on the map as it lies there, with its name and what is wrong with it. */
export function PartShape({
  part: p,
  x: middle,
  planMm,
  fontMm,
  flowLps: flow,
  chosen,
  faults: wrong,
  ...handlers
}: {
  part: PlacedPart;
  /** Its middle on the plan, which is seen from below. */
  x: number;
  planMm: number;
  fontMm: number;
  flowLps: number | undefined;
  /** The part in hand. */
  chosen: boolean;
  faults: readonly string[] | undefined;
} & Omit<ComponentProps<'g'>, 'x' | 'part'>) {
  const x = middle - p.widthMm / 2;
  const y = p.yMm - p.depthMm / 2;
  // beside the air that leaves there
  const behind = p.kind === 'vent' && p.yMm < 2;
  const edge = middle + p.widthMm / 2 + 3;
  // at the other side of the vent where its name would run out of the plan
  const turned = behind && edge + p.id.length * LETTER * fontMm > planMm;
  return (
    <g {...handlers} data-chosen={chosen || undefined}>
      {chosen && (
        <rect
          x={x - 4}
          y={y - 4}
          width={p.widthMm + 8}
          height={p.depthMm + 8}
          rx="4"
          fill="none"
          stroke="var(--color-primary)"
          strokeWidth="2.2"
        />
      )}
      {p.kind === 'fan' ? (
        <>
          <circle
            cx={middle}
            cy={p.yMm}
            r={p.widthMm / 2}
            fill="var(--color-base-100)"
            stroke="currentColor"
          />
          <Blades x={middle} y={p.yMm} r={p.widthMm / 2} />
        </>
      ) : (
        <rect
          x={x}
          y={y}
          width={p.widthMm}
          height={p.depthMm}
          rx={p.kind === 'plate' ? 3 : 1}
          fill={p.kind === 'die' ? 'currentColor' : 'var(--color-base-100)'}
          fillOpacity={p.kind === 'vent' ? 0.2 : 1}
          stroke={p.kind === 'vent' ? 'var(--color-primary)' : 'currentColor'}
          strokeWidth={p.kind === 'vent' ? 1.2 : 0.9}
          strokeDasharray={p.kind === 'vent' ? '2 1.6' : undefined}
        />
      )}
      {p.kind === 'stack' && <Fins part={p} x={x} y={y} />}
      <text
        x={
          behind
            ? turned
              ? middle - p.widthMm / 2 - 3
              : edge
            : middle < 26
              ? 2
              : middle > planMm - 26
                ? planMm - 2
                : middle
        }
        y={labelY(p, fontMm)}
        fontSize={fontMm}
        textAnchor={
          behind
            ? turned
              ? 'end'
              : 'start'
            : middle < 26
              ? 'start'
              : middle > planMm - 26
                ? 'end'
                : 'middle'
        }
        fill="currentColor"
        paintOrder="stroke"
        stroke="var(--color-base-100)"
        strokeWidth="2"
      >
        {p.id}
        {flow !== undefined && (
          <tspan x={middle} dy={1.2 * fontMm}>
            {flow.toFixed(1)} L/s
          </tspan>
        )}
      </text>
      {wrong && <FaultMark x={middle + p.widthMm / 2} y={y} fontMm={fontMm} words={wrong} />}
    </g>
  );
}

/** Width of a letter over its height, about. */
const LETTER = 0.55;

function labelY(p: PlacedPart, fontMm: number): number {
  if (p.kind === 'die') return p.yMm - p.depthMm / 2 - 2.5;
  if (p.kind === 'vent' && p.yMm < 2) return -2.5;
  // where it lies across, its name stands on it
  if (p.kind === 'stack' && p.widthMm >= p.depthMm) return p.yMm + 0.35 * fontMm;
  if (p.kind !== 'fan') return p.yMm + p.depthMm / 2 + 1.1 * fontMm;
  return p.yMm - 2;
}

const BLADES = 11;

/** Blades near the rim; its name and flow stand in the middle. */
function Blades({ x, y, r }: { x: number; y: number; r: number }) {
  return (
    <g stroke="currentColor" strokeWidth="0.5" opacity="0.55">
      {Array.from({ length: BLADES }, (_, i) => {
        const a = (2 * Math.PI * i) / BLADES;
        const b = a + 0.35;
        return (
          <line
            key={i}
            x1={x + 0.72 * r * Math.cos(a)}
            y1={y + 0.72 * r * Math.sin(a)}
            x2={x + 0.97 * r * Math.cos(b)}
            y2={y + 0.97 * r * Math.sin(b)}
          />
        );
      })}
    </g>
  );
}

function Fins({ part, x, y }: { part: PlacedPart; x: number; y: number }) {
  const along = part.widthMm >= part.depthMm;
  const length = along ? part.widthMm : part.depthMm;
  const lines = Math.min(40, Math.floor(length / 2.4));
  return (
    <g stroke="currentColor" strokeWidth="0.4" opacity="0.55">
      {Array.from({ length: lines }, (_, i) => {
        const at = ((i + 0.5) * length) / lines;
        return along ? (
          <line key={i} x1={x + at} x2={x + at} y1={y} y2={y + part.depthMm} />
        ) : (
          <line key={i} x1={x} x2={x + part.widthMm} y1={y + at} y2={y + at} />
        );
      })}
    </g>
  );
}
