import fc from 'fast-check';
import { leastSteps, wayFaults, type WayStep } from './leastSteps';

const s = (id: string, needs: WayStep['needs'] = [], more: Partial<WayStep> = {}): WayStep => ({
  id,
  needs,
  reaches: [],
  screws: [],
  ...more,
});

/** A machine with a hatch over the fans and a base cover over everything; worked by hand. */
const machine: WayStep[] = [
  s('off', [], { seconds: 60, cautions: ['mains'] }),
  s('hatch', ['off'], { screws: ['h1'], seconds: 40, tools: ['cross driver'] }),
  s('base', ['off'], { screws: ['b1', 'b2', 'b3'], seconds: 200, tools: ['cross driver', 'pick'] }),
  s('battery-plug', ['base'], { seconds: 10, cautions: ['battery'], reaches: ['battery-off'] }),
  s('fan-plugs', [['hatch', 'base']], { seconds: 20 }),
  s('dust', ['fan-plugs'], { reaches: ['clean-fans'], consumables: ['compressed air'] }),
  s('heat-sink', ['fan-plugs', 'battery-plug'], { screws: ['s1', 's2', 's3', 's4'], seconds: 90 }),
  s('paste', ['heat-sink'], { reaches: ['renew-paste'], consumables: ['paste', 'alcohol'] }),
];

test('fans are reached through the hatch, paste needs the base and so the hatch is left shut', () => {
  expect(leastSteps(machine, 'clean-fans')).toEqual({
    steps: ['off', 'hatch', 'fan-plugs', 'dust'],
    screws: ['h1'],
    tools: ['cross driver'],
    consumables: ['compressed air'],
    cautions: ['mains'],
    seconds: 120,
    timed: 3,
    proven: true,
  });
  const paste = leastSteps(machine, 'renew-paste')!;
  expect(paste.steps).toEqual(['off', 'base', 'battery-plug', 'fan-plugs', 'heat-sink', 'paste']);
  expect(paste.screws).toHaveLength(7);
  expect(paste.seconds).toBe(380);
});

test('of two ways of as many steps the one with fewer screws is taken, then the quicker one', () => {
  const two = (a: Partial<WayStep>, b: Partial<WayStep>) =>
    leastSteps([s('a', [], a), s('b', [], b), s('end', [['a', 'b']], { reaches: ['g'] })], 'g')!
      .steps;
  expect(two({ screws: ['1', '2'] }, { screws: ['3'] })).toEqual(['b', 'end']);
  expect(two({ seconds: 20 }, { seconds: 30 })).toEqual(['a', 'end']);
});

test('goals that no step reaches, and those behind a circle, have no way', () => {
  const circle = [s('a', ['b']), s('b', ['a'], { reaches: ['g'] }), s('c', ['b', 'gone'])];
  expect(leastSteps(circle, 'g')).toBeNull();
  expect(leastSteps(circle, 'nothing')).toBeNull();
  expect(wayFaults(circle)).toEqual([
    { kind: 'unknown-step', step: 'c', needs: 'gone' },
    { kind: 'cycle', steps: ['a', 'b'] },
    { kind: 'unreachable', step: 'c' },
  ]);
  expect(wayFaults(machine)).toEqual([]);
  // a circle that another way avoids is none
  expect(wayFaults([s('a', [['b', 'c']]), s('b', ['a']), s('c')])).toEqual([]);
  expect(wayFaults([s('a', ['a'])])).toEqual([{ kind: 'cycle', steps: ['a'] }]);
});

/** Whether steps can be done in some order with nothing else. */
function closed(all: readonly WayStep[], chosen: ReadonlySet<string>): boolean {
  const done = new Set<string>();
  for (let grew = true; grew;) {
    grew = false;
    for (const x of all) {
      if (!chosen.has(x.id) || done.has(x.id)) continue;
      if (x.needs.every((n) => (typeof n === 'string' ? [n] : n).some((id) => done.has(id)))) {
        done.add(x.id);
        grew = true;
      }
    }
  }
  return done.size === chosen.size;
}

/** Every subset of a small log, the least of those that reach the goal. */
function bruteForce(all: readonly WayStep[], goal: string): [number, number, number] | null {
  let best: [number, number, number] | null = null;
  for (let bits = 1; bits < 1 << all.length; bits++) {
    const some = all.filter((_, i) => bits & (1 << i));
    if (!some.some((x) => x.reaches.includes(goal))) continue;
    if (!closed(all, new Set(some.map((x) => x.id)))) continue;
    const cost: [number, number, number] = [
      some.length,
      new Set(some.flatMap((x) => x.screws)).size,
      some.reduce((sum, x) => sum + (x.seconds ?? 0), 0),
    ];
    const first = best?.findIndex((b, i) => b !== cost[i]) ?? 0;
    if (!best || (first >= 0 && cost[first]! < best[first]!)) best = cost;
  }
  return best;
}

const SIZE = 9;
const ids = Array.from({ length: SIZE }, (_, i) => `s${i}`);
const randomLog = fc.tuple(
  ...ids.map((id) =>
    fc.record({
      id: fc.constant(id),
      needs: fc.array(
        fc.oneof(
          fc.constantFrom(...ids),
          fc.uniqueArray(fc.constantFrom(...ids), { minLength: 2, maxLength: 3 }),
        ),
        { maxLength: 2 },
      ),
      reaches: fc.constantFrom<string[]>([], [], ['g']),
      screws: fc.uniqueArray(fc.constantFrom<string>('1', '2', '3', '4', '5'), { maxLength: 3 }),
      seconds: fc.integer({ min: 1, max: 50 }),
    }),
  ),
);

test('the least steps are those that trying every subset finds', () => {
  fc.assert(
    fc.property(randomLog, (log) => {
      const way = leastSteps(log, 'g');
      const brute = bruteForce(log, 'g');
      expect(way && [way.steps.length, way.screws.length, way.seconds]).toEqual(brute);
      if (way) expect(closed(log, new Set(way.steps))).toBe(true);
    }),
    { numRuns: 400, seed: 11 },
  );
});

test('each step of a way comes after what it needs; what has no fault has a way to every goal', () => {
  fc.assert(
    fc.property(randomLog, (log) => {
      const faults = wayFaults(log);
      const way = leastSteps(log, 'g');
      const done = new Set<string>();
      for (const id of way?.steps ?? []) {
        const { needs } = log.find((x) => x.id === id)!;
        for (const n of needs) {
          expect((typeof n === 'string' ? [n] : n).some((x) => done.has(x))).toBe(true);
        }
        done.add(id);
      }
      if (!faults.length && log.some((x) => x.reaches.includes('g'))) expect(way).not.toBeNull();
    }),
    { numRuns: 300, seed: 12 },
  );
});

test('a log of 400 steps with many alternatives is answered', () => {
  const long: WayStep[] = Array.from({ length: 400 }, (_, i) =>
    s(`s${i}`, i < 3 ? [] : i % 9 ? [`s${i - 1}`] : [[`s${i - 1}`, `s${i - 3}`]], {
      screws: [`x${i}`],
      reaches: i === 399 ? ['end'] : [],
    }),
  );
  const way = leastSteps(long, 'end')!;
  // one after the other: the shortest path, by hand
  const least: number[] = [];
  for (let i = 0; i < 400; i++) {
    const before = i < 3 ? 0 : i % 9 ? least[i - 1]! : Math.min(least[i - 1]!, least[i - 3]!);
    least.push(1 + before);
  }
  expect(way.steps).toHaveLength(least[399]!);
  expect(way.proven).toBe(false);
});
