import { STEP_KIND_FACTS, guessStepKind } from './stepKinds';
import { CAUTIONS, cautionsBack, cautionsOf } from './cautions';
import { guideOf } from './guide';
import { guideTree } from './guideTree';
import { DEFAULT_RULES, houseRules, RULES, rulesAt } from './houseRules';
import { leastSteps } from './leastSteps';
import { STEP_KINDS, openUpLog } from './openUpLog';
import { standardSteps } from './standardSteps';

const log = openUpLog.parse({
  format: 'zugluft-openup',
  formatVersion: 1,
  groups: [{ id: 'a', letter: 'A', thread: 'M2', lengthMm: 5, drive: 'cross' }],
  screws: [
    { id: 's1', layer: 'base', group: 'a', xMm: 10, yMm: 10, out: true, back: 'own' },
    { id: 's2', layer: 'base', group: 'a', xMm: 330, yMm: 10, onArrival: 'missing' },
  ],
  connectors: [{ id: 'c', name: 'fan <left>', release: 'flip-latch', lead: 'white to 1' }],
  steps: [
    {
      id: 'cover',
      name: 'Base *cover* off',
      act: 'cover',
      screws: ['s1', 's2'],
      state: 'done',
      seconds: 240,
    },
    {
      id: 'bat',
      name: 'Battery plug out',
      act: 'battery',
      needs: ['cover'],
      reaches: ['battery-off'],
      connectors: ['c'],
      state: 'done',
      seconds: 20,
      posture: 'base-up',
      note: 'two\nlines <b>',
    },
    { id: 'kb', name: 'Keyboard', needs: ['bat'], state: 'skipped' },
  ],
});
const about = (goal: string | null) => ({
  title: 'Heron & Co',
  goal,
  photosOf: (id: string) => (id === 'cover' ? ['p1'] : []),
});

test('a guide has the steps that were done, or the least way to a goal, with screws, moves and times', () => {
  const all = guideOf(log, about(null));
  expect(all.steps.map((s) => s.name)).toEqual(['Base *cover* off', 'Battery plug out']);
  expect(all.steps[0]).toMatchObject({
    screws: ['1 × A, M2 × 5 mm, cross', '1 × A, M2 × 5 mm, cross, missing on this unit'],
    minutes: 4,
    photos: ['p1'],
  });
  expect(all.steps[1]!.connectors).toEqual([
    'fan <left>, flip the latch first, goes to white to 1',
  ]);
  expect(all.steps[1]!.posture).toBe('base up');
  expect(all.tools).toContain('plastic lever');
  // on the reader's machine nothing is missing: both screws go back
  expect(all.back.join('\n')).toMatch(/its latch closed.*\n.*2 × A/);
  expect(guideOf(log, about('battery-off')).steps).toHaveLength(2);
  expect(guideOf(log, about('board')).steps).toEqual([]);
  const metal = houseRules.parse({ ...DEFAULT_RULES, lever: 'thin-metal' });
  expect(guideOf(log, about(null), metal).cautions).toContain(CAUTIONS['metal-lever']);
});

test('as a tree: a heading for each step, cautions as quotations, and only the photos there are', () => {
  const tree = guideTree(guideOf(log, about(null)), (id) => `photos/${id}.webp`);
  const headings = tree.children.flatMap((n) =>
    n.type === 'heading'
      ? [[n.depth, n.children.map((x) => 'value' in x && x.value).join('')]]
      : [],
  );
  expect(headings).toEqual([
    [1, 'Heron & Co: the whole opening'],
    [2, 'Cautions'],
    [2, 'Open'],
    [3, '1. Base *cover* off'],
    [3, '2. Battery plug out'],
    [2, 'Back together'],
  ]);
  const all = JSON.stringify(tree);
  expect(all).toContain('"url":"photos/p1.webp"');
  expect(all).toContain('two lines <b>');
  expect(all).toContain(CAUTIONS.battery);
  expect(all).toContain('local electrical code');
  expect(tree.children.at(-1)).toMatchObject({ type: 'list', ordered: true });
  expect(JSON.stringify(guideTree(guideOf(log, about(null)), () => null))).not.toContain('"image"');
});

