import type { Measured } from '@zugluft/core/photo/measureMarks';

const WIDTH = 640;
const HEIGHT = 64;

/** Light along a line across fins, a tick for every fin that was counted. */
export function FinProfile({ measured: { profile = [], ticks = [] } }: { measured: Measured }) {
  const most = Math.max(...profile, 1e-6);
  const x = (share: number) => share * WIDTH;
  const line = profile
    .map(
      (v, i) =>
        `${x((i + 0.5) / profile.length).toFixed(1)} ${(HEIGHT - 10 - (v / most) * (HEIGHT - 16)).toFixed(1)}`,
    )
    .join('L');
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      preserveAspectRatio="none"
      className="w-full h-16"
      role="img"
      aria-label={`light along the line, ${ticks.length} fins ticked`}
    >
      <path
        d={`M${line}`}
        fill="none"
        stroke="currentColor"
        strokeWidth={1}
        vectorEffect="non-scaling-stroke"
      />
      {ticks.map((t, i) => (
        <path
          key={i}
          d={`M${x(t.share).toFixed(1)} ${HEIGHT - 8}v8`}
          stroke={t.is === 'seen' ? 'var(--color-primary)' : 'var(--color-secondary)'}
          strokeWidth={t.is === 'seen' ? 1.5 : 2.5}
          strokeDasharray={t.is === 'missing' ? '2 2' : undefined}
          vectorEffect="non-scaling-stroke"
        />
      ))}
    </svg>
  );
}
