import type { CapEstimate, Readout } from '@zugluft/core/case/answer';
import { capWord, heldWords, shownW, splitWords, wattsText } from './words';

export const READOUTS = ['together', 'cpuAlone', 'gpuAlone'] as const;
export type ReadoutName = (typeof READOUTS)[number];
export const READOUT_WORDS: Record<ReadoutName, string> = {
  together: 'together',
  cpuAlone: 'CPU alone',
  gpuAlone: 'GPU alone',
};

/** CPU and GPU watts of both dies together, of what the cooling carries and of the machine as set. */
export interface Splits {
  carried: (watts: number) => { cpuW: number; gpuW: number };
  set: (watts: number) => { cpuW: number; gpuW: number };
}

/**
 * The noise ladder: one rung per cap, the loudest on top, each with the watts it sustains (the median of the draws), its band,
 * its split over the dies, which limit holds in how many draws, and as a thin rule where the machine's own settings stop
 * earlier.
 */
export function NoiseLadder({
  caps,
  readout,
  stale,
  provisional = false,
  splits = null,
  atLeastW = 10,
}: {
  caps: readonly CapEstimate[];
  readout: ReadoutName;
  stale: boolean;
  /** The bands are those of a moment ago, moved along. */
  provisional?: boolean;
  /** Where a machine has both dies: how watts together are shared out. */
  splits?: Splits | null;
  /** Watts that the scale reaches in any case, so that ladders beside each other share it. */
  atLeastW?: number;
}) {
  const rungs = [...caps].reverse();
  const of = (c: CapEstimate): Readout | null => c[readout];
  const most = Math.max(atLeastW, ...rungs.map((c) => of(c)?.p95 ?? of(c)?.watts ?? 0));
  const scale = Math.ceil(most / 20) * 20;
  const share = (watts: number) => `${(100 * Math.min(watts, scale)) / scale}%`;
  return (
    <ol
      aria-label="noise ladder"
      className={stale ? 'opacity-60' : ''}
      data-stale={stale || undefined}
      data-provisional={provisional || undefined}
    >
      {rungs.map((c) => {
        const r = of(c);
        const set = c.configured[readout];
        const w = r ? shownW(r) : 0;
        const cut = r && set && shownW(set) < w * 0.995 ? set : null;
        const parts = readout === 'together' && splits && r ? splits.carried(w) : null;
        const setParts = cut && readout === 'together' && splits ? splits.set(shownW(cut)) : null;
        return (
          <li
            key={String(c.cap)}
            className="grid grid-cols-[5.4rem_1fr_4.2rem] gap-x-2 py-1.5 items-center"
            data-cap={c.cap}
          >
            <span
              className={`whitespace-nowrap ${typeof c.cap === 'number' ? 'figure text-base' : 'text-[0.9rem]'}`}
            >
              {capWord(c.cap)} {typeof c.cap === 'number' && <span className="unit">dB(A)</span>}
            </span>
            <span className="relative h-3 block" aria-hidden>
              <span className="absolute inset-x-0 top-1/2 border-t border-rule" />
              {r && (
                <>
                  {r.p05 !== null && r.p95 !== null && (
                    <span
                      className={`absolute inset-y-0 ${provisional ? 'bg-heat/15' : 'bg-heat/25'}`}
                      style={{
                        left: share(r.p05),
                        width: `calc(${share(r.p95)} - ${share(r.p05)})`,
                      }}
                    />
                  )}
                  <span
                    className="absolute left-0 top-1/2 -mt-[1.5px] h-[3px] bg-heat transition-[width] duration-150"
                    style={{ width: share(w) }}
                  />
                  <span
                    className="absolute -inset-y-0.5 w-[2px] -ml-px bg-ink transition-[left] duration-150"
                    style={{ left: share(w) }}
                  />
                  {cut && (
                    <span
                      className="absolute -inset-y-0.5 border-l border-dotted border-ink"
                      style={{ left: share(shownW(cut)) }}
                    />
                  )}
                </>
              )}
            </span>
            <span className="figure text-lg text-right leading-none" data-testid={`watts-${c.cap}`}>
              {r ? wattsText(w) : '–'} <span className="unit">W</span>
            </span>
            {r && (
              <span className="col-start-2 col-span-2 text-small text-quiet leading-snug">
                {r.p05 !== null &&
                  r.p95 !== null &&
                  `${wattsText(r.p05)} to ${wattsText(r.p95)} W · `}
                {parts && `${splitWords(parts.cpuW, parts.gpuW)} · `}
                {w < 0.05 ? 'nothing left: ' : ''}
                {heldWords(r)}
                {cut && ` · set to ${wattsText(shownW(cut))} W`}
                {setParts && ` (${splitWords(setParts.cpuW, setParts.gpuW)})`}
                {c.note && ` · ${c.note.split(': ')[0]}`}
              </span>
            )}
          </li>
        );
      })}
    </ol>
  );
}
