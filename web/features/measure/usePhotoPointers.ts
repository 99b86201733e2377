import { useRef, type PointerEvent } from 'react';
import type { PointPx } from '@zugluft/core/photo/point';
import { kept, toPhoto, toScreen, zoomed, type PhotoView } from './photoView';

/** A hand that moved less than this has clicked, px. */
const CLICK_PX = 5;
/** A finger takes what is this near, px; a mouse half as far. */
const TOUCH_PX = 24;

interface Pressed {
  x: number;
  y: number;
  startX: number;
  startY: number;
}

/** What the hand does on a photo: it clicks, drags a point or the photo, brings it nearer with two fingers or the wheel. */
export function usePhotoPointers({
  view,
  setView,
  size,
  pane,
  marking,
  pointAt,
  onMove,
  onClick,
  onDrag,
  onDropped,
}: {
  view: PhotoView;
  setView: (view: PhotoView) => void;
  size: readonly [number, number];
  pane: { width: number; height: number };
  /** Something is being marked: a finger then moves the cursor, and marks where it is lifted. */
  marking: boolean;
  /** Which point of what is marked lies at a place of the screen, if any. */
  pointAt: (screen: PointPx, withinPx: number) => boolean;
  onMove: (at: PointPx) => void;
  onClick: (at: PointPx, screen: PointPx, withinPx: number) => void;
  /** The point that was at the beginning of the drag is now here. */
  onDrag: (from: PointPx, at: PointPx, withinPx: number) => void;
  onDropped: () => void;
}) {
  const pressed = useRef(new Map<number, Pressed>());
  const drag = useRef<'point' | 'photo' | 'cursor' | 'two' | null>(null);
  const place = (e: PointerEvent): [number, number] => {
    const box = e.currentTarget.getBoundingClientRect();
    return [e.clientX - box.left, e.clientY - box.top];
  };
  const reach = (e: PointerEvent) => (e.pointerType === 'touch' ? TOUCH_PX : TOUCH_PX / 2);
  return {
    onPointerDown(e: PointerEvent) {
      if (e.button !== 0) return;
      const [x, y] = place(e);
      pressed.current.set(e.pointerId, { x, y, startX: x, startY: y });
      e.currentTarget.setPointerCapture(e.pointerId);
      if (pressed.current.size > 1) drag.current = 'two';
      else if (marking && e.pointerType === 'touch') {
        drag.current = 'cursor';
        onMove(toPhoto(view, [x, y]));
      } else drag.current = null;
    },
    onPointerMove(e: PointerEvent) {
      const [x, y] = place(e);
      const own = pressed.current.get(e.pointerId);
      if (!own) {
        if (marking && e.pointerType !== 'touch') onMove(toPhoto(view, [x, y]));
        return;
      }
      if (drag.current === null && Math.hypot(x - own.startX, y - own.startY) >= CLICK_PX) {
        drag.current = !marking && pointAt([own.startX, own.startY], reach(e)) ? 'point' : 'photo';
      }
      if (drag.current === 'two' && pressed.current.size === 2) {
        const other = [...pressed.current].find(([id]) => id !== e.pointerId)![1];
        const before = Math.hypot(own.x - other.x, own.y - other.y);
        const now = Math.hypot(x - other.x, y - other.y);
        const middle: PointPx = [(x + other.x) / 2, (y + other.y) / 2];
        const nearer = zoomed(view, now / Math.max(1, before), middle, size, pane);
        const [dx, dy] = [(x - own.x) / 2, (y - own.y) / 2];
        setView(
          kept(
            { ...nearer, left: nearer.left - dx / nearer.zoom, top: nearer.top - dy / nearer.zoom },
            size,
            pane,
          ),
        );
      } else if (drag.current === 'photo') {
        setView(
          kept(
            {
              ...view,
              left: view.left - (x - own.x) / view.zoom,
              top: view.top - (y - own.y) / view.zoom,
            },
            size,
            pane,
          ),
        );
      } else if (drag.current === 'point') {
        onDrag([own.startX, own.startY], toPhoto(view, [x, y]), reach(e));
      } else if (drag.current === 'cursor') onMove(toPhoto(view, [x, y]));
      pressed.current.set(e.pointerId, { ...own, x, y });
    },
    onPointerUp(e: PointerEvent) {
      const own = pressed.current.get(e.pointerId);
      pressed.current.delete(e.pointerId);
      if (!own) return;
      const screen = place(e);
      if (drag.current === null || drag.current === 'cursor') {
        onClick(toPhoto(view, screen), screen, reach(e));
      } else if (drag.current === 'point') onDropped();
      if (pressed.current.size === 0) drag.current = null;
    },
    onPointerCancel(e: PointerEvent) {
      pressed.current.delete(e.pointerId);
      if (drag.current === 'point') onDropped();
      drag.current = null;
    },
  };
}

/** Which point of several lies nearest to a place of the screen; null where none is near. */
export function nearestPoint(
  shapes: readonly { points: readonly PointPx[] }[],
  view: PhotoView,
  screen: PointPx,
  withinPx: number,
): { shape: number; point: number } | null {
  let best: { shape: number; point: number } | null = null;
  let nearest = withinPx;
  shapes.forEach(({ points }, shape) =>
    points.forEach((p, point) => {
      const [x, y] = toScreen(view, p);
      const far = Math.hypot(x - screen[0], y - screen[1]);
      if (far <= nearest) {
        nearest = far;
        best = { shape, point };
      }
    }),
  );
  return best;
}
