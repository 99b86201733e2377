import fc from 'fast-check';
import { openUpLog, type OpenUpLog } from '../service/openUpLog';
import { lastPlanStep, nextPlanStep, planSteps, withStep } from './planSteps';
import type { LeverPlan } from './plansDocument';
import { planWay } from './planWay';
import type { Lever } from './lever';

interface PlainStep {
  id: string;
  needs: (string | string[])[];
  reaches: string[];
  screws: string[];
}
const logOf = (steps: PlainStep[]): OpenUpLog =>
  openUpLog.parse({
    format: 'zugluft-openup',
    formatVersion: 1,
    steps: steps.map((s) => ({ ...s, name: s.id })),
  });

/** The least set of steps that reaches all goals, by trying every set. */
function bruteForce(steps: readonly PlainStep[], goals: readonly string[]): number | null {
  let best: number | null = null;
  for (let set = 0; set < 1 << steps.length; set++) {
    const chosen = steps.filter((_, i) => set & (1 << i));
    const done = new Set<string>();
    for (let grew = true; grew;) {
      grew = false;
      for (const s of chosen) {
        if (done.has(s.id)) continue;
        if (s.needs.every((n) => [n].flat().some((id) => done.has(id)))) {
          done.add(s.id);
          grew = true;
        }
      }
    }
    if (done.size < chosen.length) continue;
    if (!goals.every((g) => chosen.some((s) => s.reaches.includes(g)))) continue;
    if (best === null || chosen.length < best) best = chosen.length;
  }
  return best;
}

const GOALS = ['clean-fans', 'renew-interface'];

test('the least steps of one opening that reach what all levers need are those of trying every set', () => {
  const names = ['a', 'b', 'c', 'd', 'e', 'f'];
  const step = (id: string) =>
    fc.record({
      id: fc.constant(id),
      needs: fc.uniqueArray(
        fc.oneof(
          fc.constantFrom(...names),
          fc.uniqueArray(fc.constantFrom(...names), { minLength: 2, maxLength: 2 }),
        ),
        { maxLength: 2, selector: (x) => String(x) },
      ),
      reaches: fc.subarray(GOALS),
      screws: fc.constant([] as string[]),
    });
  fc.assert(
    fc.property(fc.tuple(...names.map(step)), (steps) => {
      const levers = GOALS.map((goal) => ({ goal }));
      const way = planWay(levers, logOf(steps));
      expect(way?.steps.length ?? null).toBe(bruteForce(steps, GOALS));
    }),
    { numRuns: 300 },
  );
});

test('a way that two levers share is gone once, and screws are counted once', () => {
  const log = logOf([
    { id: 'cover', needs: [], reaches: [], screws: ['s1', 's2'] },
    { id: 'fan', needs: ['cover'], reaches: ['clean-fans'], screws: ['s3'] },
    { id: 'sink', needs: ['cover'], reaches: ['renew-interface'], screws: ['s4'] },
  ]);
  const way = planWay([{ goal: 'clean-fans' }, { goal: 'renew-interface' }], log)!;
  expect([...way.steps].sort()).toEqual(['cover', 'fan', 'sink']);
  expect(way.screws).toHaveLength(4);
  expect(planWay([{ goal: 'clean-fans' }], log)!.steps).toEqual(['cover', 'fan']);
});

test('nothing to open needs no log; an opening without one, or one that no step reaches, has no way', () => {
  expect(planWay([{ goal: null }], null)!.steps).toEqual([]);
  expect(planWay([{ goal: 'clean-fans' }], null)).toBeNull();
  expect(planWay([{ goal: 'clean-fans' }], logOf([]))).toBeNull();
});

const lever = (id: string, goal: string | null): Lever => ({
  id,
  name: id,
  change: [{ path: 'room.temperatureC', to: 20 }],
  possible: true,
  whyNot: null,
  reversible: true,
  cautions: goal ? ['liquid-metal'] : [],
  goal,
  moves: 'cooling',
});

test('steps: run before, way in, what is done inside, way back, what is done outside, run after; cautions come along', () => {
  const log = logOf([
    { id: 'cover', needs: [], reaches: [], screws: ['s1'] },
    { id: 'sink', needs: ['cover'], reaches: ['renew-interface'], screws: [] },
  ]);
  const steps = planSteps([lever('stand', null), lever('metal', 'renew-interface')], log);
  expect(steps.map((s) => s.id)).toEqual([
    'run-before',
    'cool',
    'way.cover',
    'way.sink',
    'lever.metal',
    'back',
    'lever.stand',
    'run-after',
  ]);
  expect(steps[4]!.cautions).toEqual(['liquid-metal']);
  expect(steps[2]!.words).toBe('cover (1 screw)');
  expect(planSteps([lever('stand', null)], log).map((s) => s.id)).toEqual([
    'run-before',
    'lever.stand',
    'run-after',
  ]);
  // without a log the way in is one step, with what it must say
  expect(planSteps([lever('metal', 'renew-interface')], null)[2]).toMatchObject({
    id: 'open',
    cautions: ['battery', 'static'],
  });
});

test('steps are done and undone one by one, each with its time', () => {
  const steps = planSteps([lever('stand', null)], null);
  let plan = { steps } as LeverPlan;
  expect(nextPlanStep(plan)!.id).toBe('run-before');
  expect(lastPlanStep(plan)).toBeNull();
  plan = withStep(plan, 'run-before', '2026-11-28T10:00:00.000Z');
  expect(nextPlanStep(plan)!.id).toBe('lever.stand');
  expect(lastPlanStep(plan)!.id).toBe('run-before');
  plan = withStep(plan, 'run-before', null);
  expect(plan.checked).toEqual({});
});
