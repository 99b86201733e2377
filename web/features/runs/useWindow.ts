import type { RunAnalysis, RunDocument } from '../../api/runs';
import type { Stretch } from '../../documents/answer/RunChart';

/** No window is shorter, s. */
const LEAST_S = 30;
/** A key moves or widens it by this share, s at least. */
const STEP = { share: 0.05, leastS: 10 };

/**
 * The window over which a run is read: the one that was found until somebody moves it.
 *
 * @param analysis of the run
 * @param run its document
 * @param keep writes windows that a person chose
 */
export function useWindow(
  analysis: RunAnalysis | null,
  run: RunDocument,
  keep: (steady: RunDocument['steady'], what: string) => void,
) {
  const chosen = run.steady?.find((w) => w.chosenBy === 'person') ?? null;
  const found = analysis?.steady.at(-1) ?? null;
  const window: Stretch | null = chosen ?? found;
  const lastS = analysis?.log.durationS ?? 0;
  const others = (run.steady ?? []).filter((w) => w.chosenBy !== 'person');
  const moveWindow = ({ fromS, toS }: Stretch) =>
    keep([...others, { fromS, toS, chosenBy: 'person' }], 'window of the steady state');
  const step = (key: string) => {
    // where nothing settled the last part of it is a beginning
    const now = window ?? { fromS: 0.8 * lastS, toS: lastS };
    const span = now.toS - now.fromS;
    const by = Math.round(Math.max(STEP.leastS, STEP.share * span));
    // at either end of the run it stays as wide as it is
    const earlier = Math.min(by, now.fromS);
    const later = Math.min(by, lastS - now.toS);
    const moves: Record<string, Stretch> = {
      ArrowLeft: { fromS: now.fromS - earlier, toS: now.toS - earlier },
      ArrowRight: { fromS: now.fromS + later, toS: now.toS + later },
      '+': { fromS: now.fromS - earlier, toS: now.toS + later },
      '-': { fromS: now.fromS + by, toS: now.toS - by },
    };
    const next = moves[key];
    if (!next || lastS <= 0) return;
    const fromS = Math.max(0, Math.round(next.fromS));
    const toS = Math.min(Math.floor(lastS), Math.round(next.toS));
    if (toS - fromS < LEAST_S) return;
    moveWindow({ fromS, toS });
  };
  return {
    window,
    moveWindow,
    step,
    isChosen: chosen !== null,
    release: () => keep(others, 'window of the steady state'),
  };
}
