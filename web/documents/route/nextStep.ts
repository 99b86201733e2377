import type { RecordIssue } from '@zugluft/core/record/checkRecord';
import { plural } from '@zugluft/core/record/plural';
import type { Draft } from '../record/draft';
import { progressOf } from './progress';
import { stepOf, type StepPath } from './steps';

/** Where a machine's file goes on, and why. */
export interface NextStep {
  path: StepPath;
  words: string;
}

const OF_RECORD = ['identify', 'outside', 'cooling'] as const;
const NAMES = { identify: 'Identify', outside: 'Outside', cooling: 'Cooling' } as const;

/**
 * The step of a file that is to be done next: what is wrong first, then what the record lacks, the opening, a run, and then the verdict.
 *
 * @param issues of the record
 * @param known what else there is of the machine
 */
export function nextStep(
  draft: Draft,
  issues: readonly RecordIssue[],
  known: { hasLog: boolean; runs: number },
): NextStep {
  const wrong = issues.filter((i) => i.kind === 'impossible');
  if (wrong.length > 0) {
    const path = stepOf(wrong[0]!.path);
    return { path, words: `${plural(wrong.length, 'figure')} cannot be so` };
  }
  for (const step of OF_RECORD) {
    const { state, recorded } = progressOf(step, draft, issues);
    if (state === 'done') continue;
    const open = recorded ? recorded.of - recorded.done : 0;
    const words =
      open > 0 ? `${NAMES[step]}: ${open} of ${recorded!.of} open` : `${NAMES[step]}: begin`;
    return { path: step, words };
  }
  if (!known.hasLog) return { path: 'open-up', words: 'Open up: no log yet' };
  if (known.runs === 0) return { path: 'runs', words: 'Runs: nothing was run yet' };
  return { path: 'verdict', words: 'Verdict: ready to be judged' };
}
