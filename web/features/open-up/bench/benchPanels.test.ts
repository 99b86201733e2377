import { STEP_KIND_FACTS } from '@zugluft/core/service/stepKinds';
import { addLayer, addStep, withLayer } from '@zugluft/core/service/logEdits';
import { EMPTY_LOG, type OpenUpLog } from '@zugluft/core/service/openUpLog';
import { benchPanel, type PanelName } from './benchPanels';
import type { Bench } from './useBench';

const opened = addStep(withLayer(EMPTY_LOG, { widthMm: 340, depthMm: 240 }), 'Base cover off');

/** A bench that only remembers what was asked of it. */
function fake(log: OpenUpLog = opened, known: Partial<Bench> | object = {}) {
  const asked: unknown[][] = [];
  const bench = new Proxy({} as Bench, {
    get: (_, name: string) => {
      if (name in known) return (known as Record<string, unknown>)[name];
      if (name === 'log') return log;
      if (name === 'doneActs') return new Set();
      if (name === 'lastPlug') return undefined;
      if (name === 'letter') return 'A';
      if (name === 'nameOf') {
        return (act: string) => STEP_KIND_FACTS.find((a) => a.act === act)!.name;
      }
      return (...args: unknown[]) => asked.push([name, ...args]);
    },
  });
  const ui = {
    open: (p: PanelName) => asked.push(['open', p]),
    photo: () => asked.push(['photo']),
    end: (s: string) => asked.push(['end', s]),
    turn: () => asked.push(['turn']),
  };
  const press = (name: PanelName, key: string) =>
    benchPanel(name, bench, ui)
      .choices.find((c) => c.key === key)
      ?.run();
  return { asked, press, panel: (name: PanelName) => benchPanel(name, bench, ui) };
}

const ALL: PanelName[] = [
  'next',
  'earlier',
  'name',
  'name-earlier',
  'count',
  'connector',
  'part',
  'strip',
  'note',
  'more',
  'further',
  'hidden',
  'plug-name',
  'plug-typed',
  'lead',
  'lead-typed',
  'posture',
  'layer',
  'layer-name',
];

test.each(ALL)(
  '%s: each choice has a key of its own, one digit or letter, and does something',
  (name) => {
    const { asked, panel } = fake();
    const { choices, typed, title } = panel(name);
    expect(title).not.toBe('');
    expect(choices.length > 0 || typed !== undefined).toBe(true);
    expect(new Set(choices.map((c) => c.key)).size).toBe(choices.length);
    for (const c of choices) {
      expect(c.key).toMatch(/^[0-9a-z+]$/);
      const before = asked.length;
      c.run();
      expect(asked.length).toBe(before + 1);
    }
  },
);

test('the next step by one digit; before this one where it was remembered late', () => {
  const { asked, press } = fake();
  press('next', '2');
  press('earlier', '2');
  press('next', '0');
  press('earlier', '0');
  expect(asked).toEqual([
    ['begin', 'Battery plug out', 'battery', 'after'],
    ['begin', 'Battery plug out', 'battery', 'before'],
    ['open', 'name'],
    ['open', 'name-earlier'],
  ]);
});

test('what was done is no longer offered first; the usual steps are one key', () => {
  const { asked, press, panel } = fake();
  const first = () => panel('next').choices[0]!.words;
  expect(first()).toBe('Base cover off');
  const done = fake(opened, { doneActs: new Set(['cover', 'battery']) });
  expect(done.panel('next').choices[0]!.words).toBe('Fan plugs out');
  expect(done.panel('next').choices.map((c) => c.words)).toContain('Base cover off');
  press('next', '+');
  expect(asked).toEqual([['plan']]);
  const keys = fake(opened, { plan: undefined })
    .panel('next')
    .choices.map((c) => c.key);
  expect(keys).not.toContain('+');
});

test('a hidden screw, a connector’s name and a lead’s end by digits', () => {
  const { asked, press, panel } = fake(opened, { lastPlug: { name: 'connector 2' } });
  press('further', '2');
  press('hidden', '1');
  press('hidden', '6');
  press('plug-name', '2');
  press('lead', '1');
  panel('lead-typed').typed!.run('under the hinge');
  expect(panel('further').choices.map((c) => c.words)).toContain('what connector 2 is called');
  expect(asked).toEqual([
    ['open', 'hidden'],
    ['hidden', 'foot'],
    ['hidden', 'captive'],
    ['tellPlug', { name: 'left fan' }],
    ['tellPlug', { lead: 'black to main' }],
    ['tellPlug', { lead: 'under the hinge' }],
  ]);
});

test('an empty log has no way back yet', () => {
  expect(
    fake(EMPTY_LOG)
      .panel('next')
      .choices.map((c) => c.key),
  ).not.toContain('v');
  const { asked, press } = fake();
  press('next', 'v');
  expect(asked).toEqual([['turn']]);
});

test('what is typed goes where it was asked for; a layer’s name within its bound', () => {
  const { asked, panel } = fake();
  panel('name').typed!.run('Seal cut');
  panel('note').typed!.run('hook bent');
  panel('layer-name').typed!.run('x'.repeat(100));
  expect(asked).toEqual([
    ['begin', 'Seal cut', undefined, 'after'],
    ['note', 'hook bent'],
    ['newLayer', 'x'.repeat(80)],
  ]);
});

test('known layers first, then those that are not there yet; never more than the digits', () => {
  let log = opened;
  for (let k = 0; k < 12; k++) log = addLayer(log, `layer ${k}`);
  const { choices } = fake(log).panel('layer');
  expect(choices).toHaveLength(10);
  expect(choices[0]!.words).toBe('base cover');
  const few = fake(addLayer(opened, 'heat sink'))
    .panel('layer')
    .choices.map((c) => c.words);
  expect(few.slice(0, 3)).toEqual(['base cover', 'heat sink', 'new: hatch']);
  expect(few).not.toContain('new: heat sink');
});

test('a strip of unknown purpose and a step that went wrong are one key each', () => {
  const { asked, press } = fake();
  press('strip', '4');
  press('more', '6');
  press('more', '2');
  expect(asked).toEqual([['strip', 'unknown'], ['end', 'went-wrong'], ['photo']]);
});
