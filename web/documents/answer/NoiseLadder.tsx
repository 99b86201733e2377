import type { CapEstimate, Readout } from '@zugluft/core/case/answer';
import type { StoredBand } from '@zugluft/core/uncertainty/storedBands';
import type { Cap } from '@zugluft/core/envelope/fanStates';
import type { ReactNode } from 'react';
import type { Overlay } from './overlay';
import { marksByRung, markWatts, type RunMark } from './runMarks';
import { capWord, heldWords, shownW, splitWords, wattsText } from '@zugluft/core/case/answerWords';

/** Watts with the decimals that their ± supports. */
function measuredText(m: RunMark): string {
  const { watts, plusMinus } = markWatts(m);
  const decimals = plusMinus < 1 ? 1 : 0;
  return `${watts.toFixed(decimals)} ± ${plusMinus.toFixed(decimals)}`;
}

const NO_MARKS: readonly RunMark[] = [];

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
  marks = NO_MARKS,
  over = null,
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
  /** What runs sustained. */
  marks?: readonly RunMark[];
  /** What a change would add to the watts shown. */
  over?: Overlay | null;
}) {
  const measured = marksByRung(marks, caps, readout);
  const rungs = [...caps].reverse();
  const of = (c: CapEstimate): Readout | null => c[readout];
  const scale = scaleOf([
    atLeastW,
    ...rungs.map((c) => of(c)?.p95 ?? of(c)?.watts ?? 0),
    ...[...measured.values()].flat().map((m) => markWatts(m).watts),
    ...rungs.map((c) => (of(c) ? shownW(of(c)!) + (over?.gainedW.get(c.cap) ?? 0) : 0)),
  ]);
  return (
    <Ladder stale={stale} provisional={provisional}>
      {rungs.map((c) => {
        const r = of(c);
        const set = c.configured[readout];
        const w = r ? shownW(r) : 0;
        const cut = r && set && shownW(set) < w * 0.995 ? set : null;
        const gained = over?.gainedW.get(c.cap);
        const parts = readout === 'together' && splits && r ? splits.carried(w) : null;
        const setParts = cut && readout === 'together' && splits ? splits.set(shownW(cut)) : null;
        return (
          <Rung
            key={String(c.cap)}
            cap={c.cap}
            watts={r ? w : null}
            band={r && r.p05 !== null && r.p95 !== null ? { p05: r.p05, p95: r.p95 } : null}
            cutW={cut ? shownW(cut) : null}
            scale={scale}
            provisional={provisional}
            marks={measured.get(c.cap)}
            over={
              gained === undefined ? null : { name: over!.name, watts: Math.max(0, w + gained) }
            }
          >
            {r && (
              <>
                {parts && `${splitWords(parts.cpuW, parts.gpuW)} · `}
                {w < 0.05 ? 'nothing left: ' : ''}
                {heldWords(r)}
                {cut && ` · set to ${wattsText(shownW(cut))} W`}
                {setParts && ` (${splitWords(setParts.cpuW, setParts.gpuW)})`}
                {c.note && ` · ${c.note.split(': ')[0]}`}
              </>
            )}
          </Rung>
        );
      })}
    </Ladder>
  );
}

/** The ladder of bands that were stored, until the answer itself is there: what holds and how it is shared out come with that. */
export function StoredLadder({ bands }: { bands: readonly StoredBand[] }) {
  const scale = scaleOf([10, ...bands.map((b) => b.p95)]);
  return (
    <Ladder stale={false} provisional>
      {[...bands].reverse().map((b) => (
        <Rung key={String(b.cap)} cap={b.cap} watts={b.p50} band={b} scale={scale} provisional>
          {null}
        </Rung>
      ))}
    </Ladder>
  );
}

const scaleOf = (watts: readonly number[]) => Math.ceil(Math.max(...watts) / 20) * 20;

function Ladder({
  stale,
  provisional,
  children,
}: {
  stale: boolean;
  provisional: boolean;
  children: ReactNode;
}) {
  return (
    <ol
      aria-label="noise ladder"
      className={stale ? 'opacity-60' : ''}
      data-stale={stale || undefined}
      data-provisional={provisional || undefined}
    >
      {children}
    </ol>
  );
}

function Rung({
  cap,
  watts,
  band,
  cutW = null,
  scale,
  provisional,
  marks = NO_MARKS,
  over = null,
  children,
}: {
  cap: Cap;
  /** Null where the readout does not exist. */
  watts: number | null;
  band: { p05: number; p95: number } | null;
  /** Where the machine's settings stop earlier. */
  cutW?: number | null;
  /** Watts as wide as the rung. */
  scale: number;
  provisional: boolean;
  /** What runs sustained at it. */
  marks?: readonly RunMark[] | undefined;
  /** What it would be after a change. */
  over?: { name: string; watts: number } | null;
  /** What stands after the band. */
  children: ReactNode;
}) {
  const share = (x: number) => `${(100 * Math.min(x, scale)) / scale}%`;
  return (
    <li className="grid grid-cols-[5.4rem_1fr_4.2rem] gap-x-2 py-1.5 items-center" data-cap={cap}>
      <span
        className={`whitespace-nowrap ${typeof cap === 'number' ? 'figure text-base' : 'text-[0.9rem]'}`}
      >
        {capWord(cap)} {typeof cap === 'number' && <span className="unit">dB(A)</span>}
      </span>
      <span className="relative h-3 block" aria-hidden>
        <span className="absolute inset-x-0 top-1/2 border-t border-rule" />
        {watts !== null && (
          <>
            {band && (
              <span
                className={`absolute inset-y-0 ${provisional ? 'bg-heat/15' : 'bg-heat/25'}`}
                style={{
                  left: share(band.p05),
                  width: `calc(${share(band.p95)} - ${share(band.p05)})`,
                }}
              />
            )}
            <span
              className="absolute left-0 top-1/2 -mt-[1.5px] h-[3px] bg-heat transition-[width] duration-150"
              style={{ width: share(watts) }}
            />
            <span
              className="absolute -inset-y-0.5 w-[2px] -ml-px bg-ink transition-[left] duration-150"
              style={{ left: share(watts) }}
            />
            {cutW !== null && (
              <span
                className="absolute -inset-y-0.5 border-l border-dotted border-ink"
                style={{ left: share(cutW) }}
              />
            )}
          </>
        )}
        {over && (
          <span
            className="absolute -inset-y-1 w-[2px] -ml-px bg-heat"
            style={{ left: share(over.watts) }}
          />
        )}
        {marks.map((m) => (
          <span
            key={m.key}
            className="absolute top-1/2 w-2 h-2 -ml-1 -mt-1 rotate-45 bg-base-100 border-[1.5px] border-ink"
            style={{ left: share(markWatts(m).watts) }}
          />
        ))}
      </span>
      <span className="figure text-lg text-right leading-none" data-testid={`watts-${cap}`}>
        {watts === null ? '–' : wattsText(watts)} <span className="unit">W</span>
      </span>
      {watts !== null && (
        <span className="col-start-2 col-span-2 text-small text-quiet leading-snug">
          {band && `${wattsText(band.p05)} to ${wattsText(band.p95)} W`}
          {band && children && ' · '}
          {children}
          {over && (
            <span className="block text-heat" data-testid="rung-over">
              {wattsText(over.watts)} W: {over.name}
            </span>
          )}
          {marks.map((m) => (
            <span key={m.key} className="block" data-testid="rung-measured">
              ◇ {measuredText(m)} W measured: {m.name}
            </span>
          ))}
        </span>
      )}
    </li>
  );
}
