import { useCallback, useState } from 'react';
import type { Draft } from './draft';

interface Steps {
  past: Draft[];
  now: Draft;
  future: Draft[];
  /** What the last change touched, so that one word typed is one step back. */
  touched: string | null;
  at: number;
}

const MAX_STEPS = 300;
const ONE_STEP_MS = 1200;

/** A draft with undo and redo. Changes to one field in quick succession are one step. */
export function useUndo(start: Draft) {
  const [steps, setSteps] = useState<Steps>({
    past: [],
    now: start,
    future: [],
    touched: null,
    at: 0,
  });

  const change = useCallback((update: (draft: Draft) => Draft, touched: string | null = null) => {
    const at = Date.now();
    setSteps((s) => {
      const now = update(s.now);
      if (now === s.now) return s;
      const joins = touched !== null && touched === s.touched && at - s.at < ONE_STEP_MS;
      return {
        past: joins ? s.past : [...s.past.slice(-MAX_STEPS), s.now],
        now,
        future: [],
        touched,
        at,
      };
    });
  }, []);

  const undo = useCallback(
    () =>
      setSteps((s) =>
        s.past.length
          ? {
              past: s.past.slice(0, -1),
              now: s.past[s.past.length - 1]!,
              future: [s.now, ...s.future],
              touched: null,
              at: 0,
            }
          : s,
      ),
    [],
  );
  const redo = useCallback(
    () =>
      setSteps((s) =>
        s.future.length
          ? {
              past: [...s.past, s.now],
              now: s.future[0]!,
              future: s.future.slice(1),
              touched: null,
              at: 0,
            }
          : s,
      ),
    [],
  );
  return {
    draft: steps.now,
    change,
    undo,
    redo,
    canUndo: steps.past.length > 0,
    canRedo: steps.future.length > 0,
  };
}
