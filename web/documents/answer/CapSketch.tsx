import { bandColumn, wattsColumn, type MachineSummary } from '@zugluft/core/library/answers';
import type { Cap } from '@zugluft/core/envelope/fanStates';
import { capWord, wattsText } from '@zugluft/core/case/answerWords';

const WIDTH = 92;
const HEIGHT = 26;
const BAR_GAP = 2;

interface Bar {
  cap: Cap;
  watts: number | null;
  low: number | null;
  high: number | null;
}

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
  const bars = caps.map((c): Bar => ({
    cap: c,
    watts: m[wattsColumn(c)] ?? null,
    low: m[bandColumn(c, 'P05')] ?? null,
    high: m[bandColumn(c, 'P95')] ?? null,
  }));
  const at = (watts: number) => HEIGHT - (HEIGHT * Math.min(watts, mostW)) / mostW;
  if (bars.every((b) => b.watts === null)) return <span className="text-quiet">–</span>;
  const wide = WIDTH / bars.length;
  // a path for all bars and one for all bands: thousands of rows scroll past
  const bar = ({ watts }: Bar, i: number) => {
    if (watts === null) return '';
    const top = Math.min(HEIGHT - 1, at(watts)).toFixed(1);
    return `M${(i * wide + BAR_GAP / 2).toFixed(1)} ${HEIGHT}V${top}h${(wide - BAR_GAP).toFixed(1)}V${HEIGHT}Z`;
  };
  const band = ({ watts, low, high }: Bar, i: number) =>
    watts === null || low === null || high === null
      ? ''
      : `M${((i + 0.5) * wide).toFixed(1)} ${at(low).toFixed(1)}V${at(high).toFixed(1)}`;
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
      <path d={`M0 ${HEIGHT - 0.5}H${WIDTH}`} stroke="var(--color-base-300)" />
      <path
        d={bars.map(bar).join('')}
        fill="currentColor"
        fillOpacity={m.wattsPending ? 0.15 : 0.35}
      />
      <path
        d={bars.map((b, i) => (b.cap === cap ? bar(b, i) : '')).join('')}
        fill="var(--color-secondary)"
      />
      <path d={bars.map(band).join('')} stroke="currentColor" />
    </svg>
  );
}
