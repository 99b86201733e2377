import { barsChart } from './barsChart';
import { cutTo, ticks, widthOf, type Chart } from './chart';
import { wattsChart } from './wattsChart';

test.each([
  [0, 132, 4, [0, 50, 100, 150]],
  [0, 47, 4, [0, 20, 40, 60]],
  [0, 1, 4, [0, 0.5, 1]],
  [28, 45, 4, [25, 30, 35, 40, 45]],
  [5, 5, 4, [5]],
  [0, Infinity, 4, [0]],
])('round numbers from %f to %f, about %i', (least, most, about, expected) => {
  expect(ticks(least, most, about)).toEqual(expected);
});

/** Every point and the boxes of all text lie within the drawing. */
function expectWithin({ width, height, marks }: Chart): void {
  for (const m of marks) {
    if (m.kind === 'text') {
      const w = widthOf(m.text, m.size);
      const left = m.at[0] - (m.anchor === 'end' ? w : m.anchor === 'middle' ? w / 2 : 0);
      expect(left).toBeGreaterThanOrEqual(-10);
      expect(left + w).toBeLessThanOrEqual(width + 10);
      expect(m.at[1]).toBeGreaterThan(0);
      expect(m.at[1]).toBeLessThanOrEqual(height);
      continue;
    }
    const points = m.kind === 'diamond' ? [m.at] : m.points;
    for (const [x, y] of points) {
      expect(x).toBeGreaterThanOrEqual(0);
      expect(x).toBeLessThanOrEqual(width);
      expect(y).toBeGreaterThanOrEqual(0);
      expect(y).toBeLessThanOrEqual(height);
    }
  }
}

const band = (p50: number) => ({ p05: 0.8 * p50, p50, p95: 1.3 * p50 });
const SIZE = { width: 480, height: 230 };

test('watts against level: more watts lie higher, louder lies to the right, marks where they were read', () => {
  const chart = wattsChart(
    [
      { levelDbA: 28, watts: band(60) },
      { levelDbA: 36, watts: band(90) },
      { levelDbA: 45, watts: band(110) },
    ],
    [{ levelDbA: 36, watts: 90 }],
    SIZE,
  );
  expectWithin(chart);
  const line = chart.marks.find((m) => m.kind === 'line' && m.width === 1.6)!;
  const points = line.kind === 'line' ? line.points : [];
  expect(points.map((p) => p[0])).toEqual([...points.map((p) => p[0])].sort((a, b) => a - b));
  expect(points[0]![1]).toBeGreaterThan(points[2]![1]);
  const mark = chart.marks.find((m) => m.kind === 'diamond')!;
  expect(mark.kind === 'diamond' && mark.at).toEqual(points[1]);
  expect(chart.alt).toContain('90 W at 36 dB(A), 72 to 117');
});

test('one cap alone, or runs alone, make a drawing too', () => {
  expectWithin(wattsChart([{ levelDbA: 36, watts: band(90) }], [], SIZE));
  expectWithin(wattsChart([], [{ levelDbA: 36, watts: 90 }], SIZE));
  expectWithin(wattsChart([{ levelDbA: 36, watts: band(0) }], [], SIZE));
});

test('levels that lie close share no place under the axis', () => {
  const close = [36, 36.2, 36.4, 45].map((levelDbA) => ({ levelDbA, watts: band(90) }));
  const { marks } = wattsChart(close, [], SIZE);
  const labels = marks.flatMap((m) => (m.kind === 'text' && m.anchor === 'middle' ? [m.text] : []));
  expect(labels).toEqual(['36', '45']);
});

test('bars stand in order, a long name is cut, the own one is bold', () => {
  const chart = barsChart(
    [
      { name: 'x'.repeat(300), watts: band(150) },
      { name: 'short', watts: band(90), isOwn: true, isCalibrated: true },
    ],
    480,
    'Watts',
  );
  expectWithin(chart);
  const names = chart.marks.flatMap((m) => (m.kind === 'text' && m.anchor === 'start' ? [m] : []));
  expect(names[0]!.text.endsWith('…')).toBe(true);
  expect(names[1]).toMatchObject({ text: 'short', bold: true });
  expect(chart.height).toBe(8 + 44 + 26);
});

test('cutting counts letters, not halves of them', () => {
  expect(cutTo('🔥🔥🔥🔥', 10, 23)).toBe('🔥…');
  expect(cutTo('abc', 10, 100)).toBe('abc');
  const cut = cutTo('a machine of some name', 10, 100);
  expect(widthOf(cut, 10)).toBeLessThanOrEqual(100);
  expect(cut.length).toBeGreaterThan(8);
});
