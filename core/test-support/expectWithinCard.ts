import { cardSizeOf, type CardSize } from '../report/cardChart';
import { widthOf, type Chart } from '../report/chart';

/** Holds a card to its size, and all of its marks within it; words by their width from where they start. */
export function expectWithinCard(card: Chart, size: CardSize): void {
  const { width, height } = cardSizeOf(size);
  expect({ width: card.width, height: card.height }).toEqual({ width, height });
  for (const m of card.marks) {
    const points = m.kind === 'text' || m.kind === 'diamond' ? [m.at] : m.points;
    for (const [x, y] of points) {
      expect(x).toBeGreaterThanOrEqual(0);
      expect(x).toBeLessThanOrEqual(width);
      expect(y).toBeGreaterThanOrEqual(0);
      expect(y).toBeLessThanOrEqual(height);
    }
    if (m.kind === 'text' && m.anchor === 'start') {
      expect(m.at[0] + widthOf(m.text, m.size)).toBeLessThanOrEqual(width);
    }
  }
}
