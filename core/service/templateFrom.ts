import type { OpenUpLog } from './openUpLog';

/**
 * A log to begin with, from that of a sibling: the same layers, groups, holes, connectors, parts, strips and steps, none of them
 * done yet. Holes are expected and not looked at; times are what the sibling took. What was only the sibling's is left out:
 * notes, stamps, readings, what was missing, what went wrong.
 *
 * @param log the sibling's log
 * @param from what the sibling is called
 */
export function templateFrom(log: OpenUpLog, from: string): OpenUpLog {
  return {
    ...log,
    screws: log.screws.map(({ back: _, ...s }) => ({ ...s, onArrival: 'not-looked', out: false })),
    connectors: log.connectors.map(({ latchClosed: _, ...c }) => ({ ...c, off: false, on: false })),
    strips: log.strips.map((s) => ({ ...s, off: false, on: false })),
    steps: log.steps.map(({ seconds, runningSince: _, note: __, expectedSeconds, ...s }) => {
      const took = seconds ?? expectedSeconds;
      return {
        ...s,
        state: 'planned',
        back: false,
        stamps: [],
        ...(took === undefined ? {} : { expectedSeconds: took }),
      };
    }),
    acknowledged: [],
    checked: [],
    deviation: undefined,
    templateOf: from.slice(0, 300),
  };
}
