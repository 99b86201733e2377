import { fieldWords, valueWordsOf } from './fieldWords';

test.each([
  [undefined, '–'],
  [null, 'nothing'],
  [true, 'yes'],
  [24, '24'],
  ['copper', 'copper'],
  [{ value: 24 }, '24'],
  [{ value: 24, plusMinus: 0.1, origin: 'photo', note: 'blurred' }, '24 ± 0.1, photo, blurred'],
  [['fan-left', 'fan-right'], 'fan-left, fan-right'],
  [{ laterS: 3 }, 'later 3'],
])('%j stands as “%s”', (value, words) => expect(fieldWords(value)).toBe(words));

test.each([
  [
    'heatPipes.p.along',
    [{ part: 'fins', fromMm: 0 }, { part: 'plate' }],
    'fins, begin 0 mm, plate',
  ],
  ['finStacks.fins.depthMm', 24, '24 mm'],
  ['finStacks.fins.depthMm', { value: 24, plusMinus: 0.1, origin: 'photo' }, '24 ± 0.1 mm, photo'],
  ['vents.v.openShare', 0.4, '0.4'],
  [
    'settings.full.later',
    { afterS: 360, cpuSustainedW: 35 },
    'begin of later limits 360 s, CPU sustained, later 35 W',
  ],
  ['plates.p.kind', 'vapor-chamber', 'vapor chamber'],
  ['dies', [{ id: 'npu', role: 'cpu' }], 'npu, role cpu'],
])('at %s %j stands as “%s”', (path, value, words) => expect(fieldWords(value, path)).toBe(words));

test('what is long is cut', () => {
  expect(fieldWords('x'.repeat(500))).toHaveLength(121);
});

test.each([
  ['steps.step3.screws', ['s11', 's12'], 'screw 11, screw 12'],
  ['steps.step3.needs', ['step1', ['cover', 'step2']], 'step 1, step cover, step 2'],
  [
    'screws.s11',
    { id: 's11', layer: 'layer2', group: 'group1', out: true },
    'layer 2, group 1, out yes',
  ],
  ['steps.paste', { id: 'paste', name: 'New paste', act: 'renew' }, 'name New paste, act renew'],
  ['parts.battery-out.alone', true, 'yes'],
  ['steps.step3.note', undefined, '–'],
])('in a log %s: %j stands as “%s”', (path, value, words) =>
  expect(valueWordsOf('log')(value, path)).toBe(words),
);

test('values of other documents have no unit of the record', () => {
  expect(valueWordsOf('settings')([28, 36], 'caps.levelsDbA')).toBe('28, 36');
  expect(valueWordsOf('record')(24, 'finStacks.fins.depthMm')).toBe('24 mm');
});
