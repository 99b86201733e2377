import { bandColumn, wattsColumn, type MachineSummary } from '@zugluft/core/library/answers';
import type { Cap } from '@zugluft/core/envelope/fanStates';
import { capWord, wattsText } from '../../documents/answer/words';

const WIDTH = 92;
const HEIGHT = 26;
const BAR_GAP = 2;

/** A machine's watts over the caps as a small drawing: a bar for each with its band, from the quietest to full speed. */
export function CapSketch({
  m,
  caps,
  cap,
  mostW,
}: {
  m: MachineSummary;
  caps: readonly Cap[];
  /** The one whose watts stand beside it. */
  cap: Cap;
  /** Watts as high as the drawing, the same in all rows. */
  mostW: number;
}) {
  const bars = caps.map((c) => ({
    cap: c,
    watts: m[wattsColumn(c)] ?? null,
    low: m[bandColumn(c, 'P05')] ?? null,
    high: m[bandColumn(c, 'P95')] ?? null,
  }));
  const at = (watts: number) => HEIGHT - (HEIGHT * Math.min(watts, mostW)) / mostW;
  if (bars.every((b) => b.watts === null)) return <span className="text-quiet">–</span>;
  const wide = WIDTH / bars.length;
  const words = bars
    .map(
      (b) =>
        `${capWord(b.cap)}${typeof b.cap === 'number' ? ' dB(A)' : ''} ${b.watts === null ? 'not known' : `${wattsText(b.watts)} W`}`,
    )
    .join(', ');
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      width={WIDTH}
      height={HEIGHT}
      role="img"
      aria-label={`watts over the caps: ${words}`}
      className="inline-block align-middle"
    >
      <line x1="0" x2={WIDTH} y1={HEIGHT - 0.5} y2={HEIGHT - 0.5} stroke="var(--color-base-300)" />
      {bars.map(({ cap: c, watts, low, high: top }, i) => {
        if (watts === null) return null;
        const high = Math.max(1, (HEIGHT * Math.min(watts, mostW)) / mostW);
        return (
          <g key={String(c)}>
            <rect
              x={i * wide + BAR_GAP / 2}
              y={HEIGHT - high}
              width={wide - BAR_GAP}
              height={high}
              fill={c === cap ? 'var(--color-secondary)' : 'currentColor'}
              fillOpacity={c === cap ? 1 : m.wattsPending ? 0.15 : 0.35}
            />
            {low !== null && top !== null && (
              <line
                x1={(i + 0.5) * wide}
                x2={(i + 0.5) * wide}
                y1={at(low)}
                y2={at(top)}
                stroke="currentColor"
                strokeWidth="1"
              />
            )}
          </g>
        );
      })}
    </svg>
  );
}
