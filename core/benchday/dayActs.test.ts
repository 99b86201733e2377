import { openUpLog } from '../service/openUpLog';
import { actMinutes, actSchema } from './dayDocument';
import { openingAct, openingMinutes, runAct, SET_UP_MIN, USUAL_OPENING_MIN } from './dayActs';

const OF = { id: 'a', machine: 'm', machineName: 'Heron 16' };
const log = (...seconds: (number | undefined)[]) =>
  openUpLog.parse({
    format: 'zugluft-openup',
    formatVersion: 1,
    steps: seconds.map((s, i) => ({
      id: `s${i}`,
      name: 'x',
      ...(s === undefined ? {} : { seconds: s }),
    })),
  });

test('an opening takes as long as its steps took, those not timed like the others', () => {
  expect(openingMinutes(log(120, 60, 180))).toBe(6);
  expect(openingMinutes(log(120, undefined, 120, undefined))).toBe(8);
  expect(openingMinutes(log(undefined))).toBeNull();
  expect(actMinutes(openingAct(OF, 12))).toBe(12);
  expect(actMinutes(openingAct(OF, null))).toBe(USUAL_OPENING_MIN);
});

test('a run is set up by hand, settles beside others, is read alone in the room, and cools', () => {
  const run = runAct(
    OF,
    { id: 'r', load: { kind: 'stress', on: 'both' } },
    { settleS: 601, coolsS: 300 },
    'both',
  );
  expect(run.phases.map((p) => [p.name, p.minutes, p.hands, p.room])).toEqual([
    ['set up', SET_UP_MIN, true, 'beside'],
    ['settles', 11, false, 'beside'],
    ['is read', 5, false, 'alone'],
    ['cools', 5, false, 'none'],
  ]);
  expect(actSchema.parse(run)).toEqual(run);
  expect(runAct(OF, { id: 'r' }, { settleS: 60, coolsS: 0 }, 'idle').phases).toHaveLength(3);
});
