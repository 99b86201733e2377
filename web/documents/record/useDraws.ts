import { useCallback, useEffect, useRef, useState } from 'react';
import { SHOWN_DRAWS, SHOWN_SEED } from '@zugluft/core/uncertainty/wattsBand';
import type { CaseRequest } from '@zugluft/core/case/openCase';
import type { DrawSummary } from '@zugluft/core/uncertainty/summary';
import { startDraws } from '../answer/workers/drawClient';

export interface Draws {
  /** Of the record that stands there now, or null. */
  summary: DrawSummary | null;
  /** While draws are made. */
  progress: { made: number; of: number } | null;
  error: string | null;
  cancel: () => void;
  /** Makes this many draws anew. */
  make: (draws: number) => void;
}

/** Draws made on request, beyond those that are made after each keystroke. */
export const MANY = 4000;
/** Keystrokes closer than this are one. */
const PAUSE_MS = 40;

/**
 * Bands of a case, made anew in a worker with every change.
 *
 * @param request a case with a complete record, or null
 */
export function useDraws(request: CaseRequest | null): Draws {
  const [summary, setSummary] = useState<DrawSummary | null>(null);
  const [progress, setProgress] = useState<Draws['progress']>(null);
  const [error, setError] = useState<string | null>(null);
  const stop = useRef<() => void>(() => undefined);

  const cancel = useCallback(() => {
    stop.current();
    stop.current = () => undefined;
    setProgress(null);
  }, []);

  const make = useCallback(
    (draws: number) => {
      if (!request) return;
      stop.current();
      setError(null);
      // those after a keystroke are there before one could read how far they are
      const told = draws > SHOWN_DRAWS;
      if (told) setProgress({ made: 0, of: draws });
      stop.current = startDraws(
        { request, options: { draws, seed: SHOWN_SEED } },
        {
          progress: (made, of) => told && setProgress({ made, of }),
          done: (found) => {
            setProgress(null);
            setSummary(found);
          },
          failed: (message) => {
            setProgress(null);
            setError(message);
          },
        },
      );
    },
    [request],
  );

  useEffect(() => {
    setSummary(null);
    if (!request) return;
    const timer = setTimeout(() => make(SHOWN_DRAWS), PAUSE_MS);
    return () => {
      clearTimeout(timer);
      cancel();
    };
  }, [request, make, cancel]);

  return { summary, progress, error, cancel, make };
}
