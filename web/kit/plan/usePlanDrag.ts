import { useState, type PointerEvent, type RefObject } from 'react';
import { planPoint } from './planPoint';

interface Held {
  id: string;
  fromX: number;
  fromY: number;
  x: number;
  y: number;
  moved: boolean;
}

/** A hand is never quite still. */
const STILL = 3;

/**
 * Things on a plan that are dragged. One that was hardly moved was clicked.
 *
 * @param svg the plan
 * @param drop told how far a thing was dragged, in the plan's measure
 * @param click told of a thing that was pressed and let go where it is
 */
export function usePlanDrag(
  svg: RefObject<SVGSVGElement | null>,
  drop: (id: string, dx: number, dy: number) => void,
  click: (id: string) => void,
) {
  const [held, setHeld] = useState<Held | null>(null);
  return {
    /** How far a thing is dragged now. */
    draggedBy(id: string): readonly [number, number] {
      if (held?.id !== id || !held.moved) return [0, 0];
      return [held.x - held.fromX, held.y - held.fromY];
    },

    /** What a thing on the plan listens to. */
    handlers: (id: string) => ({
      onPointerDown(e: PointerEvent<Element>) {
        e.stopPropagation();
        e.currentTarget.setPointerCapture(e.pointerId);
        const at = planPoint(svg.current, e);
        if (at) setHeld({ id, fromX: at.x, fromY: at.y, x: at.x, y: at.y, moved: false });
      },
      onPointerMove(e: PointerEvent<Element>) {
        const at = held?.id === id ? planPoint(svg.current, e) : null;
        if (!held || !at) return;
        const far = Math.hypot(at.x - held.fromX, at.y - held.fromY) > STILL;
        setHeld({ ...held, x: at.x, y: at.y, moved: held.moved || far });
      },
      onPointerUp() {
        if (held?.id !== id) return;
        setHeld(null);
        if (held.moved) drop(id, held.x - held.fromX, held.y - held.fromY);
        else click(id);
      },
      onPointerCancel: () => setHeld(null),
    }),
  };
}
