import { Kbd } from '../../kit/Kbd';
import { pointsWanted } from './marking';
import type { useMarking } from './useMarking';

/** What the hand can do next, for who has no keys. */
export function HandButtons({ hand }: { hand: ReturnType<typeof useMarking> }) {
  const { tool, points, held } = hand.marking;
  const enough = tool !== null && points.length >= pointsWanted(tool)[0];
  const button = 'btn btn-ghost btn-sm px-1.5 font-normal';
  return (
    <span className="flex flex-wrap items-center">
      {tool && (
        <button type="button" className={button} onClick={() => hand.acts.place()}>
          point <Kbd>Enter</Kbd>
        </button>
      )}
      {enough && (
        <button type="button" className={button} onClick={hand.end}>
          done <Kbd>d</Kbd>
        </button>
      )}
      {(tool ?? held) && (
        <button type="button" className={button} onClick={hand.back}>
          {points.length > 0 ? 'point back' : 'put down'} <Kbd>⌫</Kbd>
        </button>
      )}
      <button type="button" className={button} onClick={hand.toEdge}>
        to the edge <Kbd>s</Kbd>
      </button>
      <button type="button" className={button} onClick={hand.toPlace}>
        to a place <Kbd>g</Kbd>
      </button>
    </span>
  );
}
