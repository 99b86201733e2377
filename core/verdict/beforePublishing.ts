import type { OpenCase } from '../case/openCase';
import { figureValue } from '../record/figure';

/**
 * What readers would miss in a report as it stands, in words; empty where nothing is.
 *
 * @param open the case
 * @param known what else there is of the machine
 */
export function beforePublishing(
  { record }: Pick<OpenCase, 'record'>,
  known: { runs: number; hasLog: boolean; calibrationLapsed: boolean },
): string[] {
  const { identity, room, noise, power } = record;
  const missing = (x: unknown) => figureValue(x as never) === undefined;
  return [
    !identity?.firmware?.trim() && 'the firmware is not noted',
    !power?.source && 'whether it ran on mains or battery is not noted',
    missing(room?.temperatureC) && 'the room’s temperature is not noted',
    missing(noise?.distanceM) && 'the microphone’s distance is not noted',
    missing(noise?.backgroundDbA) && 'the background level is not noted',
    !noise?.sweep?.length && 'the level over fan speed is assumed',
    known.runs === 0 && 'no run has a steady state: every figure is computed',
    known.calibrationLapsed && 'the machine changed since its runs were fitted',
    !known.hasLog && 'there is no log of the opening, so no service score',
  ].filter((x): x is string => typeof x === 'string');
}
