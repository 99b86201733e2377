import fc from 'fast-check';
import { backTogether } from './backTogether';
import { balanceWords } from './balanceWords';
import { endBack, openAt, putBackOne, waitingHoles } from './benchEdits';
import { GOALS } from './goals';
import { guideOf } from './guide';
import { guideHtml, guideMarkdown } from './guideText';
import { DEFAULT_RULES, houseRules } from './houseRules';
import { leastSteps, wayFaults } from './leastSteps';
import { logFileText, readLogFile } from './logFile';
import { removeScrew, removeStep } from './logEdits';
import { STEP_KINDS, firstFault, openUpLog, type OpenUpLog } from './openUpLog';
import { screwBalance } from './screwBalance';
import { screwWarnings } from './screwWarnings';
import { serviceScore } from './serviceScore';
import { templateFrom } from './templateFrom';

/** Logs as a file may bring them: names from a few, so that many lead nowhere or to themselves. */
const NAMES = ['a', 'b', 'c', 'd', 'e', 'f', 'g', 'h'];
const id = fc.constantFrom(...NAMES);
const some = <T>(one: fc.Arbitrary<T>, most = 4) => fc.array(one, { maxLength: most });
/** Names, none twice. */
const names = (most = 4) => fc.uniqueArray(id, { maxLength: most });
/** Things with a name of their own. */
const named = <T extends { id: string }>(one: fc.Arbitrary<T>, most = 4) =>
  fc.uniqueArray(one, { maxLength: most, selector: (x) => x.id });
const maybe = <T>(one: fc.Arbitrary<T>) => fc.option(one, { nil: undefined, freq: 2 });
const mm = fc.integer({ min: 0, max: 400 });
const nasty = fc.constantFrom(
  'Cover',
  '<img src=x onerror=alert(1)>',
  '1. # *x*',
  '"&amp;\'',
  '😀 غطاء',
);

const anyLog: fc.Arbitrary<OpenUpLog> = fc
  .record({
    format: fc.constant('zugluft-openup'),
    formatVersion: fc.constant(1),
    layers: named(fc.record({ id, name: nasty, widthMm: maybe(mm), depthMm: maybe(mm) }), 2),
    groups: fc.uniqueArray(
      fc
        .record({ at: fc.integer({ min: 0, max: 2 }), lengthMm: maybe(fc.constantFrom(3, 5, 8)) })
        .map(({ at, lengthMm }) => ({ id: NAMES[at]!, letter: 'ABC'[at]!, lengthMm })),
      { maxLength: 3, selector: (g) => g.id },
    ),
    screws: named(
      fc.record({
        id,
        layer: id,
        group: maybe(id),
        xMm: maybe(mm),
        yMm: maybe(mm),
        printed: maybe(fc.integer({ min: 1, max: 9 })),
        onArrival: fc.constantFrom('there', 'missing', 'stripped', 'not-looked'),
        out: fc.boolean(),
        back: maybe(fc.oneof(id, fc.constantFrom('own', 'lost'))),
      }),
      7,
    ),
    connectors: named(fc.record({ id, name: nasty, off: fc.boolean(), on: fc.boolean() })),
    parts: named(
      fc.record({
        id,
        name: nasty,
        kind: maybe(fc.constantFrom('battery', 'fan', 'memory', 'port')),
        alone: maybe(fc.boolean()),
        onlyWith: names(2),
      }),
    ),
    strips: named(fc.record({ id, name: nasty, off: fc.boolean(), on: fc.boolean() })),
    steps: named(
      fc.record({
        id,
        name: nasty,
        act: maybe(fc.constantFrom(...STEP_KINDS)),
        layer: maybe(id),
        needs: some(fc.oneof(id, fc.array(id, { minLength: 1, maxLength: 3 })), 3),
        reaches: some(fc.constantFrom(...GOALS.map((g) => g.id)), 2),
        screws: names(),
        connectors: names(),
        parts: names(2),
        strips: names(2),
        state: fc.constantFrom('planned', 'done', 'skipped', 'went-wrong'),
        seconds: maybe(fc.integer({ min: 0, max: 999 })),
        note: maybe(nasty),
      }),
      6,
    ),
  })
  // as it comes out of a file: what is not said is not there
  .map((log) => openUpLog.parse(JSON.parse(JSON.stringify(log))));

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

test('a guide of any log is marked up by nothing that was typed', () => {
  holds((log) => {
    const guide = guideOf(log, { title: '<b>', goal: null, photosOf: () => ['p'] });
    const html = guideHtml(guide, () => 'x"onload="y');
    expect(html).not.toMatch(/<img src=x/);
    expect(html).not.toMatch(/"onload="y/);
    expect(html.match(/<h1>/g)).toHaveLength(1);
    const md = guideMarkdown(guide, () => null);
    expect(md.match(/^# /gm)).toHaveLength(1);
    expect(md.match(/^### /gm)?.length ?? 0).toBe(guide.steps.length);
    expect(md).not.toMatch(/(^|[^\\])<img/m);
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
