import { wattsColumns, type MachineSummary } from './answers';
import { quietColumn, quietFor, valueInColumn, wattsOfQuietColumn } from './quietFor';

const caps = ['off', 28, 32, 36, 'full'] as const;
const watts: Record<string, number> = { off: 8, 28: 60, 32: 80, 36: 90, full: 100 };
const row = {
  maker: 'a',
  ...wattsColumns(caps, (cap) => ({
    p05: watts[cap]! * 0.8,
    p50: watts[cap]!,
    p95: watts[cap]! * 1.25,
  })),
} as unknown as MachineSummary;

test.each([
  [5, 28, 'off'],
  [50, 28, 'at-most'],
  [60, 28, 'at-most'],
  [70, 30, 'at'],
  [90, 36, 'at'],
  [95, 36, 'above'],
] as const)('%d W: %d dB(A), %s', (wanted, level, holds) => {
  expect(quietFor(row, wanted)).toEqual({ levelDbA: level, holds });
});

test('beyond full speed there is no level; the band is that of the watts the other way round', () => {
  expect(quietFor(row, 101)).toBeNull();
  // 1.25 × 60 W are 75: quietest; 0.8 × 90 W are 72: between the last two caps
  expect(quietFor(row, 70, 'p05')!.holds).toBe('at-most');
  expect(quietFor(row, 70, 'p95')!.levelDbA).toBeCloseTo(35, 9);
  expect(quietFor({} as MachineSummary, 50)).toBeNull();
});

test('its column sorts: fans off, at most, at, above, none', () => {
  expect(quietColumn(80)).toBe('quietFor80W');
  expect([wattsOfQuietColumn('quietFor62.5W'), wattsOfQuietColumn('togetherAt36W')]).toEqual([
    62.5,
    null,
  ]);
  const values = [5, 50, 70, 95].map((w) => valueInColumn(row, quietColumn(w)) as number);
  expect(values).toEqual([...values].sort((a, b) => a - b));
  expect(valueInColumn(row, quietColumn(200))).toBeNull();
  expect(valueInColumn(row, 'maker')).toBe('a');
});
