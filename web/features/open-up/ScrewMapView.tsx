import { planPoint } from '../../kit/plan/planPoint';
import { useRef, type ComponentProps, type PointerEvent } from 'react';
import { holeAt, type Place } from '@zugluft/core/service/holeAt';
import { isPlaced } from '@zugluft/core/service/openUpLog';
import type { OpenUpLog } from '../../api/openUp';
import { useDrawnSize } from '../../kit/plan/useDrawnSize';
import { GroupMark, MARK_WORDS_MM } from './GroupMark';

const MARGIN = 14;
/** Smallest words on the map, px. */
const WORDS_PX = 12;
type Screw = OpenUpLog['screws'][number];
/** What became of the screw of a hole. */
export function stateOf(s: Screw): 'expected' | 'in' | 'out' | 'back' | 'missing' | 'lost' {
  if (s.onArrival === 'missing') return 'missing';
  if (!s.out) return s.onArrival === 'not-looked' ? 'expected' : 'in';
  if (s.back === undefined) return 'out';
  return s.back === 'lost' ? 'lost' : 'back';
}

export const STATE_WORDS = {
  expected: 'expected, not looked at',
  in: 'in its hole',
  out: 'taken out',
  back: 'put back',
  missing: 'missing on arrival',
  lost: 'lost',
} as const;

export const sizeOf = (layer: OpenUpLog['layers'][number]) => ({
  w: layer.widthMm ?? 350,
  h: layer.depthMm ?? 240,
});

/** Holes of one layer where they were found, drawn only: what a click does is up to whoever shows it. */
export function ScrewMapView({
  log,
  layer,
  order,
  marked,
  cursor,
  onPlace,
  className = '',
  ...rest
}: {
  log: OpenUpLog;
  layer: OpenUpLog['layers'][number];
  /** Number beside a hole, such as its place in the order of tightening. */
  order?: ReadonlyMap<string, number>;
  /** Holes that matter now; others step back. */
  marked?: ReadonlySet<string> | undefined;
  cursor?: Place | null;
  onPlace: (at: Place, hit: Screw | undefined) => void;
} & Omit<ComponentProps<'svg'>, 'order' | 'onPointerDown' | 'cursor'>) {
  const { w, h } = sizeOf(layer);
  const svg = useRef<SVGSVGElement>(null);
  const drawn = useDrawnSize(svg, true);
  const pxPerMm = Math.min(drawn.width / (w + 2 * MARGIN), drawn.height / (h + 2 * MARGIN));
  // words and marks keep their size however small the map is drawn
  const wordsMm = WORDS_PX / Math.max(0.4, pxPerMm);
  const markSize = Math.max(1, wordsMm / MARK_WORDS_MM);
  const groupIndex = (id: string | undefined) => log.groups.findIndex((g) => g.id === id);
  const onPointerDown = (e: PointerEvent) => {
    const p = planPoint(svg.current, e);
    if (!p || e.button !== 0) return;
    const at = { xMm: Math.min(w, Math.max(0, p.x)), yMm: Math.min(h, Math.max(0, p.y)) };
    onPlace(at, holeAt(log, layer.id, at));
  };
  return (
    <svg
      ref={svg}
      viewBox={`${-MARGIN} ${-MARGIN} ${w + 2 * MARGIN} ${h + 2 * MARGIN}`}
      className={`w-full select-none rounded-sm ${className}`}
      data-testid="screw-map"
      onPointerDown={onPointerDown}
      {...rest}
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
      {log.parts
        .filter((p) => p.layer === layer.id && p.place)
        .map((p) => (
          <g key={p.id} data-part={p.id}>
            <rect
              x={p.place!.xMm}
              y={p.place!.yMm}
              width={p.place!.widthMm}
              height={p.place!.depthMm}
              fill="none"
              stroke="var(--color-rule)"
              strokeWidth="1"
            />
            <text
              x={p.place!.xMm + 4}
              y={p.place!.yMm + wordsMm + 2}
              fontSize={wordsMm}
              fill="var(--color-quiet)"
            >
              {p.name}
            </text>
          </g>
        ))}
      {log.screws
        .filter(isPlaced)
        .filter((s) => s.layer === layer.id)
        .map((s) => (
          <g
            key={s.id}
            transform={`translate(${s.xMm} ${s.yMm})`}
            data-screw={s.id}
            opacity={marked && !marked.has(s.id) ? 0.35 : 1}
          >
            <GroupMark
              size={markSize}
              index={groupIndex(s.group)}
              letter={log.groups[groupIndex(s.group)]?.letter ?? '?'}
              state={stateOf(s)}
            />
            {(s.captive || s.hiddenUnder) && (
              <path
                d={s.captive ? 'M-10 9H10' : 'M-10 9H-3M3 9H10'}
                stroke="currentColor"
                strokeWidth="1.2"
              >
                <title>{s.captive ? 'captive' : `hidden under ${s.hiddenUnder}`}</title>
              </path>
            )}
            {(order?.has(s.id) || s.printed !== undefined) && (
              <text
                x={8 * markSize}
                y="-6"
                fontSize={wordsMm}
                className="figure"
                fill={order?.has(s.id) ? 'var(--color-primary)' : 'currentColor'}
              >
                {order?.get(s.id) ?? s.printed}
              </text>
            )}
          </g>
        ))}
      {cursor && (
        <g transform={`translate(${cursor.xMm} ${cursor.yMm})`} stroke="var(--color-primary)">
          <path d="M-12 0H-8M12 0H8M0 -12V-8M0 12V8" strokeWidth="1.4" />
        </g>
      )}
    </svg>
  );
}
