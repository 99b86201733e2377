import fc from 'fast-check';
import { conflictsOf, fits, type Placed } from './conflicts';
import {
  actMinutes,
  daySchema,
  emptyDay,
  type Act,
  type BenchDay,
  type Phase,
} from './dayDocument';
import { beginsWith, moveOn, nextDue, stateOf } from './moveOn';
import { orderDay } from './orderDay';

const phase = (
  minutes: number,
  { hands = false, room = 'none' as Phase['room'], instruments }: Partial<Phase> = {},
): Phase => ({ name: 'x', minutes, hands, room, ...(instruments ? { instruments } : {}) });
const act = (id: string, machine: string, phases: Phase[], more: Partial<Act> = {}): Act => ({
  id,
  kind: 'run',
  machine,
  name: id,
  phases,
  ...more,
});
/** Setting up by hand, a load that is heard, cooling down. */
const noiseRun = (id: string, machine: string, minutes = 30) =>
  act(id, machine, [
    phase(5, { hands: true, room: 'beside' }),
    phase(minutes, { room: 'alone', instruments: ['meter'] }),
    phase(15),
  ]);
const opening = (id: string, machine: string, minutes = 40) =>
  act(id, machine, [phase(minutes, { hands: true, room: 'beside' })], { kind: 'opening' });
const place = (a: Act, startMin: number): Placed => ({ act: a, startMin });
const ONE = { hands: 1 };

describe('what cannot be', () => {
  test('a machine in two acts, too few hands, a sound beside a noise run, too few instruments, the wrong order', () => {
    const run = noiseRun('a', 'm');
    const why = (
      other: Act,
      startMin: number,
      bounds: Pick<BenchDay, 'hands' | 'instruments'> = { hands: 2 },
    ) => conflictsOf([place(run, 0), place(other, startMin)], bounds).map((c) => c.why);
    expect(why(act('b', 'm', [phase(5)]), 40)).toEqual(['machine']);
    expect(why(act('b', 'm', [phase(5)]), 50)).toEqual([]);
    expect(why(act('b', 'n', [phase(5, { hands: true })]), 3, ONE)).toEqual(['hands']);
    expect(why(act('b', 'n', [phase(5, { hands: true })]), 3)).toEqual([]);
    expect(why(opening('b', 'n', 10), 10)).toEqual(['room']);
    // while it cools down the room is free
    expect(why(opening('b', 'n', 10), 35)).toEqual([]);
    const metered = act('b', 'n', [phase(5, { instruments: ['meter'] })]);
    expect(why(metered, 20)).toEqual(['instrument']);
    expect(why(metered, 20, { hands: 1, instruments: [{ id: 'meter', count: 2 }] })).toEqual([]);
    expect(why(act('b', 'n', [phase(5)], { after: ['a'] }), 45)).toEqual(['order']);
    expect(why(act('b', 'n', [phase(5)], { after: ['a'] }), 50)).toEqual([]);
  });

  test('an act fits just where it makes no conflict', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(anyAct, fc.integer({ min: 0, max: 20 })), { minLength: 1, maxLength: 4 }),
        anyAct,
        fc.integer({ min: 0, max: 20 }),
        fc.integer({ min: 1, max: 2 }),
        (others, own, startMin, hands) => {
          const placed = others.map(([a, m], i) => place({ ...a, id: `o${i}` }, m));
          fc.pre(conflictsOf(placed, { hands }).length === 0);
          const all = [...placed, place({ ...own, id: 'own' }, startMin)];
          expect(fits({ ...own, id: 'own' }, startMin, placed, { hands })).toBe(
            conflictsOf(all, { hands }).length === 0,
          );
        },
      ),
      { numRuns: 300 },
    );
  });
});

const anyPhase = fc.record({
  name: fc.constant('x'),
  minutes: fc.integer({ min: 1, max: 4 }),
  hands: fc.boolean(),
  room: fc.constantFrom('alone' as const, 'beside' as const, 'none' as const),
  instruments: fc.constantFrom<string[]>([], ['meter']),
});
const anyAct: fc.Arbitrary<Act> = fc
  .tuple(fc.constantFrom('m', 'n', 'o'), fc.array(anyPhase, { minLength: 1, maxLength: 3 }))
  .map(([machine, phases]) => act('x', machine, phases));

/** The earliest end of a day by trying every minute for every act. */
function exhaustive(acts: readonly Act[], bounds: { hands: number }): number {
  let best = acts.reduce((a, x) => a + actMinutes(x), 0);
  const go = (k: number, placed: Placed[], endMin: number) => {
    if (endMin >= best) return;
    if (k === acts.length) {
      best = endMin;
      return;
    }
    const own = acts[k]!;
    for (let m = 0; m + actMinutes(own) < best; m++) {
      if (fits(own, m, placed, bounds)) {
        go(k + 1, [...placed, place(own, m)], Math.max(endMin, m + actMinutes(own)));
      }
    }
  };
  go(0, [], 0);
  return best;
}

