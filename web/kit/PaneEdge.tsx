import { useRef } from 'react';

const STEP_PX = 16;

/** The lower edge of a pane, dragged or moved with the arrow keys. */
export function PaneEdge({
  label,
  height,
  min,
  max,
  set,
}: {
  label: string;
  /** Of the pane, px. */
  height: number;
  min: number;
  max: number;
  set: (px: number) => void;
}) {
  const from = useRef<{ y: number; height: number } | null>(null);
  return (
    <div
      role="separator"
      aria-orientation="horizontal"
      aria-label={label}
      aria-valuenow={height}
      aria-valuemin={min}
      aria-valuemax={max}
      tabIndex={0}
      title="drag, or arrow keys, for its height"
      className="h-2.5 -mb-1.5 cursor-row-resize touch-none border-b border-ink relative group"
      onPointerDown={(e) => {
        e.currentTarget.setPointerCapture(e.pointerId);
        from.current = { y: e.clientY, height };
      }}
      onPointerMove={(e) => {
        if (from.current) set(from.current.height + e.clientY - from.current.y);
      }}
      onPointerUp={() => {
        from.current = null;
      }}
      onKeyDown={(e) => {
        const by = e.key === 'ArrowDown' ? STEP_PX : e.key === 'ArrowUp' ? -STEP_PX : 0;
        if (!by) return;
        e.preventDefault();
        e.stopPropagation();
        set(height + by);
      }}
    >
      <span
        aria-hidden
        className="absolute left-1/2 -translate-x-1/2 bottom-1 w-10 border-t border-b border-rule h-1 group-hover:border-ink"
      />
    </div>
  );
}
