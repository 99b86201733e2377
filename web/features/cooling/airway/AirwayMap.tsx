import { useEffect, useMemo, useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import { airwayFaults } from '@zugluft/core/airway/airwayFaults';
import { placeParts, type PlacedPart } from '@zugluft/core/airway/placeParts';
import { parseRecord } from '@zugluft/core/record/parseRecord';
import { setAt } from '../../../documents/record/draft';
import { useMachineFile } from '../../../documents/record/MachineFile';
import type { Cap } from '@zugluft/core/envelope/fanStates';
import { CapSelect } from '../../../documents/answer/CapSelect';
import { middleCap } from '../../../documents/answer/caps';
import { wattsText } from '../../../documents/answer/words';
import { usePointAtCap } from './usePointAtCap';

const MARGIN = 16;
const STEP_MM = 2;
const WORDS_PX = 10;
/** Line widths on the plan, mm. */
const PIPE_MM = (watts: number) => 1.2 + 0.13 * watts;
const AIR_MM = (lps: number) => 0.8 + 2.2 * lps;
const WORD: Record<PlacedPart['kind'], string> = {
  die: 'die',
  plate: 'plate',
  stack: 'fin stack',
  fan: 'fan',
  vent: 'vent',
};

/**
 * The machine from below, drawn from its record: what lies where, how many watts each pipe carries and how much air each fan
 * moves at a cap. Parts are dragged, or moved with the arrow keys, to where they sit; a click opens their figures.
 */
export function AirwayMap({ open }: { open: (list: string) => void }) {
  const { draft, change, issues, caps, addCap } = useMachineFile();
  const record = useMemo(() => parseRecord(draft).record, [draft]);
  const plan = useMemo(() => (record ? placeParts(record) : null), [record]);
  const [chosen, setCap] = useState<Cap | null>(null);
  const cap = chosen !== null && caps.includes(chosen) ? chosen : middleCap(caps);
  const [held, setHeld] = useState<{ id: string; xMm: number; yMm: number } | null>(null);
  const moved = useRef(false);
  const svg = useRef<SVGSVGElement>(null);
  const [drawnPx, setDrawnPx] = useState(800);
  const drawn = plan !== null && plan.parts.length > 0;
  useEffect(() => {
    const element = svg.current;
    if (!element) return;
    const seen = new ResizeObserver(() => setDrawnPx(element.clientWidth));
    seen.observe(element);
    return () => seen.disconnect();
  }, [drawn]);
  const point = usePointAtCap(cap);
  const faults = useMemo(() => (record ? airwayFaults(record, issues) : []), [record, issues]);
  if (!record || !plan) {
    return <p className="text-quiet px-1.5 py-3">The map is drawn once the record can be read.</p>;
  }
  if (!plan.parts.length) {
    return (
      <p className="text-quiet px-1.5 py-3">
        The airway map is drawn from the parts above. Add the first ones.
      </p>
    );
  }
  const w = plan.widthMm;
  const parts = plan.parts.map((p) => (held?.id === p.id ? { ...p, ...held } : p));
  const byId = new Map(parts.map((p) => [p.id, p]));
  // seen from below, the user's left is on the right
  const px = (p: { xMm: number }) => w - p.xMm;
  // the battery's half is left out where nothing lies there
  const shownMm = Math.min(plan.depthMm, Math.max(...parts.map((p) => p.yMm + p.depthMm / 2)) + 26);
  const cut = shownMm < plan.depthMm - 10;
  const bottom = cut ? shownMm : plan.depthMm;
  const faultAt = new Map<string, string[]>();
  for (const f of faults) faultAt.set(f.part, [...(faultAt.get(f.part) ?? []), f.message]);
  const place = (p: PlacedPart, xMm: number, yMm: number) => {
    const at = {
      xMm: Math.round(Math.min(w, Math.max(0, xMm))),
      yMm: Math.round(Math.min(plan.depthMm, Math.max(0, yMm))),
    };
    change((d) => setAt(d, ['airway', 'places', p.id], at), `airway.${p.id}`);
  };
  const toMm = (e: PointerEvent): { xMm: number; yMm: number } | null => {
    const matrix = svg.current?.getScreenCTM();
    if (!matrix) return null;
    const at = new DOMPoint(e.clientX, e.clientY).matrixTransform(matrix.inverse());
    return { xMm: w - at.x, yMm: at.y };
  };
  const onKeyDown = (p: PlacedPart) => (e: KeyboardEvent) => {
    const by = e.shiftKey ? 5 * STEP_MM : STEP_MM;
    // left on the screen is the user's right
    const steps: Record<string, [number, number]> = {
      ArrowLeft: [by, 0],
      ArrowRight: [-by, 0],
      ArrowUp: [0, -by],
      ArrowDown: [0, by],
    };
    const step = steps[e.key];
    if (step) place(p, p.xMm + step[0], p.yMm + step[1]);
    else if (e.key === 'Enter' || e.key === ' ') open(p.list);
    else return;
    e.preventDefault();
    e.stopPropagation();
  };
  const handlers = (p: PlacedPart) => ({
    role: 'button',
    tabIndex: 0,
    style: { cursor: 'grab', touchAction: 'none' } as const,
    'data-part': p.id,
    'aria-label': `${WORD[p.kind]} ${p.id}${faultAt.has(p.id) ? `: ${faultAt.get(p.id)!.join('; ')}` : ''}`,
    onKeyDown: onKeyDown(p),
    onPointerDown: (e: PointerEvent<SVGGElement>) => {
      e.currentTarget.setPointerCapture(e.pointerId);
      moved.current = false;
      setHeld({ id: p.id, xMm: p.xMm, yMm: p.yMm });
    },
    onPointerMove: (e: PointerEvent<SVGGElement>) => {
      if (held?.id !== p.id) return;
      const at = toMm(e);
      if (!at) return;
      if (Math.hypot(at.xMm - p.xMm, at.yMm - p.yMm) > 3) moved.current = true;
      if (moved.current) setHeld({ id: p.id, ...at });
    },
    onPointerUp: () => {
      if (held?.id !== p.id) return;
      if (moved.current) place(p, held.xMm, held.yMm);
      else open(p.list);
      setHeld(null);
    },
    onPointerCancel: () => setHeld(null),
  });
  const flowOf = (fan: string) => point?.fans.find((f) => f.id === fan)?.flowLps;
  const air: { key: string; from: PlacedPart; to: PlacedPart; lps: number | undefined }[] = [];
  for (const x of record.vents ?? []) {
    const vent = byId.get(x.id);
    for (const id of x.flow === 'intake' ? (x.fans ?? []) : []) {
      const fan = byId.get(id);
      if (vent && fan) air.push({ key: `${x.id}>${id}`, from: vent, to: fan, lps: flowOf(id) });
    }
    for (const id of x.flow === 'exhaust' ? (x.finStacks ?? []) : []) {
      const stack = byId.get(id);
      const fans = record.finStacks?.find((s) => s.id === id)?.fans ?? [];
      const flows = fans.map(flowOf).filter((f) => f !== undefined);
      if (vent && stack) {
        const lps = flows.length ? flows.reduce((a, b) => a + b, 0) : undefined;
        air.push({ key: `${id}>${x.id}`, from: stack, to: vent, lps });
      }
    }
  }
  for (const s of record.finStacks ?? []) {
    for (const id of s.fans ?? []) {
      const [fan, stack] = [byId.get(id), byId.get(s.id)];
      if (fan && stack) air.push({ key: `${id}>${s.id}`, from: fan, to: stack, lps: flowOf(id) });
    }
  }
  const order: PlacedPart['kind'][] = ['plate', 'vent', 'fan', 'stack', 'die'];
  // words keep their size on a narrow screen, where the plan is small
  const fontMm = Math.max(6, (WORDS_PX * (w + 2 * MARGIN)) / Math.max(200, drawnPx));
  return (
    <section aria-label="airway map" className="px-1.5 py-2">
      <div className="flex items-baseline gap-4 text-[0.85rem] text-quiet">
        <h3 className="text-[0.95rem] font-semibold text-ink">Airway map</h3>
        <label className="flex items-center gap-1">
          at
          <CapSelect
            label="cap of the map"
            caps={caps}
            value={cap}
            choose={(c) => {
              addCap(c);
              setCap(c);
            }}
          />
        </label>
        <span>
          from below · <span className="text-heat">solid: watts in pipes</span> ·{' '}
          <span className="text-air">dashed: air</span>
        </span>
      </div>
      <svg
        ref={svg}
        viewBox={`${-MARGIN} ${-MARGIN} ${w + 2 * MARGIN} ${bottom + MARGIN + (cut ? 4 : MARGIN)}`}
        className="w-full max-h-[23rem] select-none mt-1"
        role="group"
        aria-label="plan of the machine from below"
        data-testid="airway-map"
      >
        <defs>
          <marker
            id="air-tip"
            viewBox="0 0 6 6"
            refX="4"
            refY="3"
            markerWidth="7"
            markerHeight="7"
            markerUnits="userSpaceOnUse"
            orient="auto"
          >
            <path d="M0 0 L6 3 L0 6" fill="none" stroke="var(--color-primary)" strokeWidth="1.2" />
          </marker>
        </defs>
        <path
          d={`M0 ${bottom} V6 Q0 0 6 0 H${w - 6} Q${w} 0 ${w} 6 V${bottom}`}
          fill="none"
          stroke="currentColor"
          strokeWidth="0.8"
        />
        <path
          d={`M0 ${bottom} H${w}`}
          stroke="currentColor"
          strokeWidth="0.6"
          strokeDasharray={cut ? '1 4' : undefined}
        />
        <g fontSize={1.1 * fontMm} fill="currentColor" opacity="0.75">
          <text x="4" y={bottom - 4}>
            user’s right
          </text>
          <text x={w - 4} y={bottom - 4} textAnchor="end">
            user’s left
          </text>
          <text x={w / 2} y={-7} textAnchor="middle">
            rear
          </text>
        </g>
        {order.slice(0, 2).map((kind) => parts.filter((p) => p.kind === kind).map((p) => shape(p)))}
        {(record.finStacks ?? []).flatMap((s) =>
          (s.plates ?? []).map((id) => {
            const [plate, stack] = [byId.get(id), byId.get(s.id)];
            if (!plate || !stack) return null;
            // from the nearest place of the plate: the stack sits on it
            const half = plate.widthMm / 2;
            const xMm = Math.min(plate.xMm + half, Math.max(plate.xMm - half, stack.xMm));
            return (
              <line
                key={`${id}=${s.id}`}
                x1={px({ xMm })}
                y1={plate.yMm}
                x2={px(stack)}
                y2={stack.yMm}
                stroke="var(--color-secondary)"
                strokeWidth="2"
                strokeOpacity="0.85"
              />
            );
          }),
        )}
        {air.map((a) => (
          <AirLine key={a.key} from={a.from} to={a.to} lps={a.lps} px={px} />
        ))}
        {plan.pipes.map((pipe) => {
          const through = pipe.through.map((id) => byId.get(id)!);
          const read = point?.pipes.find((p) => p.id === pipe.id);
          const watts = read ? read.watts * pipe.count : undefined;
          const line = through.map((p) => `${px(p)},${p.yMm + offset(pipe.index)}`).join(' ');
          const middle = through[Math.floor((through.length - 1) / 2)];
          const wrong = faultAt.get(pipe.id);
          return (
            <g
              key={pipe.id}
              role="button"
              tabIndex={0}
              data-part={pipe.id}
              aria-label={`heat pipe ${pipe.id}${wrong ? `: ${wrong.join('; ')}` : ''}`}
              style={{ cursor: 'pointer' }}
              onClick={() => open('heatPipes')}
              onKeyDown={(e) => {
                if (e.key === 'Enter' || e.key === ' ') {
                  e.preventDefault();
                  open('heatPipes');
                }
              }}
            >
              <polyline
                points={line}
                fill="none"
                stroke="var(--color-secondary)"
                strokeWidth={PIPE_MM(watts ?? 5)}
                strokeOpacity={watts === undefined ? 0.4 : 0.85}
                strokeLinejoin="round"
                strokeLinecap="round"
              />
              {middle && (
                <title>
                  {pipe.id}
                  {watts !== undefined && `, ${wattsText(watts)} W`}
                </title>
              )}
              {wrong && middle && (
                <FaultMark x={px(middle)} y={middle.yMm + offset(pipe.index) - 8} words={wrong} />
              )}
            </g>
          );
        })}
        {order.slice(2).map((kind) => parts.filter((p) => p.kind === kind).map((p) => shape(p)))}
      </svg>
      {faults.length > 0 && (
        <ul className="text-[0.9rem] border-l-2 border-heat pl-2" aria-label="faults on the map">
          {faults.slice(0, 8).map((f) => (
            <li key={f.part + f.message}>
              <span className="figure text-heat">{f.part}</span>: {f.message}
            </li>
          ))}
        </ul>
      )}
    </section>
  );

  function shape(p: PlacedPart) {
    const x = px(p) - p.widthMm / 2;
    const y = p.yMm - p.depthMm / 2;
    const wrong = faultAt.get(p.id);
    const flow = p.kind === 'fan' ? flowOf(p.id) : undefined;
    return (
      <g key={p.id} {...handlers(p)}>
        {p.kind === 'fan' ? (
          <>
            <circle
              cx={px(p)}
              cy={p.yMm}
              r={p.widthMm / 2}
              fill="var(--color-base-100)"
              stroke="currentColor"
            />
            <circle cx={px(p)} cy={p.yMm} r={p.widthMm / 6} fill="none" stroke="currentColor" />
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
          x={px(p) < 26 ? 2 : px(p) > w - 26 ? w - 2 : px(p)}
          y={labelY(p, fontMm)}
          fontSize={fontMm}
          textAnchor={px(p) < 26 ? 'start' : px(p) > w - 26 ? 'end' : 'middle'}
          fill="currentColor"
          paintOrder="stroke"
          stroke="var(--color-base-100)"
          strokeWidth="2"
        >
          {p.id}
          {flow !== undefined && (
            <tspan x={px(p)} dy={1.2 * fontMm}>
              {flow.toFixed(1)} L/s
            </tspan>
          )}
        </text>
        {wrong && <FaultMark x={px(p) + p.widthMm / 2} y={y} words={wrong} />}
      </g>
    );
  }
}

/** Pipes between the same parts lie beside each other. */
const offset = (index: number) => ((index % 5) - 2) * 4.5;

function labelY(p: PlacedPart, fontMm: number): number {
  if (p.kind === 'die') return p.yMm - p.depthMm / 2 - 2.5;
  if (p.kind === 'vent' && p.yMm < 2) return -2.5;
  if (p.kind !== 'fan') return p.yMm + p.depthMm / 2 + 1.1 * fontMm;
  return p.yMm - 2;
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

function AirLine({
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

function FaultMark({ x, y, words }: { x: number; y: number; words: readonly string[] }) {
  return (
    <g>
      <title>{words.join('; ')}</title>
      <circle
        cx={x}
        cy={y}
        r="6"
        fill="var(--color-base-100)"
        stroke="var(--color-secondary)"
        strokeWidth="1.4"
      />
      <text
        x={x}
        y={y + 3}
        fontSize="9"
        fontWeight="700"
        textAnchor="middle"
        fill="var(--color-secondary)"
      >
        !
      </text>
    </g>
  );
}
