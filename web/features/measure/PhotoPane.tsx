import {
  useEffect,
  useMemo,
  useRef,
  useState,
  type CSSProperties,
  type KeyboardEvent,
} from 'react';
import { Maximize, ZoomIn, ZoomOut } from 'lucide-react';
import type { KeptMeasures } from '@zugluft/core/photo/measureKept';
import { pointsOf } from '@zugluft/core/photo/knownThings';
import type { PhotoMarks } from '@zugluft/core/photo/photoMarks';
import type { PointPx } from '@zugluft/core/photo/point';
import type { Proposal } from '../../api/measuring';
import type { Attachment } from '../../api/attachments';
import { arrowStep } from '../../kit/plan/arrowStep';
import { MarkLayer } from './MarkLayer';
import { askOf, HUNDRED, PIXEL, TEN, within, type Held, type Marking } from './marking';
import { Magnifier, PhotoLayers } from './PhotoLayers';
import { fitted, follow, kept, zoomed, type PhotoView } from './photoView';
import { nearestPoint, usePhotoPointers } from './usePhotoPointers';

const ZOOM_STEP = 1.4;

/** What the hand does on a photo, told to whoever keeps the marks. */
export interface PaneActs {
  /** The cursor goes there, or the point that is held. */
  moveTo: (at: PointPx) => void;
  /** A point here. */
  place: (at?: PointPx) => void;
  hold: (held: Held | null) => void;
  /** The held point is dragged there. */
  drag: (held: Held, at: PointPx) => void;
  /** A key that is none of the photo's own; true where it did something. */
  key: (e: KeyboardEvent) => boolean;
}

