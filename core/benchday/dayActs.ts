import type { RunDocument } from '../runs/runDocument';
import type { OpenUpLog } from '../service/openUpLog';
import type { Act } from './dayDocument';

/** Where nothing was logged an opening takes so long, min; setting a run up takes so long (common practice, no source). */
export const USUAL_OPENING_MIN = 40;
export const SET_UP_MIN = 8;
/** A settled run is read for so long, min (common practice, no source). */
const READ_MIN = 5;

const whole = (seconds: number) => Math.max(1, Math.ceil(seconds / 60));

/** Minutes of an opening: of the steps that were timed, scaled to all of them; null where none was. */
export function openingMinutes({ steps }: Pick<OpenUpLog, 'steps'>): number | null {
  const timed = steps.flatMap((s) => {
    const own = s.seconds ?? s.expectedSeconds;
    return own === undefined ? [] : [own];
  });
  if (timed.length === 0) return null;
  return whole((timed.reduce((a, b) => a + b, 0) * steps.length) / timed.length);
}

type Of = Pick<Act, 'id' | 'machine' | 'machineName'>;

/** The opening of a machine: hands all along, and it is heard. */
export const openingAct = (of: Of, minutes: number | null): Act => ({
  ...of,
  kind: 'opening',
  name: 'open up',
  phases: [{ name: 'open up', minutes: minutes ?? USUAL_OPENING_MIN, hands: true, room: 'beside' }],
});

/**
 * A run of a machine: set up by hand, load until it settles, reading it, cooling down. Whatever is heard by a microphone wants the
 * room to itself while it is read, and uses the meter.
 *
 * @param run planned
 * @param times of the machine's own: until it settles, until it idles again, s
 * @param name what people call it
 */
export function runAct(
  of: Of,
  run: Pick<RunDocument, 'id' | 'load'>,
  times: { settleS: number; coolsS: number },
  name: string,
): Act {
  const cools =
    times.coolsS > 0
      ? [{ name: 'cools', minutes: whole(times.coolsS), hands: false, room: 'none' as const }]
      : [];
  return {
    ...of,
    kind: 'run',
    run: run.id,
    name,
    phases: [
      { name: 'set up', minutes: SET_UP_MIN, hands: true, room: 'beside' },
      { name: 'settles', minutes: whole(times.settleS), hands: false, room: 'beside' },
      { name: 'is read', minutes: READ_MIN, hands: false, room: 'alone', instruments: ['meter'] },
      ...cools,
    ],
  };
}
