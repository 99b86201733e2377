import fc from 'fast-check';
import { openUpLog, part, type OpenUpLog } from './openUpLog';
import { CRITERIA, rubric, serviceScore } from './serviceScore';

const log = (more: object = {}): OpenUpLog =>
  openUpLog.parse({
    format: 'zugluft-openup',
    formatVersion: 1,
    groups: [
      { id: 'a', letter: 'A' },
      { id: 'b', letter: 'B' },
    ],
    screws: [
      { id: 's1', layer: 'base', group: 'a' },
      { id: 's2', layer: 'base', group: 'b', hiddenUnder: 'foot' },
    ],
    steps: [
      { id: 'cover', name: 'Cover', screws: ['s1', 's2'], seconds: 60 },
      { id: 'bat', name: 'Battery', needs: ['cover'], reaches: ['battery-off'], seconds: 20 },
      { id: 'swap', name: 'Out', needs: ['bat'], reaches: ['swap-battery'], seconds: 220 },
      { id: 'fans', name: 'Clean', needs: ['bat'], reaches: ['clean-fans'], seconds: 100 },
    ],
    parts: [
      { id: 'bat', name: 'battery', kind: 'battery', alone: true, fixing: 'screw' },
      { id: 'kb', name: 'keyboard', kind: 'keyboard', onlyWith: ['palm'], fixing: 'rivet' },
      { id: 'ram', name: 'memory', kind: 'memory', fixing: 'solder' },
      { id: 'ssd', name: 'storage', kind: 'storage', fixing: 'slot' },
      { id: 'usb', name: 'port', kind: 'port', ownBoard: true, fixing: 'screw' },
    ],
    ...more,
  });
const share = (l: OpenUpLog, id: string, own = {}) =>
  serviceScore(l, own).criteria.find((c) => c.id === id)!.share;

test('worked by hand: each criterion goes straight from its best to its worst', () => {
  const l = log();
  expect(share(l, 'battery-steps')).toBe(1); // 2 steps, best 2
  expect(share(l, 'swap-minutes')).toBe(1); // 300 s = 5 min, best 5
  expect(share(l, 'clean-steps')).toBe(1); // 3, best 3
  expect(share(l, 'clean-screws')).toBe(1); // 2, best 6
  expect(share(l, 'screw-kinds')).toBeCloseTo(0.8, 12); // 2 of 1…6
  expect(share(l, 'hidden-screws')).toBeCloseTo(0.8, 12); // 1 of 0…5
  expect(share(l, 'own-boards')).toBe(1);
  expect(share(l, 'glued')).toBeCloseTo(0.5, 12); // 20 % of 0…40
  expect(share(l, 'alone')).toBe(0.5);
  expect(share(l, 'slots')).toBe(0.5);
  for (const id of ['renew-steps', 'jack-steps', 'labels']) expect(share(l, id)).toBeNull();
  const s = serviceScore(l);
  // weights 1 2 2 1 1 1 1 1 2 2 = 14 known, 3.5 unknown
  const points = 1 + 2 + 2 + 1 + 0.8 + 0.8 + 1 + 0.5 + 1 + 1;
  expect(s.computed).toBeCloseTo((10 * points) / 14, 12);
  expect(s.low).toBeCloseTo((10 * points) / 17.5, 12);
  expect(s.high).toBeCloseTo((10 * (points + 3.5)) / 17.5, 12);
  expect(s.judged).toBeCloseTo(14 / 17.5, 12);
});

test('the lab’s rubric changes the score; a criterion of weight nought counts nothing', () => {
  const l = log();
  expect(share(l, 'battery-steps', { 'battery-steps': { best: 1, worst: 3, weight: 1 } })).toBe(
    0.5,
  );
  const only = Object.fromEntries(
    CRITERIA.map((c) => [c.id, { best: c.best, worst: c.worst, weight: c.id === 'slots' ? 1 : 0 }]),
  );
  expect(serviceScore(l, only)).toMatchObject({ computed: 5, low: 5, high: 5, judged: 1 });
  expect(rubric.safeParse({ slots: { best: 3, worst: 3, weight: 1 } }).success).toBe(false);
  expect(rubric.safeParse({ slots: { best: 3, worst: 4, weight: 99 } }).success).toBe(false);
  expect(rubric.safeParse({ nonsense: { best: 3, worst: 4, weight: 1 } }).success).toBe(false);
});

test('what a team agreed to is added, within nought and ten; with nothing known there is no score', () => {
  const by = (points: number) =>
    serviceScore(log({ deviation: { points, reason: 'cover hooks break' } }));
  expect(by(-2).agreed).toBeCloseTo(by(-2).computed! - 2, 12);
  expect(by(5).agreed).toBe(10);
  const nothing = serviceScore(openUpLog.parse({ format: 'zugluft-openup', formatVersion: 1 }));
  expect(nothing).toMatchObject({ computed: null, agreed: null, low: 0, high: 10, judged: 0 });
});

test('steps without a time leave the time unjudged rather than short', () => {
  const l = log();
  const untimed = { ...l, steps: l.steps.map((s) => ({ ...s, seconds: undefined })) };
  expect(share(untimed, 'swap-minutes')).toBeNull();
});

test('the score lies within its range, and one more part replaced alone never lowers it', () => {
  const parts = fc.array(
    fc.record({
      kind: fc.constantFrom('battery', 'fan', 'memory', 'port', 'other'),
      fixing: fc.option(fc.constantFrom('screw', 'glue', 'solder', 'slot'), { nil: undefined }),
      alone: fc.option(fc.boolean(), { nil: undefined }),
    }),
    { maxLength: 8 },
  );
  fc.assert(
    fc.property(parts, (list) => {
      const ledger = list.map((p, i) =>
        part.parse(JSON.parse(JSON.stringify({ id: `p${i}`, name: 'p', ...p }))),
      );
      const s = serviceScore({ ...log(), parts: ledger });
      expect(s.low).toBeLessThanOrEqual(s.computed! + 1e-9);
      expect(s.high).toBeGreaterThanOrEqual(s.computed! - 1e-9);
      const better = serviceScore({
        ...log(),
        parts: ledger.map((p) => (p.kind === 'battery' ? { ...p, alone: true } : p)),
      });
      if (ledger.some((p) => p.alone !== undefined)) {
        expect(better.low).toBeGreaterThanOrEqual(s.low - 1e-9);
      }
    }),
    { numRuns: 100, seed: 3 },
  );
});
