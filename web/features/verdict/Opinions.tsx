import { wattsText } from '@zugluft/core/case/answerWords';
import { bandText, type Band3 } from '@zugluft/core/verdict/bandWords';

/** One opinion on the watts at a cap. */
export interface Opinion {
  name: string;
  note: string;
  band: Band3 | null;
  isMeasured?: boolean;
}

/** Opinions under each other on one scale: a band from 5 to 95 %, a stroke at the median. */
export function Opinions({ opinions, most }: { opinions: readonly Opinion[]; most: number }) {
  const at = (watts: number) => `${Math.min(100, Math.max(0, (100 * watts) / most))}%`;
  return (
    <ul className="space-y-2">
      {opinions.map(({ name, note, band, isMeasured }) => (
        <li key={name} className="grid grid-cols-[5.5rem_minmax(0,1fr)_3rem] gap-x-3 items-center">
          <span>{name}</span>
          <span className="relative h-4" aria-hidden>
            <span className="absolute inset-x-0 top-1/2 border-t border-rule" />
            {band && (
              <>
                <span
                  className={`absolute inset-y-0.5 ${isMeasured ? 'bg-air/30' : 'bg-heat/25'}`}
                  style={{ left: at(band.p05), width: `calc(${at(band.p95)} - ${at(band.p05)})` }}
                />
                <span className="absolute inset-y-0 w-0.5 bg-ink" style={{ left: at(band.p50) }} />
              </>
            )}
          </span>
          <span className="figure text-right" title={band ? bandText(band) : undefined}>
            {band ? wattsText(band.p50) : '–'}
          </span>
          <span className="col-start-2 col-span-2 text-small text-quiet">
            {band ? `${bandText(band)} W, ${note}` : note}
          </span>
        </li>
      ))}
    </ul>
  );
}
