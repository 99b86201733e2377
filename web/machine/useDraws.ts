import { useCallback, useEffect, useRef, useState } from 'react';
import type { CaseRecord } from '@zugluft/core/record/recordSchema';
import type { LabDefaults } from '@zugluft/core/record/resolver';
import type { DrawSummary } from '@zugluft/core/uncertainty/summary';
import { startDraws } from '../workers/drawClient';

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

/** Draws made by themselves once typing pauses, and on request. */
export const FEW = 400;
export const MANY = 4000;
const PAUSE_MS = 700;
const SEED = 1;

/**
 * Bands of a record, made in a worker once it has stood still for a moment.
 *
 * @param record a complete record, or null
 * @param settingId the setting whose CPU:GPU ratio applies
 * @param lab the lab's own defaults
 */
export function useDraws(
  record: CaseRecord | null,
  settingId: string | undefined,
  lab: LabDefaults,
): Draws {
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
      if (!record) return;
      stop.current();
      setError(null);
      setProgress({ made: 0, of: draws });
      stop.current = startDraws(
        { record, options: { settingId, lab, draws, seed: SEED } },
        {
          progress: (made, of) => setProgress({ made, of }),
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
    [record, settingId, lab],
  );

  useEffect(() => {
    setSummary(null);
    if (!record) return;
    const timer = setTimeout(() => make(FEW), PAUSE_MS);
    return () => {
      clearTimeout(timer);
      cancel();
    };
  }, [record, make, cancel]);

  return { summary, progress, error, cancel, make };
}
