import { useEffect, useState, type RefObject } from 'react';
import { cursorWords } from './cursorWords';
import type { RunLine } from './runLines';
import { PLOT } from './runPlotOption';

/** A line is silent where its nearest point is farther away than this share of what is shown. */
const REACH = 0.02;
/** Beyond this share of the width the words stand left of the cursor. */
const TURN_SHARE = 0.6;
/** Room beside the cursor, px. */
const BESIDE = 10;

/**
 * A cursor through all plots of a run with what they tell there. It lies over the drawing, so that nothing is drawn anew
 * while the hand moves.
 *
 * @param surface over which the hand moves
 * @param lines of the plots
 * @param shown the stretch of time that the plots show, s
 */
export function RunCursor({
  surface,
  lines,
  shown,
}: {
  surface: RefObject<HTMLElement | null>;
  lines: readonly RunLine[];
  shown: { fromS: number; toS: number };
}) {
  const [hand, setHand] = useState<{ x: number; y: number; width: number } | null>(null);
  useEffect(() => {
    const element = surface.current;
    if (!element) return;
    const move = (e: PointerEvent) => {
      const box = element.getBoundingClientRect();
      const width = box.width - PLOT.left - PLOT.right;
      const x = e.clientX - box.left - PLOT.left;
      // whoever drags reads no figures
      const drags = e.type === 'pointermove' && e.pointerType !== 'touch' && (e.buttons & 1) === 1;
      setHand(drags || x < 0 || x > width ? null : { x, y: e.clientY - box.top, width });
    };
    // a finger that is lifted still wants to read
    const leave = (e: PointerEvent) => e.pointerType !== 'touch' && setHand(null);
    element.addEventListener('pointermove', move);
    element.addEventListener('pointerdown', move);
    element.addEventListener('pointerup', move);
    element.addEventListener('pointerleave', leave);
    return () => {
      element.removeEventListener('pointermove', move);
      element.removeEventListener('pointerdown', move);
      element.removeEventListener('pointerup', move);
      element.removeEventListener('pointerleave', leave);
    };
  }, [surface]);
  if (!hand || hand.width <= 0) return null;
  const spanS = shown.toS - shown.fromS;
  const minutes = (shown.fromS + (hand.x / hand.width) * spanS) / 60;
  const words = cursorWords(lines, minutes, (REACH * spanS) / 60);
  if (words.length === 0) return null;
  const isLeft = hand.x > TURN_SHARE * hand.width;
  return (
    <div
      className="absolute inset-0 pointer-events-none overflow-hidden z-10"
      data-testid="run-cursor"
    >
      <div
        className="absolute top-[22px] bottom-6 border-l border-air"
        style={{ left: PLOT.left + hand.x }}
      />
      <ul
        className="absolute bg-base-100 border border-rule px-2 py-1 text-small whitespace-nowrap"
        style={{
          ...(isLeft
            ? { right: PLOT.right + hand.width - hand.x + BESIDE }
            : { left: PLOT.left + hand.x + BESIDE }),
          // the words stay within the chart
          top: `min(${Math.round(hand.y)}px, calc(100% - ${words.length * 1.5}em - 12px))`,
        }}
      >
        {words.map((w, i) => (
          <li key={i} className="leading-[1.5em]">
            {w}
          </li>
        ))}
      </ul>
    </div>
  );
}
