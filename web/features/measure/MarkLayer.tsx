import type { PhotoMarks } from '@zugluft/core/photo/photoMarks';
import type { Proposal } from '../../api/measuring';
import type { KeptMeasures } from '@zugluft/core/photo/measureKept';
import { fitCircle } from '@zugluft/core/photo/fitCircle';
import { pointsOf } from '@zugluft/core/photo/knownThings';
import type { PointPx } from '@zugluft/core/photo/point';
import { toScreen, type PhotoView } from './photoView';
import type { Held, Marking } from './marking';
import { measureText } from './measureWords';
import { placeLabels } from './placeLabels';

/** Kinds whose points go round. */
const CLOSED: ReadonlySet<string> = new Set(['area', 'openShare', 'rectangle', 'circle']);

/** Something drawn over a photo. */
interface Drawn {
  key: string;
  kind: string;
  points: readonly PointPx[];
  held: Held | null;
  label: string;
  dashed?: boolean;
  opacity?: number;
  found?: readonly PointPx[] | undefined;
}

const IN_HAND: Held = { list: 'marks', index: -1, point: null };

/** Marks and references over a photo, as thick at every size of it; each named where its name finds room. */
export function MarkLayer({
  marks,
  measures,
  marking,
  proposals,
  view,
  wide,
}: {
  marks: PhotoMarks;
  measures: KeptMeasures;
  marking: Marking;
  proposals: readonly Proposal[];
  view: PhotoView;
  /** Of the pane, px. */
  wide: number;
}) {
  const { held, tool, points, cursor } = marking;
  const heldOf = (list: Held['list'], index: number) =>
    held?.list === list && held.index === index ? held : null;
  const shapes: Drawn[] = [
    // a lens lies nowhere in the picture
    ...marks.references.flatMap(({ id, item }, i) =>
      item.kind === 'lens'
        ? []
        : {
            key: `reference ${id}`,
            kind: item.kind,
            points: pointsOf(item),
            held: heldOf('references', i),
            label: `reference ${i + 1}`,
            dashed: true,
          },
    ),
    ...marks.marks.map(({ id, mark }, i) => ({
      key: `mark ${id}`,
      kind: mark.kind,
      points: mark.points,
      held: heldOf('marks', i),
      label: [id, measureText(measures.marks[i])].filter(Boolean).join(' · '),
      found: measures.marks[i]?.found,
    })),
    ...proposals.map(({ kind, points: at, reads }, i) => ({
      key: `p${i}`,
      kind,
      points: at,
      held: i === 0 ? IN_HAND : null,
      label: i === 0 ? `${measureText(reads)}?` : '',
      found: reads.found,
      dashed: true,
      opacity: i === 0 ? 0.85 : 0.45,
    })),
  ];
  if (tool && points.length > 0) {
    const kind = tool.as === 'mark' ? tool.kind : tool.thing.kind;
    shapes.push({ key: 'new', kind, points: [...points, cursor], held: IN_HAND, label: '' });
  }
  // what is held is named first, the others where there is room
  const named = [...shapes].sort((a, b) => Number(b.held !== null) - Number(a.held !== null));
  const labels = placeLabels(
    named.map(({ label, points: at }) => {
      const [x, y] = at.map((p) => toScreen(view, p)).reduce((a, b) => (b[1] < a[1] ? b : a));
      return { text: label, x: x + 7, y: y - 7 };
    }),
    wide,
  );
  return (
    <svg className="absolute inset-0 size-full pointer-events-none" aria-hidden data-marks>
      {shapes.map(({ key, ...shape }) => (
        <Shape key={key} {...shape} view={view} />
      ))}
      {labels.map(
        (l, i) =>
          l && (
            <text
              key={named[i]!.key}
              x={l.x}
              y={l.y}
              className="figure"
              fontSize={12}
              fill="#14201b"
              stroke="#fff"
              strokeWidth={3.5}
              paintOrder="stroke"
            >
              {l.text}
            </text>
          ),
      )}
      <Cursor at={toScreen(view, cursor)} />
    </svg>
  );
}

/** The circle through points on a screen; the points themselves while they are of none. */
function roundOf(at: readonly (readonly [number, number])[]): (readonly [number, number])[] {
  const circle = at.length > 2 ? fitCircle(at) : null;
  if (!circle) return [...at];
  return Array.from({ length: 48 }, (_, i) => {
    const turn = (2 * Math.PI * i) / 48;
    return [circle.x + circle.radius * Math.cos(turn), circle.y + circle.radius * Math.sin(turn)];
  });
}

function Cursor({ at: [x, y] }: { at: readonly [number, number] }) {
  const arms = `M${x - 12} ${y}h8m8 0h8M${x} ${y - 12}v8m0 8v8`;
  return (
    <g fill="none" data-cursor>
      <path d={arms} stroke="#fff" strokeWidth={4} opacity={0.75} />
      <path d={arms} stroke="#14201b" strokeWidth={1.5} />
    </g>
  );
}

function Shape({
  kind,
  points,
  view,
  held,
  dashed = false,
  opacity = 1,
  found = [],
}: Omit<Drawn, 'key' | 'label'> & { view: PhotoView }) {
  const at = points.map((p) => toScreen(view, p));
  if (at.length === 0) return null;
  // a rim is drawn as it was found, else by the circle through its points
  const rim =
    kind === 'circle' ? (found.length > 0 ? found.map((p) => toScreen(view, p)) : roundOf(at)) : at;
  const line = `M${rim.map(([x, y]) => `${x.toFixed(1)} ${y.toFixed(1)}`).join('L')}${CLOSED.has(kind) && rim.length > 2 ? 'Z' : ''}`;
  const ink = held ? 'var(--color-primary)' : '#14201b';
  return (
    <g fill="none" strokeLinejoin="round" strokeLinecap="round" opacity={opacity}>
      <path d={line} stroke="#fff" strokeWidth={held ? 5 : 4} opacity={0.8} />
      <path
        d={line}
        stroke={ink}
        strokeWidth={held ? 2.5 : 1.5}
        strokeDasharray={dashed ? '6 4' : undefined}
      />
      {kind !== 'circle' &&
        found.map((p, i) => {
          const [x, y] = toScreen(view, p);
          return (
            <circle
              key={i}
              cx={x}
              cy={y}
              r={2.2}
              fill="var(--color-primary)"
              stroke="#fff"
              strokeWidth={0.8}
            />
          );
        })}
      {at.map(([x, y], i) => (
        <circle
          key={i}
          cx={x}
          cy={y}
          r={held?.point === i ? 6 : held ? 4.5 : 3}
          fill={held?.point === i ? 'var(--color-primary)' : '#fff'}
          stroke={ink}
          strokeWidth={1.5}
        />
      ))}
    </g>
  );
}
