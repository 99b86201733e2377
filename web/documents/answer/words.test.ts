import { figureWords, pathWordsOf, stepOfFigure, unitAt } from '../record/figureWords';
import {
  bindingWords,
  capWord,
  heldWords,
  shownW,
  splitWords,
  wattsText,
} from '@zugluft/core/case/answerWords';

test.each([
  [{ limit: 'junction', part: 'cpu' }, 'CPU junction'],
  [{ limit: 'junction', part: 'npu' }, 'npu junction'],
  [{ limit: 'pipe', part: 'pipe-1', kind: 'capillary' }, 'pipe-1 running dry'],
  [{ limit: 'pipe', part: 'pipe-1', kind: 'boiling' }, 'pipe-1 boiling dry'],
  [{ limit: 'pipe', part: 'pipe-1', kind: 'sonic' }, 'pipe-1, vapor at its speed of sound'],
  [{ limit: 'pipe', part: 'pipe-1', kind: 'entrainment' }, 'pipe-1, vapor tearing liquid off'],
  [{ limit: 'pipe', part: 'pipe-1', kind: 'viscous' }, 'pipe-1, vapor too thin'],
  [{ limit: 'chamber', part: 'plate', kind: 'boiling' }, 'plate, wick boiling'],
  [{ limit: 'chamber', part: 'plate', kind: 'capillary' }, 'plate, wick running dry'],
  [{ limit: 'skin', part: 'plate-gpu' }, 'skin over plate-gpu'],
  [{ limit: 'exhaust-air', part: 'fins' }, 'exhaust air of fins'],
  [{ limit: 'firmware', part: 'gpu' }, 'firmware limit, GPU'],
  [{ limit: 'adapter', part: 'adapter' }, 'adapter rating'],
] as const)('%j reads “%s”', (binding, words) => {
  expect(bindingWords(binding)).toBe(words);
});

test.each([
  ['dies.gpu.interface.bondLineUm', 'bond line, gpu', 'cooling'],
  ['finStacks.fins-left.depthMm', 'depth, fins-left', 'cooling'],
  ['heatPipes.pipe-1.along.fins-left.fromMm', 'begin, pipe-1 on fins-left', 'cooling'],
  ['power.restW', 'rest of the machine', 'identify'],
  ['shell.footHeightMm', 'foot height', 'outside'],
  ['room.temperatureC', 'room temperature', 'outside'],
  ['noise.distanceM', 'microphone distance', 'outside'],
  ['fans.psi', 'installed pressure coefficient', 'cooling'],
  ['fans.psi.66x9_5', 'installed pressure coefficient', 'cooling'],
  ['finStacks.fins-left', 'fin stack fins-left', 'cooling'],
  ['heatPipes.pipe.diameterMm', 'diameter, pipe', 'cooling'],
  ['shell.material', 'shell material', 'outside'],
  ['room.lid', 'lid', 'outside'],
  ['noise.sweep.1.rpm.fan-left', 'speed of fan-left, sweep 2', 'outside'],
  ['noise.sweep.0.dbA', 'level, sweep 1', 'outside'],
  ['finStacks.1.depthMm', 'depth, fin stack 2', 'cooling'],
  ['shell.colour', 'shell colour', 'outside'],
  ['fans.fan-left.controlGroup', 'control group, fan-left', 'cooling'],
  ['settings.quiet.later.afterS', 'begin of later limits, quiet', 'identify'],
] as const)('the figure %s reads “%s” and stands in %s', (path, words, step) => {
  expect(figureWords(path)).toBe(words);
  expect(stepOfFigure(path)).toBe(step);
});

test.each([
  ['log', 'steps.step3.screws', 'screws, step 3'],
  ['log', 'screws.s11', 'screw 11'],
  ['log', 'groups.A.lengthMm', 'length, group A'],
  ['settings', 'caps.levelsDbA', 'caps, levels'],
  ['unit', 'reasonOpened', 'reason opened'],
  ['defaults', 'fans.psi.value', 'installed pressure coefficient'],
] as const)('in a document of kind %s, %s reads “%s”', (kind, path, words) =>
  expect(pathWordsOf(kind)(path)).toBe(words),
);

test.each([
  ['dies.gpu.interface.bondLineUm', 'µm'],
  ['plates.conductivity.copper-plate', 'W/mK'],
  ['fans.psi', ''],
  ['nothing', ''],
])('the unit of %s is “%s”', (path, unit) => expect(unitAt(path)).toBe(unit));

test('watts have the decimals that their size supports', () => {
  expect([0, 7.68, 9.94, 9.96, 97.4].map(wattsText)).toEqual(['0.0', '7.7', '9.9', '10', '97']);
  expect([28, 'off', 'full'].map((c) => capWord(c as never))).toEqual([
    '28',
    'fans off',
    'full speed',
  ]);
});

test('the median is shown, and the central solution only while there are no draws', () => {
  expect(shownW({ watts: 100, p50: 91 })).toBe(91);
  expect(shownW({ watts: 100, p50: null })).toBe(100);
  expect(splitWords(35.9, 60.2)).toBe('36 CPU + 60 GPU');
});

test.each<[string, [string, string, number][], string]>([
  ['no draws', [], 'pipe-1 boiling dry'],
  [
    'nearly always one',
    [
      ['junction', 'gpu', 0.96],
      ['pipe', 'pipe-1', 0.04],
    ],
    'GPU junction',
  ],
  [
    'two, and what is rare is left out; a pipe fails as it does at the central figures',
    [
      ['junction', 'gpu', 0.61],
      ['pipe', 'pipe-1', 0.3],
      ['skin', 'plate', 0.09],
    ],
    'GPU junction 6 of 10, pipe-1 boiling dry 3 of 10',
  ],
  [
    'never more than two',
    [
      ['junction', 'gpu', 0.35],
      ['pipe', 'pipe-2', 0.33],
      ['skin', 'plate', 0.32],
    ],
    'GPU junction 4 of 10, pipe-2 running dry 3 of 10',
  ],
])('what holds in words: %s', (_, held, words) => {
  const shares = held.map(([limit, part, share]) => ({ limit, part, share })) as never;
  const binding = { limit: 'pipe', part: 'pipe-1', kind: 'boiling' } as const;
  expect(heldWords({ held: shares, binding })).toBe(words);
});