describe('order', () => {
  test('small days end as early as any table that there is, minute by minute', () => {
    fc.assert(
      fc.property(
        fc.array(anyAct, { minLength: 1, maxLength: 4 }),
        fc.integer({ min: 1, max: 2 }),
        fc.boolean(),
        (list, hands, waits) => {
          const acts = list.map((a, i) => ({
            ...a,
            id: `a${i}`,
            ...(waits && i > 0 ? { after: [`a${i - 1}`] } : {}),
          }));
          const ordered = orderDay(acts, { hands });
          expect(ordered.exact).toBe(true);
          expect(ordered.endMin).toBe(exhaustive(acts, { hands }));
          const placed = acts.map((a) => place(a, ordered.startMin[a.id]!));
          expect(conflictsOf(placed, { hands })).toEqual([]);
        },
      ),
      { numRuns: 60 },
    );
  });

  test('large days come within a twentieth of the exact search on the same acts, and fit', () => {
    const machines = ['m', 'n', 'o'];
    const acts = machines.flatMap((m, i) => [
      noiseRun(`run-${m}`, m, 20 + 5 * i),
      opening(`open-${m}`, m, 30),
    ]);
    const exact = orderDay(acts, ONE, { steps: 400_000 });
    expect(exact.exact).toBe(true);
    // an eighth act of a minute makes it a large day
    const many = [...acts, act('tick', 'p', [phase(1)]), act('tock', 'q', [phase(1)])];
    const near = orderDay(many, ONE);
    expect(near.exact).toBe(false);
    expect(near.endMin).toBeLessThanOrEqual(1.05 * exact.endMin + 1);
    const placed = many.map((a) => place(a, near.startMin[a.id]!));
    expect(conflictsOf(placed, ONE)).toEqual([]);
    expect(orderDay(many, ONE)).toEqual(near);
  });

  test('a load settles while another machine is opened, and a noise run has the room to itself', () => {
    const load = act('load', 'm', [
      phase(5, { hands: true, room: 'beside' }),
      phase(60, { room: 'beside' }),
    ]);
    expect(orderDay([load, opening('open', 'n', 40)], ONE).endMin).toBe(65);
    expect(orderDay([noiseRun('noise', 'm', 60), opening('open', 'n', 40)], ONE).endMin).toBe(105);
  });

  test('what stands already is left where it is, and nothing begins before its time', () => {
    const fixed = [place(noiseRun('a', 'm'), 10)];
    const ordered = orderDay([opening('b', 'n', 30)], ONE, { fixed, fromMin: 12 });
    expect(ordered).toMatchObject({ startMin: { b: 45 }, endMin: 75 });
  });

  test('a circle of waiting is refused by name; nothing at all ends at once', () => {
    const a = act('a', 'm', [phase(5)], { after: ['b'] });
    const b = act('b', 'n', [phase(5)], { after: ['a'] });
    expect(() => orderDay([a, b], ONE)).toThrow(/wait for each other: a, b/);
    expect(orderDay([], ONE)).toEqual({ startMin: {}, endMin: 0, exact: true });
  });
});

describe('what really happens', () => {
  const beginsAt = '2026-02-03T09:00:00.000Z';
  const at = (min: number) => new Date(Date.parse(beginsAt) + 60_000 * min).toISOString();
  const day = (acts: Act[]): BenchDay => ({ ...emptyDay(), beginsAt, acts });

  test('an act that took longer moves those that wait for its room; what is done stays', () => {
    const a = { ...noiseRun('a', 'm', 30), startMin: 0, startedAt: at(0) };
    const b = { ...noiseRun('b', 'n', 30), startMin: 35 };
    const late = moveOn(day([a, b]), at(20));
    expect(late.acts.map((x) => x.startMin)).toEqual([0, 35]);
    // it is still under way long after it should have been over
    const over = moveOn(day([a, b]), at(70));
    expect(over.acts[1]!.startMin).toBeGreaterThanOrEqual(70);
    const done = moveOn(day([{ ...a, endedAt: at(80) }, b]), at(80));
    expect(done.acts.map((x) => x.startMin)).toEqual([0, 80]);
  });

  test('what ended early lets the rest come forward, as far as now', () => {
    const a = { ...opening('a', 'm', 60), startMin: 0, startedAt: at(0), endedAt: at(20) };
    const b = { ...opening('b', 'n', 30), startMin: 60, after: ['a'] };
    expect(moveOn(day([a, b]), at(25)).acts[1]!.startMin).toBe(25);
    const still = day([a, { ...b, startMin: 25 }]);
    expect(moveOn(still, at(25))).toBe(still);
    expect(moveOn({ ...still, beginsAt: null }, at(200))).toMatchObject({ acts: still.acts });
  });

  test('an act begun before the day, or a day late, begins it; a day that is over stays', () => {
    const planned = day([{ ...opening('a', 'm', 60), startMin: 30 }]);
    expect(beginsWith(planned, at(10))).toBe(beginsAt);
    expect(beginsWith(planned, at(-10))).toBe(at(-10));
    expect(beginsWith(planned, at(1441))).toBe(at(1441));
    expect(beginsWith(emptyDay(), at(5))).toBe(at(5));
    expect(moveOn(planned, at(1441))).toBe(planned);
  });

  test('states, and what is due next', () => {
    const a = { ...opening('a', 'm', 60), startMin: 30 };
    expect(stateOf(a, 20)).toBe('to come');
    expect(stateOf(a, 30)).toBe('due');
    expect(stateOf({ ...a, startedAt: at(30) }, 80)).toBe('under way');
    expect(stateOf({ ...a, startedAt: at(30) }, 91)).toBe('over its time');
    expect(stateOf({ ...a, endedAt: at(40) }, 91)).toBe('done');
    const b = { ...opening('b', 'n', 60), startMin: 10 };
    expect(nextDue(day([a, b]))!.id).toBe('b');
    expect(nextDue(day([a, { ...b, startedAt: at(10) }]))!.id).toBe('a');
    expect(nextDue(day([]))).toBeNull();
  });
});

test('a day is an open document; two acts of one name are refused at their place', () => {
  const day = { ...emptyDay(), acts: [opening('a', 'm'), opening('a', 'n')], extra: 1 };
  const read = daySchema.safeParse(day);
  expect(read.error!.issues[0]!.path).toEqual(['acts', 1, 'id']);
  expect(daySchema.parse({ ...day, acts: [] })).toMatchObject({ extra: 1 });
});
