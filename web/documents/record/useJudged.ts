import type { RecordIssue } from '@zugluft/core/record/checkRecord';
import { useEffect, useMemo, useState } from 'react';
import { useHalfTyped } from '../../kit/useHalfTyped';

const nameOf = (issue: RecordIssue) => `${issue.path}|${issue.message}`;

/**
 * Issues as far as they are judged: one that came while somebody types is said when the field is left or after a pause, since a
 * figure half typed is no mistake yet; one that is mended goes at once.
 *
 * @param issues of what stands there now
 * @returns what may be said; whether something waits to be judged; `typed` is told of every change by typing
 */
export function useJudged(issues: readonly RecordIssue[]): {
  judged: RecordIssue[];
  typing: boolean;
  typed: () => void;
} {
  const { half: typing, typed, left } = useHalfTyped();
  const [said, setSaid] = useState(() => new Set(issues.map(nameOf)));
  useEffect(() => {
    window.addEventListener('focusout', left);
    return () => window.removeEventListener('focusout', left);
  }, [left]);
  // what is said while nobody types stays said when somebody begins to
  useEffect(() => {
    if (!typing) setSaid(new Set(issues.map(nameOf)));
  }, [typing, issues]);
  const judged = useMemo(
    () => issues.filter((i) => !typing || said.has(nameOf(i))),
    [issues, typing, said],
  );
  return { judged, typing, typed };
}
