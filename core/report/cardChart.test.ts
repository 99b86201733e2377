import { exampleRecord } from '../test-support/exampleRecord';
import { expectWithinCard } from '../test-support/expectWithinCard';
import { verdictOf, type Verdict } from '../verdict/verdict';
import { CARD_SIZES, cardChart, linesOf } from './cardChart';
import { widthOf } from './chart';

let verdict: Verdict;
beforeAll(() => {
  verdict = verdictOf(
    { record: exampleRecord('two-fan-shared-pipes') },
    { caps: [28, 36, 45], draws: 20 },
  );
});

test.each(CARD_SIZES)('at %s everything lies within the card, the figure first', (size) => {
  const long = { ...verdict, name: 'word '.repeat(2000) };
  for (const v of [verdict, long]) {
    const card = cardChart(v, [{ levelDbA: 36, watts: 93 }], 'a '.repeat(3000), size);
    expectWithinCard(card, size);
    const texts = card.marks.flatMap((m) => (m.kind === 'text' ? [m] : []));
    const watts = `${verdict.at[1]!.watts.p50.toFixed(0)} W`;
    const largest = [...texts].sort((a, b) => b.size - a.size)[0]!;
    expect(largest.text).toBe(watts);
    expect(texts.map((t) => t.text).join(' ')).toContain('at 36 dB(A), ');
    expect(card.marks.some((m) => m.kind === 'diamond')).toBe(true);
  }
});

test('nothing of a card lies over anything else that is written', () => {
  const card = cardChart(verdict, [], '22 °C, mains', '1200x675');
  const lines = card.marks
    .flatMap((m) => (m.kind === 'text' ? [m] : []))
    .filter((m) => m.anchor === 'start')
    .sort((a, b) => a.at[1] - b.at[1]);
  for (let i = 1; i < lines.length; i++) {
    const [above, below] = [lines[i - 1]!, lines[i]!];
    const apart = below.at[1] - above.at[1];
    // on one line they stand beside each other
    if (apart < 1) expect(below.at[0]).toBeGreaterThan(above.at[0]);
    else expect(apart).toBeGreaterThan(0.9 * below.size);
  }
});

test('words go into lines that are full but not wider', () => {
  const text = 'one two three four five six seven eight nine ten';
  const lines = linesOf(text, 10, 100, 10);
  expect(lines.join(' ')).toBe(text);
  for (const l of lines) expect(widthOf(l, 10)).toBeLessThanOrEqual(100);
  lines.slice(1).forEach((l, i) => {
    const [first] = l.split(' ');
    expect(widthOf(`${lines[i]} ${first}`, 10)).toBeGreaterThan(100);
  });
  expect(linesOf(text, 10, 100, 2)[1]).toMatch(/…$/);
  expect(linesOf('w'.repeat(500), 10, 100, 2)).toEqual([`${'w'.repeat(7)}…`]);
  expect(linesOf('', 10, 100, 2)).toEqual([]);
});
