import { cursorWords } from './cursorWords';
import type { RunLine } from './runLines';

const line = (name: string, unit: string, ...points: [number, number][]): RunLine => ({
  name,
  told: name,
  unit,
  plot: 0,
  points: new Float64Array(points.flat()),
  colour: 'ink',
  kind: 'first',
});

test('each line of the chart is told once, in their order, with its unit and both ends of its pixel', () => {
  const words = cursorWords(
    [
      line('CPU', 'W', [12, 40], [12.5, 45], [12.5, 46], [13, 50]),
      line('CPU', '°C', [12.5, 94.96], [12.5, 95.04]),
      line('left', 'rpm', [12.5, 4100.4]),
      line('run 2, CPU', 'W', [12.4, 40], [12.6, 60]),
      line('run 2, GPU', 'W', [12.45, 60]),
    ],
    12.51,
    0.3,
  );
  expect(words).toEqual([
    '12:30',
    'CPU 45.0 to 46.0 W',
    'CPU 95.0 °C',
    'left 4100 rpm',
    'run 2, CPU 60.0 W',
    'run 2, GPU 60.0 W',
  ]);
});

test('the nearest points are told, before and after, at either end, and of two as near the first', () => {
  const own = line('CPU', 'W', [1, 10], [2, 20], [2, 22], [4, 40]);
  const at = (minutes: number) => cursorWords([own], minutes, 9)[1];
  expect([0, 1, 1.4, 1.6, 2, 2.9, 3, 3.1, 4, 8].map(at)).toEqual([
    'CPU 10.0 W',
    'CPU 10.0 W',
    'CPU 10.0 W',
    'CPU 20.0 to 22.0 W',
    'CPU 20.0 to 22.0 W',
    'CPU 20.0 to 22.0 W',
    'CPU 40.0 W',
    'CPU 40.0 W',
    'CPU 40.0 W',
    'CPU 40.0 W',
  ]);
});

test('seconds are carried; a line that is silent there is not told, and where none speaks nothing is said', () => {
  expect(cursorWords([line('', 'W', [3.9999, 5])], 4, 1)[0]).toBe('4:00');
  const ends = line('CPU', 'W', [0.1, 5]);
  const later = line('GPU', 'W', [0.15, 7]);
  expect(cursorWords([ends, later], 0.16, 0.03)).toEqual(['0:09', 'GPU 7.0 W']);
  expect(cursorWords([ends, later], 0.3, 0.03)).toEqual([]);
  expect(cursorWords([line('CPU', 'W')], 0.3, 9)).toEqual([]);
  expect(cursorWords([], 0.3, 9)).toEqual([]);
});
