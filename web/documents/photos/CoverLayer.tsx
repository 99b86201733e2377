import { useRef, useState, type PointerEvent } from 'react';
import type { Cover } from '@zugluft/core/library/attachment';
import { boxBetween, growBox, moveBox } from './coverBox';

const STEP = 0.01;

type Drag =
  | { kind: 'draw'; from: [number, number]; to: [number, number] }
  | { kind: 'move'; index: number; from: [number, number]; box: Cover; now: Cover };

/**
 * Boxes over a photo that hide a serial number or a face: drawn with the pointer, or moved by arrow keys, made larger with
 * Shift, removed with Delete.
 */
export function CoverLayer({
  covers,
  change,
  chosen,
  choose,
}: {
  covers: readonly Cover[];
  change: (next: Cover[]) => void;
  chosen: number | null;
  choose: (index: number | null) => void;
}) {
  const layer = useRef<HTMLDivElement>(null);
  const [drag, setDrag] = useState<Drag | null>(null);
  const place = (e: PointerEvent): [number, number] => {
    const r = layer.current!.getBoundingClientRect();
    return [(e.clientX - r.left) / r.width, (e.clientY - r.top) / r.height];
  };
  const swap = (index: number, box: Cover) => change(covers.map((c, i) => (i === index ? box : c)));
  const drawn = drag?.kind === 'draw' ? boxBetween(drag.from, drag.to) : null;
  return (
    <div
      ref={layer}
      className="absolute inset-0 cursor-crosshair touch-none"
      data-testid="cover-layer"
      onPointerDown={(e) => {
        if (e.button !== 0) return;
        e.currentTarget.setPointerCapture(e.pointerId);
        const at = place(e);
        const index = Number((e.target as HTMLElement).dataset['cover'] ?? -1);
        const box = covers[index];
        choose(box ? index : null);
        setDrag(
          box
            ? { kind: 'move', index, from: at, box, now: box }
            : { kind: 'draw', from: at, to: at },
        );
      }}
      onPointerMove={(e) => {
        if (!drag) return;
        const at = place(e);
        setDrag(
          drag.kind === 'draw'
            ? { ...drag, to: at }
            : { ...drag, now: moveBox(drag.box, at[0] - drag.from[0], at[1] - drag.from[1]) },
        );
      }}
      onPointerUp={() => {
        if (drawn) {
          change([...covers, drawn]);
          choose(covers.length);
        }
        if (drag?.kind === 'move' && drag.now !== drag.box) swap(drag.index, drag.now);
        setDrag(null);
      }}
      onPointerCancel={() => setDrag(null)}
    >
      {covers.map((c, i) => (
        <button
          key={i}
          type="button"
          data-cover={i}
          aria-label={`box ${i + 1}: arrows move it, Shift and arrows make it larger or smaller, Delete removes it`}
          className={`absolute bg-[#14201b] cursor-move ${chosen === i ? 'outline-2 outline-offset-2 outline-air' : ''}`}
          style={styleOf(drag?.kind === 'move' && drag.index === i ? drag.now : c)}
          onFocus={() => choose(i)}
          onKeyDown={(e) => {
            const [dx, dy] =
              { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[
                e.key
              ] ?? [];
            if (dx !== undefined && dy !== undefined) {
              swap(i, (e.shiftKey ? growBox : moveBox)(c, dx * STEP, dy * STEP));
            } else if (e.key === 'Delete' || e.key === 'Backspace') {
              change(covers.filter((_, k) => k !== i));
              choose(null);
            } else return;
            e.preventDefault();
            e.stopPropagation();
          }}
        />
      ))}
      {drawn && (
        <div className="absolute bg-[#14201b]/80 pointer-events-none" style={styleOf(drawn)} />
      )}
    </div>
  );
}

const styleOf = ([x, y, w, h]: Cover) => ({
  left: `${x * 100}%`,
  top: `${y * 100}%`,
  width: `${w * 100}%`,
  height: `${h * 100}%`,
});
