import type { RunDocument } from './runDocument';

/** A step of a run at the bench. */
export interface BenchStep {
  id: string;
  words: string;
  /** A figure that is written down with it, by its place in the run. */
  figure: 'room' | 'background' | 'check-before' | 'check-after' | null;
}

/** Fans that are held, the time until nothing moves, and what is loaded, for the words of the steps. */
export interface ChecklistAbout {
  load: string;
  setting: string;
  fans: string;
  /** Null: not known. */
  settleMin: number | null;
}

/**
 * What is done at the bench for a run, in order: conditions, instruments, load, waiting, reading, putting away.
 *
 * @param about the run, in words
 */
export function benchSteps({ load, setting, fans, settleMin }: ChecklistAbout): BenchStep[] {
  const step = (id: string, words: string, figure: BenchStep['figure'] = null): BenchStep => ({
    id,
    words,
    figure,
  });
  return [
    step('quiet', 'On mains, updates done, nothing else running'),
    step('clocks', 'Clocks of machine, logger and meter set alike'),
    step('room', 'Room at the machine’s intake', 'room'),
    step('microphone', 'Microphone at the operator’s place, on axis'),
    step('check-before', 'Calibrator on the microphone', 'check-before'),
    step('background', 'Level with the machine off', 'background'),
    step('setting', `Setting ${setting}, fans ${fans}`),
    step('loggers', 'Loggers on, half a minute idle'),
    step('load', `Load ${load}`),
    step(
      'settled',
      settleMin === null
        ? 'Wait until nothing moves any more'
        : `Wait until nothing moves any more, about ${settleMin} min`,
    ),
    step('read', 'Leave it for five minutes more; note anything heard'),
    step('stop', 'Load off, logs saved'),
    step('check-after', 'Calibrator again', 'check-after'),
  ];
}

/** The first step that is not done; null where all are. */
export const nextStep = (
  steps: readonly BenchStep[],
  checked: RunDocument['checked'],
): BenchStep | null => steps.find((s) => !checked?.[s.id]) ?? null;

/** The step that was done last; null where none is. */
export function lastStep(
  steps: readonly BenchStep[],
  checked: RunDocument['checked'],
): BenchStep | null {
  return steps.findLast((s) => checked?.[s.id]) ?? null;
}

/** Marks a step as done, or takes that back. */
export function withChecked(run: RunDocument, id: string, at: string | null): RunDocument {
  const { [id]: _, ...rest } = run.checked ?? {};
  return { ...run, checked: at === null ? rest : { ...rest, [id]: at } };
}
