import { useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import type { OpenUpLog } from '../../api/openUp';
import { Kbd } from '../../ui/Kbd';
import { addScrew, editScrew, removeScrew, turnScrew } from './logEdits';
import { GroupMark } from './GroupMark';

const MARGIN = 14;
const STEP_MM = 5;
const NEAR_MM = 7;

type Screw = OpenUpLog['screws'][number];

/** What became of the screw of a hole. */
export function stateOf(s: Screw): 'in' | 'out' | 'back' | 'missing' | 'lost' {
  if (s.onArrival === 'missing') return 'missing';
  if (!s.out) return 'in';
  if (s.back === undefined) return 'out';
  return s.back === 'lost' ? 'lost' : 'back';
}

const WORDS = {
  in: 'in its hole',
  out: 'taken out',
  back: 'put back',
  missing: 'missing on arrival',
  lost: 'lost',
} as const;

/**
 * Holes of one layer where they were found. A cursor is moved with the arrow keys, Enter logs a screw there; the same is done by
 * click. Letters choose the group.
 */
export function ScrewMap({
  log,
  layer,
  stepId,
  order,
  change,
}: {
  log: OpenUpLog;
  layer: OpenUpLog['layers'][number];
  stepId: string | undefined;
  /** Order of tightening to show, by hole. */
  order: ReadonlyMap<string, number>;
  change: (make: (log: OpenUpLog) => OpenUpLog) => void;
}) {
  const w = layer.widthMm ?? 350;
  const h = layer.depthMm ?? 240;
  const [at, setAt] = useState({ xMm: 10, yMm: 10 });
  const [letter, setLetter] = useState('A');
  const [focused, setFocused] = useState(false);
  const svg = useRef<SVGSVGElement>(null);
  const mine = log.screws.filter((s) => s.layer === layer.id);
  const under = mine.find((s) => Math.hypot(s.xMm - at.xMm, s.yMm - at.yMm) <= NEAR_MM);
  const groupIndex = (id: string | undefined) => log.groups.findIndex((g) => g.id === id);
  const onKeyDown = (e: KeyboardEvent) => {
    if (e.ctrlKey || e.metaKey || e.altKey) return;
    const by = e.shiftKey ? 1 : STEP_MM;
    const move = {
      ArrowLeft: [-by, 0],
      ArrowRight: [by, 0],
      ArrowUp: [0, -by],
      ArrowDown: [0, by],
    }[e.key];
    if (move) {
      setAt({
        xMm: Math.min(w, Math.max(0, at.xMm + move[0]!)),
        yMm: Math.min(h, Math.max(0, at.yMm + move[1]!)),
      });
    } else if (e.key === 'Enter') {
      if (under) change((l) => turnScrew(l, under.id));
      else change((l) => addScrew(l, layer.id, letter, at, stepId));
    } else if (/^[a-z]$/i.test(e.key)) setLetter(e.key.toUpperCase());
    else if (e.key === '0' && under) {
      const missing = under.onArrival === 'missing';
      change((l) =>
        editScrew(l, under.id, {
          onArrival: missing ? 'there' : 'missing',
          out: false,
          back: undefined,
        }),
      );
    } else if (e.key === '-' && under?.out) {
      change((l) => editScrew(l, under.id, { back: under.back === 'lost' ? undefined : 'lost' }));
    } else if ((e.key === 'Delete' || e.key === 'Backspace') && under) {
      change((l) => removeScrew(l, under.id));
    } else return;
    e.preventDefault();
    e.stopPropagation();
  };
  const onPointerDown = (e: PointerEvent) => {
    const matrix = svg.current?.getScreenCTM();
    if (!matrix || e.button !== 0) return;
    const p = new DOMPoint(e.clientX, e.clientY).matrixTransform(matrix.inverse());
    const place = {
      xMm: Math.min(w, Math.max(0, p.x)),
      yMm: Math.min(h, Math.max(0, p.y)),
    };
    const hit = mine.find((s) => Math.hypot(s.xMm - p.x, s.yMm - p.y) <= NEAR_MM);
    setAt(hit ? { xMm: hit.xMm, yMm: hit.yMm } : place);
    if (hit) change((l) => turnScrew(l, hit.id));
    else change((l) => addScrew(l, layer.id, letter, place, stepId));
  };
  return (
    <div>
      <svg
        ref={svg}
        viewBox={`${-MARGIN} ${-MARGIN} ${w + 2 * MARGIN} ${h + 2 * MARGIN}`}
        className="w-full max-h-[20rem] select-none focus:outline-2 outline-air rounded-sm"
        tabIndex={0}
        role="application"
        aria-label={`screw map of ${layer.name}: arrows move the cursor, Enter logs or turns a screw`}
        data-testid="screw-map"
        onKeyDown={onKeyDown}
        onPointerDown={onPointerDown}
        onFocus={() => setFocused(true)}
        onBlur={() => setFocused(false)}
      >
        <rect
          width={w}
          height={h}
          rx="6"
          fill="var(--color-base-200)"
          fillOpacity="0.5"
          stroke="currentColor"
          strokeWidth="0.8"
        />
        {mine.map((s) => (
          <g key={s.id} transform={`translate(${s.xMm} ${s.yMm})`} data-screw={s.id}>
            <GroupMark
              index={groupIndex(s.group)}
              letter={log.groups[groupIndex(s.group)]?.letter ?? '?'}
              state={stateOf(s)}
            />
            {order.has(s.id) && (
              <text x="9" y="-6" fontSize="9" className="figure" fill="var(--color-primary)">
                {order.get(s.id)}
              </text>
            )}
          </g>
        ))}
        {focused && (
          <g transform={`translate(${at.xMm} ${at.yMm})`} stroke="var(--color-primary)">
            <path d="M-12 0H-8M12 0H8M0 -12V-8M0 12V8" strokeWidth="1.4" />
          </g>
        )}
      </svg>
      <p
        className="text-[0.85rem] text-quiet flex flex-wrap gap-x-3 gap-y-1 items-center"
        aria-live="polite"
      >
        <span>
          group{' '}
          <span className="figure text-ink" data-testid="group-letter">
            {letter}
          </span>{' '}
          <Kbd>A</Kbd>–<Kbd>Z</Kbd>
        </span>
        <span>
          log, out, back <Kbd>Enter</Kbd>
        </span>
        <span>
          was missing <Kbd>0</Kbd>
        </span>
        <span>
          lost <Kbd>-</Kbd>
        </span>
        <span>
          remove <Kbd>Del</Kbd>
        </span>
        <span className="text-ink">
          {under
            ? `${log.groups[groupIndex(under.group)]?.letter ?? '?'}, ${WORDS[stateOf(under)]}`
            : ''}
        </span>
      </p>
    </div>
  );
}
