import type { Band3 } from '@zugluft/core/verdict/bandWords';

const TONES = {
  computed: 'bg-heat/25',
  own: 'bg-heat/45',
  measured: 'bg-air/35',
} as const;

/** A band from 5 to 95 % with a stroke at the median, on a scale from nothing; what it shows stands beside it in words. */
export function BandBar({
  band,
  most,
  tone,
}: {
  band: Band3;
  /** Watts at the end of the scale. */
  most: number;
  tone: keyof typeof TONES;
}) {
  const at = (watts: number) => `${Math.min(100, Math.max(0, (100 * watts) / most))}%`;
  return (
    <span className="relative block h-3.5" aria-hidden>
      <span
        className={`absolute inset-y-0 ${TONES[tone]}`}
        style={{ left: at(band.p05), width: `calc(${at(band.p95)} - ${at(band.p05)})` }}
      />
      <span className="absolute inset-y-0 w-0.5 bg-ink" style={{ left: at(band.p50) }} />
    </span>
  );
}
