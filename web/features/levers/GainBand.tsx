import type { Gain } from '@zugluft/core/levers/leverGains';

const WIDTH = 130;
const HEIGHT = 18;
const PAD = 3;

/** A difference of watts: nothing as a thin upright, the band as a bar, the median as a thick upright. */
export function GainBand({ gain, least, reach }: { gain: Gain; least: number; reach: number }) {
  const at = (w: number) => PAD + ((w - least) / (reach - least)) * (WIDTH - 2 * PAD);
  const { p05, p50, p95 } = gain;
  return (
    <svg
      width={WIDTH}
      height={HEIGHT}
      role="img"
      aria-label={`${p05.toFixed(1)} to ${p95.toFixed(1)} W, middle ${p50.toFixed(1)} W`}
    >
      <line x1={PAD} x2={WIDTH - PAD} y1={9} y2={9} className="stroke-rule" />
      <line x1={at(0)} x2={at(0)} y1={2} y2={16} className="stroke-ink" strokeWidth={1} />
      <rect
        x={at(p05)}
        y={5}
        width={Math.max(1, at(p95) - at(p05))}
        height={8}
        fill="var(--color-secondary)"
        opacity={0.35}
      />
      <line x1={at(p50)} x2={at(p50)} y1={2} y2={16} className="stroke-ink" strokeWidth={2.5} />
    </svg>
  );
}
