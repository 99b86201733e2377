import {
  faceAt,
  FACES,
  type Face,
  type outsidePlan,
  type PlannedVent,
} from '@zugluft/core/airway/outsidePlan';
import type { CaseRecord } from '@zugluft/core/record/recordSchema';
import { useRef, type KeyboardEvent } from 'react';
import { removePart } from '../../documents/record/draft';
import { useMachineFile } from '../../documents/record/MachineFile';
import { arrowStep } from '../../kit/plan/arrowStep';
import { planPoint } from '../../kit/plan/planPoint';
import { useDrawnSize } from '../../kit/plan/useDrawnSize';
import { usePlanDrag } from '../../kit/plan/usePlanDrag';
import { VentShape } from './VentShape';

const MARGIN = 12;
const STEP_MM = 2;
const WORDS_PX = 12;
const FACE_WORD: Record<Face, string> = {
  base: 'base',
  rear: 'rear',
  left: 'user’s left',
  right: 'user’s right',
};

/** The plan itself: faces that are clicked, vents that are dragged or moved with the arrow keys. */
export function VentPicture({
  plan,
  record,
  selected,
  choose,
  add,
  put,
}: {
  plan: ReturnType<typeof outsidePlan>;
  /** Of which the plan was made. */
  record: CaseRecord;
  selected: number;
  choose: (index: number) => void;
  /** Records a vent at a place of the plan. */
  add: (face: Face, x: number, y: number) => void;
  /** Puts a vent's middle elsewhere. */
  put: (vent: PlannedVent, x: number, y: number) => void;
}) {
  const { change, issues } = useMachineFile();
  const svg = useRef<SVGSVGElement>(null);
  const drawn = useDrawnSize(svg, true);
  const drag = usePlanDrag(
    svg,
    (id, dx, dy) => {
      const v = plan.vents.find((x) => x.id === id);
      if (v) put(v, v.x + v.width / 2 + dx, v.y + v.height / 2 + dy);
    },
    () => undefined,
  );
  const { faces } = plan;
  const left = faces.right.x - MARGIN;
  const top = faces.rear.y - MARGIN;
  const width = faces.left.x + faces.left.width + MARGIN - left;
  const height = faces.base.height + MARGIN - top;
  // words keep their size however small the plan is drawn
  const mmPerPx = Math.max(width / Math.max(1, drawn.width), height / Math.max(1, drawn.height));
  const fontMm = WORDS_PX * mmPerPx;
  const onKeyDown = (v: PlannedVent) => (e: KeyboardEvent) => {
    const step = arrowStep(e, STEP_MM, 5 * STEP_MM);
    if (step) {
      // within its face: another face is chosen below
      const f = faces[v.face];
      const x = Math.min(f.x + f.width, Math.max(f.x, v.x + v.width / 2 + step[0]));
      const y = Math.min(f.y + f.height, Math.max(f.y, v.y + v.height / 2 + step[1]));
      put(v, x, y);
    } else if (e.key === 'Delete') change((d) => removePart(d, 'vents', v.index));
    else if (e.key === 'Enter' || e.key === ' ') {
      document.getElementById('vent-fields')?.querySelector<HTMLElement>('input,select')?.focus();
    } else return;
    e.preventDefault();
    e.stopPropagation();
  };
  return (
    <svg
      ref={svg}
      viewBox={`${left} ${top} ${width} ${height}`}
      className="w-full max-h-[21rem] select-none touch-none"
      role="group"
      aria-label="plan of the vents from below"
      data-testid="vent-plan"
      onPointerDown={(e) => {
        if (e.target !== e.currentTarget && !(e.target as Element).matches('[data-face]')) return;
        const at = planPoint(svg.current, e);
        const face = at && faceAt(plan, at.x, at.y);
        if (face) add(face, at.x, at.y);
      }}
    >
      <defs>
        <pattern id="mesh" width="3" height="3" patternUnits="userSpaceOnUse">
          <path d="M0 0 3 3M3 0 0 3" stroke="currentColor" strokeWidth="0.35" opacity="0.7" />
        </pattern>
      </defs>
      {FACES.map((f) => (
        <rect
          key={f}
          data-face={f}
          {...faces[f]}
          rx={f === 'base' ? 5 : 2}
          fill="var(--color-base-200)"
          fillOpacity="0.5"
          stroke="currentColor"
          strokeWidth="0.7"
          style={{ cursor: 'copy' }}
        />
      ))}
      <g fontSize={fontMm} fill="currentColor" opacity="0.75" pointerEvents="none">
        <text
          x={faces.base.width / 2}
          y={faces.base.height - 4}
          textAnchor="middle"
          children={FACE_WORD.base}
        />
        <text x={faces.base.width / 2} y={faces.rear.y - 3} textAnchor="middle">
          {FACE_WORD.rear}
        </text>
        {(['left', 'right'] as const).map((f) => {
          const x = faces[f].x + faces[f].width / 2;
          const y = faces.base.height * 0.8;
          return (
            <text
              key={f}
              textAnchor="middle"
              dominantBaseline="middle"
              transform={`translate(${x} ${y}) rotate(${f === 'left' ? 90 : -90})`}
            >
              {FACE_WORD[f]}
            </text>
          );
        })}
      </g>
      {plan.vents.map((v) => {
        const vent = record.vents![v.index]!;
        const wrong = issues.some((i) => i.path.startsWith(`vents.${v.index}.`));
        const { onPointerDown, ...others } = drag.handlers(v.id);
        return (
          <VentShape
            key={v.id}
            planned={v}
            vent={vent}
            by={drag.draggedBy(v.id)}
            selected={v.index === selected}
            wrong={wrong}
            fontMm={fontMm}
            role="button"
            tabIndex={0}
            data-part={v.id}
            aria-label={`vent ${v.id}, ${FACE_WORD[v.face]}, ${vent.flow ?? 'no flow recorded'}${wrong ? ', needs attention' : ''}`}
            aria-pressed={v.index === selected}
            style={{ cursor: 'grab' }}
            onFocus={() => choose(v.index)}
            onKeyDown={onKeyDown(v)}
            onPointerDown={(e) => {
              choose(v.index);
              onPointerDown(e);
            }}
            {...others}
          />
        );
      })}
    </svg>
  );
}