/** The photo with its marks: moved, brought nearer, marked by keys, mouse or finger. */
export function PhotoPane({
  photo,
  marks,
  measures,
  marking,
  proposals,
  acts,
  focus,
}: {
  photo: Attachment;
  marks: PhotoMarks;
  measures: KeptMeasures;
  marking: Marking;
  /** Found by themselves; the first is offered. */
  proposals: readonly Proposal[];
  acts: PaneActs;
  /** Counts up whenever the pane is to have the keys. */
  focus: number;
}) {
  const frame = useRef<HTMLDivElement>(null);
  const [pane, setPane] = useState({ width: 600, height: 400 });
  const size = useMemo(() => [photo.widthPx!, photo.heightPx!] as const, [photo]);
  const [own, setView] = useState<PhotoView | null>(null);
  const [failed, setFailed] = useState(false);
  const view = own ?? fitted(size, pane);
  useEffect(() => {
    const element = frame.current!;
    const seen = new ResizeObserver(() =>
      setPane({ width: element.clientWidth, height: element.clientHeight }),
    );
    seen.observe(element);
    return () => seen.disconnect();
  }, []);
  useEffect(() => {
    frame.current?.focus({ preventScroll: true });
  }, [focus]);
  // a wheel that zooms must not scroll the page: React listens to it passively
  const wheel = useRef<(e: WheelEvent) => void>(() => undefined);
  useEffect(() => {
    wheel.current = (e) => {
      e.preventDefault();
      const box = frame.current!.getBoundingClientRect();
      const at: PointPx = [e.clientX - box.left, e.clientY - box.top];
      setView(zoomed(view, Math.exp(-e.deltaY / 400), at, size, pane));
    };
  });
  useEffect(() => {
    const element = frame.current!;
    const listen = (e: WheelEvent) => wheel.current(e);
    element.addEventListener('wheel', listen, { passive: false });
    return () => element.removeEventListener('wheel', listen);
  }, []);

  const shapes = [
    ...marks.references.map((r, index) => ({
      list: 'references' as const,
      index,
      points: pointsOf(r.item),
    })),
    ...marks.marks.map((m, index) => ({ list: 'marks' as const, index, points: m.mark.points })),
  ];
  const heldAt = (screen: PointPx, withinPx: number): Held | null => {
    const found = nearestPoint(shapes, view, screen, withinPx);
    if (!found) return null;
    const { list, index } = shapes[found.shape]!;
    return { list, index, point: found.point };
  };
  const dragged = useRef<Held | null>(null);
  const pointers = usePhotoPointers({
    view,
    setView,
    size,
    pane,
    marking: marking.tool !== null,
    pointAt: (screen, withinPx) => (dragged.current = heldAt(screen, withinPx)) !== null,
    onMove: (at) => acts.moveTo(within(at, size)),
    onClick: (at, screen, withinPx) => {
      frame.current?.focus({ preventScroll: true });
      if (marking.tool) acts.place(within(at, size));
      else {
        const hit = heldAt(screen, withinPx);
        acts.hold(hit);
        if (!hit) acts.moveTo(within(at, size));
      }
    },
    onDrag: (_from, at) => dragged.current && acts.drag(dragged.current, within(at, size)),
    onDropped: () => (dragged.current = null),
  });

  const look = (factor: number) => {
    const at: PointPx = [
      (marking.cursor[0] - view.left) * view.zoom,
      (marking.cursor[1] - view.top) * view.zoom,
    ];
    const near = zoomed(view, factor, at, size, pane);
    setView(follow(near, marking.cursor, size, pane));
  };
  const onKeyDown = (e: KeyboardEvent) => {
    const by = e.ctrlKey || e.metaKey ? HUNDRED : PIXEL;
    const move = e.altKey ? null : arrowStep(e, by, TEN);
    if (move) {
      const at = within([marking.cursor[0] + move[0], marking.cursor[1] + move[1]], size);
      acts.moveTo(at);
      setView(follow(view, at, size, pane));
    } else if (!e.ctrlKey && !e.metaKey && !e.altKey && '+=-0'.includes(e.key)) {
      if (e.key === '0') setView(null);
      else look(e.key === '-' ? 1 / ZOOM_STEP : ZOOM_STEP);
    } else if (!acts.key(e)) return;
    e.preventDefault();
    e.stopPropagation();
  };
  const button = 'btn btn-ghost btn-sm px-1.5';
  return (
    <div className="relative border border-rule bg-base-200">
      <div
        ref={frame}
        tabIndex={0}
        role="application"
        aria-label="photo: arrows move the cursor by a pixel, Shift by ten, Ctrl by a hundred; Enter sets a point"
        data-testid="photo-pane"
        data-cursor={marking.cursor.map((x) => x.toFixed(2)).join(' ')}
        className={`relative overflow-hidden lg:h-[min(52vh,30rem)] max-lg:max-h-[60vh] max-lg:aspect-(--photo) touch-none focus:outline-2 outline-air ${marking.tool ? 'cursor-crosshair' : 'cursor-grab'}`}
        style={{ '--photo': `${size[0]} / ${size[1]}` } as CSSProperties}
        onKeyDown={onKeyDown}
        {...pointers}
      >
        {failed ? (
          <p className="p-4 text-heat" role="alert">
            The photo could not be read from the server.{' '}
            <button
              type="button"
              className="underline cursor-pointer"
              onClick={() => setFailed(false)}
            >
              Try again
            </button>
          </p>
        ) : (
          <>
            <PhotoLayers photo={photo} view={view} pane={pane} failed={() => setFailed(true)} />
            <MarkLayer
              marks={marks}
              measures={measures}
              marking={marking}
              proposals={proposals}
              wide={pane.width}
              view={view}
            />
            {(marking.tool ?? (marking.held && marking.held.point !== null)) && (
              <Magnifier photo={photo} cursor={marking.cursor} view={view} pane={pane} />
            )}
          </>
        )}
      </div>
      <div className="absolute bottom-1 right-1 flex bg-base-100/85 rounded-sm">
        <button
          type="button"
          className={button}
          aria-label="nearer"
          title="key +"
          onClick={() => look(ZOOM_STEP)}
        >
          <ZoomIn size={16} aria-hidden />
        </button>
        <button
          type="button"
          className={button}
          aria-label="farther"
          title="key -"
          onClick={() => look(1 / ZOOM_STEP)}
        >
          <ZoomOut size={16} aria-hidden />
        </button>
        <button
          type="button"
          className={button}
          aria-label="the whole photo"
          title="key 0"
          onClick={() => setView(kept(fitted(size, pane), size, pane))}
        >
          <Maximize size={16} aria-hidden />
        </button>
      </div>
      <p className="sr-only" aria-live="polite">
        {askOf(marking)}
      </p>
    </div>
  );
}
