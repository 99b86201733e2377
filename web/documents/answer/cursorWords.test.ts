import { cursorWords, type CursorPoint } from './cursorWords';

const UNITS = ['W', '°C', 'rpm'];
const point = (seriesIndex: number, axisIndex: number, name: string, y: number): CursorPoint => ({
  seriesIndex,
  seriesName: name,
  axisIndex,
  value: [12.5, y],
});

test('each line of the chart is told once, in their order, with its unit and both ends of its pixel', () => {
  const words = cursorWords(
    [
      point(4, 2, 'left', 4100.4),
      point(2, 1, 'CPU', 95.04),
      point(2, 1, 'CPU', 94.96),
      point(0, 0, 'CPU', 46),
      point(0, 0, 'CPU', 45),
      // another run under it has one name for all of its lines
      point(5, 0, 'run 2', 40),
      point(6, 0, 'run 2', 60),
    ],
    UNITS,
  );
  expect(words.split('\n')).toEqual([
    '12:30',
    'CPU 45.0 to 46.0 W',
    'CPU 95.0 °C',
    'left 4100 rpm',
    'run 2 40.0 W',
    'run 2 60.0 W',
  ]);
});

test('seconds are carried, silence is not told, and where nothing stands nothing is said', () => {
  expect(cursorWords([{ value: [3.9999, 5] }], ['W']).split('\n')[0]).toBe('4:00');
  expect(cursorWords([{ value: [0.1, NaN] }, { value: [0.15, 7] }], ['W'])).toBe('0:09\n 7.0 W');
  expect(cursorWords([{ value: [1, NaN] }], UNITS)).toBe('');
  expect(cursorWords([], UNITS)).toBe('');
});
