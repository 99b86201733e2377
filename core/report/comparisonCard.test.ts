import { expectWithinCard } from '../test-support/expectWithinCard';
import { CARD_SIZES } from './cardChart';
import type { Chart } from './chart';
import { comparisonCard } from './comparisonCard';

const bars = (n: number, name = (i: number) => `Maker model ${i}`) =>
  Array.from({ length: n }, (_, i) => ({
    name: name(i),
    watts: { p05: 80 - i, p50: 90 - i, p95: 100 - i },
    isCalibrated: i % 2 === 0,
  }));
const texts = (chart: Chart) => chart.marks.flatMap((m) => (m.kind === 'text' ? [m] : []));

test.each(CARD_SIZES)(
  'at %s everything lies within the card, whatever the names and however many',
  (size) => {
    for (const n of [1, 2, 5, 12, 200]) {
      for (const name of [undefined, () => 'W'.repeat(10_000), () => '<b>&"\u202e']) {
        const card = comparisonCard(
          bars(n, name),
          36,
          'said '.repeat(200),
          'a '.repeat(3000),
          size,
        );
        expectWithinCard(card, size);
        for (const t of texts(card).filter((m) => m.anchor === 'start')) {
          // still read where an article shows it at half its width
          expect(t.size).toBeGreaterThanOrEqual(14 * (card.width / 1200));
        }
      }
    }
  },
);

test('machines stand in the order they come, with their watts; those without room are counted', () => {
  const words = texts(comparisonCard(bars(3), 36, 'A is better.', '22 °C', '1200x675')).map(
    (t) => t.text,
  );
  expect(words[0]).toBe('Sustained watts at 36 dB(A)');
  expect(words).toContain('A is better.');
  expect(words.filter((w) => w.startsWith('Maker'))).toEqual([
    'Maker model 0',
    'Maker model 1',
    'Maker model 2',
  ]);
  expect(words).toEqual(expect.arrayContaining(['90', '89', '88']));
  expect(words.at(-1)).toBe('22 °C');
  const many = texts(comparisonCard(bars(200), 'off', '', '22 °C', '1200x675')).map((t) => t.text);
  const shown = many.filter((w) => w.startsWith('Maker')).length;
  expect(shown).toBeGreaterThan(8);
  expect(many.at(-1)).toBe(`${200 - shown} machines more; 22 °C`);
  expect(many[0]).toBe('Sustained watts with the fans off');
});

test('nothing that is written lies over anything else', () => {
  for (const n of [1, 6, 40]) {
    const written = texts(comparisonCard(bars(n), 36, 'A is better.', '22 °C', '1200x675'))
      .filter((m) => m.anchor === 'start')
      .sort((a, b) => a.at[1] - b.at[1]);
    for (let i = 1; i < written.length; i++) {
      expect(written[i]!.at[1] - written[i - 1]!.at[1]).toBeGreaterThan(0.9 * written[i]!.size);
    }
  }
});
