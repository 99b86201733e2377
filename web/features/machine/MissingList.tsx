import { useState } from 'react';
import type { RecordIssue } from '@zugluft/core/record/checkRecord';
import { issueWords } from '../../documents/record/issueWords';
import { useMachineFile } from '../../documents/record/MachineFile';
import { inOrderOfWork } from '../../documents/route/steps';
import { useGoToField } from './useGoToField';

const SHOWN = 4;

const capital = (words: string) => words.charAt(0).toUpperCase() + words.slice(1);

/** All that keeps the record from an answer, in the order of work; each leads to its field. */
export function MissingList() {
  const { draft, issues } = useMachineFile();
  const goTo = useGoToField();
  const [all, setAll] = useState(false);
  const ordered = inOrderOfWork(issues);
  const shown = all ? ordered : ordered.slice(0, SHOWN);
  const rest = ordered.length - SHOWN;
  return (
    <ul aria-label="what is missing" className="space-y-0.5">
      {shown.map((issue: RecordIssue) => (
        <li key={issue.path + issue.message}>
          <button
            type="button"
            className="text-left cursor-pointer underline underline-offset-2 decoration-rule hover:decoration-ink"
            onClick={() => goTo(issue.path)}
          >
            {capital(issueWords(draft, issue))}
          </button>
        </li>
      ))}
      {rest > 0 && (
        <li>
          <button
            type="button"
            aria-expanded={all}
            className="cursor-pointer text-quiet hover:text-ink"
            onClick={() => setAll((x) => !x)}
          >
            {all ? 'fewer' : `and ${rest} more`}
          </button>
        </li>
      )}
    </ul>
  );
}
