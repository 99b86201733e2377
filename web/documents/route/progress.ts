import { standsIn } from '@zugluft/core/family/markAssumed';
import { fieldsOfMachine, fieldsOfPart } from '@zugluft/core/record/fieldTable';
import { PART_LISTS } from '@zugluft/core/record/partLists';
import { isObject } from '@zugluft/core/record/plainJson';
import type { RecordIssue } from '@zugluft/core/record/checkRecord';
import { getAt, partsOf, type Draft } from '../record/draft';
import { stepOf, type StepPath } from './steps';

/** How far a step of the route is. */
export interface Progress {
  state: 'blank' | 'begun' | 'done';
  /** Fields recorded of those that are asked for; null where they are not counted. */
  recorded: { done: number; of: number } | null;
}

/** What most files hold of each step; more may be recorded. */
const ASKED: Partial<Record<StepPath, readonly string[]>> = {
  identify: [
    'identity.maker',
    'identity.model',
    'identity.modelCode',
    'identity.variant',
    'identity.firmware',
    'identity.year',
    'power.adapterW',
  ],
  outside: [
    'shell.widthMm',
    'shell.depthMm',
    'shell.thicknessMm',
    'shell.massKg',
    'shell.footHeightMm',
    'shell.material',
    'room.temperatureC',
  ],
};

/** Recorded, not standing in for what is still to be measured. */
const stands = (x: unknown): boolean =>
  isObject(x) ? !standsIn(x) && stands(x['value']) : x !== undefined && x !== null && x !== '';

/** Fields of parts that an estimate needs, and those of their tables. */
function partProgress(draft: Draft): { done: number; of: number } {
  let done = 0;
  let of = 0;
  for (const list of PART_LISTS) {
    const figures = fieldsOfPart(list).filter((f) => f.needed);
    for (const part of partsOf(draft, list)) {
      for (const f of figures) {
        of++;
        if (stands(getAt(part, f.at.split('.')))) done++;
      }
    }
  }
  return { done, of };
}

/**
 * How far a step is: blank while nothing of it is recorded, done once all that is asked for stands there and nothing is wrong.
 *
 * @param issues of the record
 */
export function progressOf(
  step: 'identify' | 'outside' | 'cooling',
  draft: Draft,
  issues: readonly RecordIssue[],
): Progress {
  const wrong = issues.some((i) => stepOf(i.path) === step);
  if (step === 'cooling') {
    const recorded = partProgress(draft);
    const parts = PART_LISTS.some((list) => list !== 'vents' && partsOf(draft, list).length > 0);
    if (!parts) return { state: 'blank', recorded: null };
    return { state: wrong || recorded.done < recorded.of ? 'begun' : 'done', recorded };
  }
  const asked = ASKED[step]!;
  const done = asked.filter((path) => stands(getAt(draft, path.split('.')))).length;
  const any =
    done > 0 ||
    (step === 'outside' && partsOf(draft, 'vents').length > 0) ||
    fieldsOfMachine().some(
      (f) =>
        stepOf(f.at) === step &&
        // these stand in every record
        f.holds !== 'choice' &&
        stands(getAt(draft, f.at.split('.'))),
    );
  return {
    state: !any ? 'blank' : wrong || done < asked.length ? 'begun' : 'done',
    recorded: { done, of: asked.length },
  };
}
