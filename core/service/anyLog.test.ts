import fc from 'fast-check';
import { anyLog } from '../test-support/anyLog';
import { backTogether } from './backTogether';
import { balanceWords } from './balanceWords';
import { endBack, openAt, putBackOne, waitingHoles } from './benchEdits';
import { GOALS } from './goals';
import { DEFAULT_RULES, houseRules } from './houseRules';
import { leastSteps, wayFaults } from './leastSteps';
import { logFileText, readLogFile } from './logFile';
import { removeScrew, removeStep } from './logEdits';
import { firstFault, openUpLog, type OpenUpLog } from './openUpLog';
import { screwBalance } from './screwBalance';
import { screwWarnings } from './screwWarnings';
import { serviceScore } from './serviceScore';
import { templateFrom } from './templateFrom';

const holds = (check: (log: OpenUpLog) => void) =>
  fc.assert(fc.property(anyLog, check), { numRuns: 300, seed: 21 });

test('no log that the format takes makes anything fail, whatever its names lead to', () => {
  holds((log) => {
    for (const rules of [
      DEFAULT_RULES,
      houseRules.parse({ battery: 'take-out', tightening: 'crosswise', settings: 'trust' }),
    ]) {
      for (const step of backTogether(log, rules)) {
        openAt(log, step);
        expect(openUpLog.safeParse(endBack(log, step)).success).toBe(true);
        for (const letter of 'ABC') {
          expect(openUpLog.safeParse(putBackOne(log, step, letter)).success).toBe(true);
        }
      }
    }
    balanceWords(log, screwBalance(log));
    screwWarnings(log);
    wayFaults(log.steps);
    const { computed, low, high } = serviceScore(log);
    expect(low).toBeLessThanOrEqual(high);
    if (computed !== null) expect(computed >= 0 && computed <= 10).toBe(true);
  });
});

test('a way to a goal never goes over a step that waits for something undone', () => {
  holds((log) => {
    for (const { id: goal } of GOALS) {
      const way = leastSteps(log.steps, goal);
      if (!way) continue;
      const done = new Set<string>();
      for (const at of way.steps) {
        const step = log.steps.find((s) => s.id === at && !done.has(s.id))!;
        expect(step).toBeDefined();
        done.add(at);
      }
      expect(log.steps.some((s) => s.reaches.includes(goal) && done.has(s.id))).toBe(true);
    }
  });
});

test('a log as a template or as a file is a log; a template has nothing done', () => {
  holds((log) => {
    const begun = templateFrom(log, 'a sibling');
    expect(openUpLog.safeParse(begun).success).toBe(true);
    expect(begun.screws.every((s) => !s.out && s.back === undefined)).toBe(true);
    expect(begun.steps.every((s) => s.state === 'planned')).toBe(true);
    expect(readLogFile(logFileText(log))).toEqual(log);
  });
});

test('what is removed is named nowhere, and no hole waits twice', () => {
  holds((log) => {
    for (const { id: gone } of log.screws) {
      const rest = removeScrew(log, gone);
      expect(rest.steps.some((s) => s.screws.includes(gone))).toBe(false);
    }
    for (const { id: gone } of log.steps) {
      const rest = removeStep(log, gone);
      const named = log.steps.find((s) => s.id === gone)!.needs.flat();
      if (!named.includes(gone)) {
        expect(rest.steps.some((s) => s.needs.flat().includes(gone))).toBe(false);
      }
    }
    for (const step of backTogether(log)) {
      const waiting = waitingHoles(log, step);
      expect(new Set(waiting).size).toBe(waiting.length);
    }
  });
});

test.each([
  [
    'two steps of one name',
    {
      steps: [
        { id: 'a', name: 'x' },
        { id: 'a', name: 'y' },
      ],
    },
    'steps.1.id the name “a” is taken already',
  ],
  [
    'two groups of one letter',
    {
      groups: [
        { id: 'a', letter: 'A' },
        { id: 'b', letter: 'A' },
      ],
    },
    'groups.1.letter the letter “A” is taken already',
  ],
  [
    'a screw twice in a step',
    { steps: [{ id: 'a', name: 'x', screws: ['s', 's'] }] },
    'steps.0.screws.1 the name “s” is taken already',
  ],
  [
    'a screw that is called as if lost',
    { screws: [{ id: 'lost', layer: 'a' }] },
    'screws.0.id “lost” is no name for a screw',
  ],
])('%s: refused at its place', (_, more, words) => {
  expect(firstFault({ format: 'zugluft-openup', formatVersion: 1, ...more })).toBe(words);
});
