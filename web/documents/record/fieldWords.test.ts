import { fieldWords } from './fieldWords';

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
