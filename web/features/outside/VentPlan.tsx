import { useCommands } from '../../documents/commands';
import { useMemo, useRef, useState, type KeyboardEvent } from 'react';
import {
  faceAt,
  FACES,
  keptPlace,
  outsidePlan,
  type Face,
  type PlannedVent,
} from '@zugluft/core/airway/outsidePlan';
import { parseRecord } from '@zugluft/core/record/parseRecord';
import { partsOf, removePart, setAt } from '../../documents/record/draft';
import { useMachineFile } from '../../documents/record/MachineFile';
import { Kbd } from '../../kit/Kbd';
import { arrowStep } from '../../kit/plan/arrowStep';
import { planPoint } from '../../kit/plan/planPoint';
import { useDrawnSize } from '../../kit/plan/useDrawnSize';
import { usePlanDrag } from '../../kit/plan/usePlanDrag';
import { addVent } from './addVent';
import { VentFields } from './VentFields';
import { VentShape } from './VentShape';

const MARGIN = 12;
const STEP_MM = 2;
const WORDS_PX = 11;
const FACE_WORD: Record<Face, string> = {
  base: 'base',
  rear: 'rear',
  left: 'user’s left',
  right: 'user’s right',
};

/**
 * Vents where they are seen from outside: the base from below with the sides folded out. A click on an empty place records a
 * vent there, a click on one opens its figures below; vents are dragged or moved with the arrow keys.
 */
export function VentPlan() {
  const { draft, change, issues } = useMachineFile();
  const record = useMemo(() => parseRecord(draft).record, [draft]);
  const plan = useMemo(() => (record ? outsidePlan(record) : null), [record]);
  const [chosen, setChosen] = useState(0);
  const svg = useRef<SVGSVGElement>(null);
  const drawn = useDrawnSize(svg, plan !== null);
  const vents = partsOf(draft, 'vents');
  const selected = Math.min(chosen, vents.length - 1);
  const add = (face: Face, x: number, y: number) => {
    if (!plan || !record) return;
    const place = keptPlace(plan, face, x, y);
    change((d) => addVent(d, record, face, place));
    setChosen(vents.length);
  };
  const put = (v: PlannedVent, x: number, y: number) => {
    if (!plan) return;
    const face = faceAt(plan, x, y) ?? v.face;
    const place = keptPlace(plan, face, x, y);
    change(
      (d) => setAt(setAt(d, ['airway', 'places', v.id], place), ['vents', v.index, 'side'], face),
      `airway.${v.id}`,
    );
  };
  const drag = usePlanDrag(
    svg,
    (id, dx, dy) => {
      const v = plan?.vents.find((x) => x.id === id);
      if (v) put(v, v.x + v.width / 2 + dx, v.y + v.height / 2 + dy);
    },
    () => undefined,
  );
  useCommands({
    'add-vent': () => {
      if (!plan) return;
      const { x, y, width, height } = plan.faces.base;
      add('base', x + width / 2, y + height / 4);
    },
  });
  if (!plan || !record) {
    return <p className="text-quiet py-3">The plan is drawn once the record can be read.</p>;
  }
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
    <section aria-label="vents">
      <h2 className="font-semibold">Vents</h2>
      <p className="text-[0.85rem] text-quiet mb-1">
        From below, sides folded out. <span className="text-air">Dashed: air enters</span>,{' '}
        <span className="text-heat">solid: it leaves</span>, dotted: passive. Click an empty place
        to record a vent there <Kbd>n</Kbd>
      </p>
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
              onFocus={() => setChosen(v.index)}
              onKeyDown={onKeyDown(v)}
              onPointerDown={(e) => {
                setChosen(v.index);
                onPointerDown(e);
              }}
              {...others}
            />
          );
        })}
      </svg>
      {plan.onDeck.length > 0 && (
        <p className="text-[0.9rem]">
          On the deck:{' '}
          {plan.onDeck.map((v) => (
            <button
              key={v.id}
              type="button"
              className="figure underline underline-offset-2 cursor-pointer mr-2"
              onClick={() => setChosen(v.index)}
            >
              {v.id}
            </button>
          ))}
        </p>
      )}
      {vents.length === 0 ? (
        <p className="text-quiet py-2">
          No vent recorded: openings of usual size are assumed. Record them where they are smaller,
          covered or meshed.
        </p>
      ) : (
        <VentFields key={selected} index={selected} />
      )}
    </section>
  );
}
