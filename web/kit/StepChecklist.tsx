import type { ReactNode } from 'react';
import { Kbd } from './Kbd';

/** A step that is done or not. */
export interface ChecklistStep {
  id: string;
  words: string;
}

/** One step after the other in big type, by two keys of the page, and all of them below. */
export function StepChecklist<S extends ChecklistStep>({
  steps,
  next,
  last,
  allDone,
  doneAt,
  mark,
  done,
  back,
  ready = true,
  name,
  about,
  beside,
}: {
  steps: readonly S[];
  /** The first that is not done, and the last that is. */
  next: S | null;
  last: S | null;
  /** What is said when nothing is left. */
  allDone: string;
  /** When a step was done. */
  doneAt: (step: S) => string | undefined;
  mark: (step: S, at: string | null) => void;
  done: () => void;
  back: () => void;
  /** Whether anything can be kept yet. */
  ready?: boolean;
  /** Of the line in big type, for tests. */
  name: string;
  /** Below the big line. */
  about?: ReactNode;
  /** Beside a step in the list. */
  beside?: (step: S) => ReactNode;
}) {
  const button = (words: string, key: string, can: boolean, run: () => void, primary: boolean) => (
    <button
      type="button"
      className={primary ? 'btn btn-primary' : 'btn'}
      disabled={!can || !ready}
      onClick={(e) => {
        // the next Enter is a key of the page again
        e.currentTarget.blur();
        run();
      }}
    >
      {words} <Kbd>{key}</Kbd>
    </button>
  );
  return (
    <>
      <p className="text-2xl min-h-20" aria-live="polite" data-testid={name}>
        {next ? next.words : allDone}
      </p>
      {about}
      <p className="flex flex-wrap gap-x-4 mb-4 no-print">
        {button('Done', 'Enter', next !== null, done, true)}
        {button('Back', 'Backspace', last !== null, back, false)}
      </p>
      <ol className="mb-4">
        {steps.map((s) => {
          const at = doneAt(s);
          return (
            <li
              key={s.id}
              className={`border-b border-rule py-1 grid grid-cols-[1.6rem_1fr_auto] gap-x-2 items-center ${s === next ? 'font-semibold' : ''}`}
            >
              <input
                type="checkbox"
                data-chooses
                className="checkbox checkbox-sm"
                aria-label={s.words}
                checked={at !== undefined}
                disabled={!ready}
                onChange={(e) => mark(s, e.currentTarget.checked ? new Date().toISOString() : null)}
              />
              <span className={at ? 'text-quiet' : ''}>{s.words}</span>
              {beside?.(s)}
            </li>
          );
        })}
      </ol>
    </>
  );
}