test('each step shows the cautions of what is done in it, and those that were added', () => {
  expect(cautionsOf({ act: 'battery', name: '', cautions: [] })).toContain('battery');
  expect(cautionsOf({ act: 'renew', name: '', cautions: ['edges', 'unknown'] })).toEqual([
    'alcohol',
    'liquid-metal',
    'edges',
  ]);
  // not said: by its name
  expect(cautionsOf({ name: 'Battery plug out', cautions: [] })).toContain('battery');
  expect(cautionsOf({ name: 'Look again', cautions: [] })).toEqual([]);
  expect(cautionsBack({ act: 'battery', name: '', cautions: [] }, null)).toContain('battery');
  expect(cautionsBack(undefined, 'firmware')).toEqual(['limits']);
  expect(cautionsBack(undefined, 'clock')).toEqual([]);
  // where a caution names others' rules, it defers to them (common practice, no source)
  expect(CAUTIONS.battery).toMatch(/local rules/);
  expect(CAUTIONS.mains).toMatch(/local electrical code/);
});

test.each([
  ['Base cover off', 'cover'],
  ['Battery disconnected', 'battery'],
  ['Battery out', 'battery-out'],
  ['Fan plugs out', 'plugs'],
  ['Blow out the fins', 'clean'],
  ['Heat sink lifted', 'sink'],
  ['New paste on the heat sink', 'renew'],
  ['Left fan out', 'fan-out'],
  ['Mid-frame', 'layer'],
  ['Look again', 'other'],
])('“%s” is about %s', (name, act) => {
  expect(guessStepKind(name)).toBe(act);
});

test('every act has its facts; its own name is known as what it is', () => {
  expect(STEP_KIND_FACTS.map((a) => a.act).sort()).toEqual([...STEP_KINDS].sort());
  for (const { act, name } of STEP_KIND_FACTS)
    if (act !== 'other') expect(guessStepKind(name)).toBe(act);
});

test('the standard steps follow the house’s rules, and reach what they say', () => {
  const record = { fans: [{ id: 'f' }], strips: [{ id: 's' }] } as never;
  const plain = standardSteps(record, DEFAULT_RULES);
  expect(plain.map((s) => s.act)).toEqual([
    'make-safe',
    'cover',
    'battery',
    'strip',
    'clean',
    'plugs',
    'sink',
    'renew',
  ]);
  const other = standardSteps(
    record,
    houseRules.parse({ battery: 'take-out', strips: 'lift', pads: 'new' }),
  );
  expect(other.map((s) => s.act)).toEqual([
    'make-safe',
    'cover',
    'battery',
    'battery-out',
    'strip',
    'clean',
    'plugs',
    'sink',
    'renew',
    'pads',
  ]);
  expect(other.find((s) => s.act === 'strip')!.name).toMatch(/lifted/);
  expect(leastSteps(other, 'clean-fans')!.steps).toEqual([
    'make-safe',
    'cover',
    'battery',
    'battery-out',
    'clean',
  ]);
  expect(leastSteps(plain, 'renew-interface')!.steps).toHaveLength(6);
  expect(standardSteps({ fans: [] } as never, DEFAULT_RULES).map((s) => s.act)).not.toContain(
    'clean',
  );
});

test('house rules: each has a default, unknown choices are refused, each speaks where it matters', () => {
  expect(Object.keys(DEFAULT_RULES)).toEqual(RULES.map((r) => r.id));
  expect(houseRules.safeParse({ battery: 'explode' }).success).toBe(false);
  expect(rulesAt('clean', houseRules.parse({ cleaning: 'brush' }))).toMatchObject({
    tools: ['soft brush', 'vacuum'],
    cautions: ['static'],
  });
  expect(rulesAt('other', DEFAULT_RULES).words).toEqual([]);
});
