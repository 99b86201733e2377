import { wattsText } from '@zugluft/core/case/answerWords';
import { BandBar } from '../../documents/answer/BandBar';
import { bandText, type Band3 } from '@zugluft/core/verdict/bandWords';

/** One opinion on the watts at a cap. */
export interface Opinion {
  name: string;
  note: string;
  band: Band3 | null;
  /** Where it has no band of its own. */
  watts?: number;
  isMeasured?: boolean;
}

/** Opinions under each other on one scale: a band from 5 to 95 %, a stroke at the median. */
export function Opinions({ opinions, most }: { opinions: readonly Opinion[]; most: number }) {
  return (
    <ul className="space-y-2">
      {opinions.map(({ name, note, band, watts, isMeasured }, i) => (
        <li key={i} className="grid grid-cols-[5.5rem_minmax(0,1fr)_3rem] gap-x-3 items-center">
          <span>{name}</span>
          {band ? (
            <BandBar band={band} most={most} tone={isMeasured ? 'measured' : 'computed'} />
          ) : (
            <span className="relative border-t border-rule" aria-hidden>
              {watts !== undefined && (
                <span
                  className="absolute -top-2 h-4 w-0.5 bg-ink"
                  style={{ left: `${(100 * watts) / most}%` }}
                />
              )}
            </span>
          )}
          <span className="figure text-right" title={band ? bandText(band) : undefined}>
            {band ? wattsText(band.p50) : watts === undefined ? '–' : wattsText(watts)}
          </span>
          <span className="col-start-2 col-span-2 text-small text-quiet">
            {band ? `${bandText(band)} W, ${note}` : note}
          </span>
        </li>
      ))}
    </ul>
  );
}
