import type { RangeNote } from './rangeNotes';
import type { LinearState } from './steadyState';

/**
 * Says where a solver ended at its bound of rounds instead of coming to rest, and how much still moved.
 *
 * @param states the working states of a computation, at its end
 * @returns a note for each kind of solver, none where all came to rest
 */
export function unsettledNotes(states: readonly LinearState[]): RangeNote[] {
  const worst = (of: (s: LinearState) => number) => Math.max(0, ...states.map(of));
  const flow = worst((s) => s.flows.unsettledShare);
  const watts = worst((s) => s.unsettled.wattsShare);
  const kelvin = worst((s) => s.unsettled.kelvin);
  const note = (what: string, left: string): RangeNote => ({
    path: 'solver',
    message: `${what} had not come to rest when the search for it ended; ${left}`,
  });
  return [
    ...(flow > 0 ? [note('the air flow', `${percent(flow)} of it is not balanced`)] : []),
    ...(watts > 0 ? [note('a limit', `it may be off by ${percent(watts)}`)] : []),
    ...(kelvin > 0 ? [note('a temperature', `it still moved by ${kelvin.toPrecision(1)} K`)] : []),
  ];
}

function percent(share: number): string {
  return `${(100 * share).toPrecision(1)} %`;
}

/** Whether a solver ended at its bound over this state. */
export function isUnsettled({ flows, unsettled }: LinearState): boolean {
  return flows.unsettledShare > 0 || unsettled.wattsShare > 0 || unsettled.kelvin > 0;
}

/** Before the next computation over the same state. */
export function forgetUnsettled({ flows, unsettled }: LinearState): void {
  flows.unsettledShare = 0;
  unsettled.wattsShare = 0;
  unsettled.kelvin = 0;
}
