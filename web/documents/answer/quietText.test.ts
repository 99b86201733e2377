import { quietBand, quietText } from './quietText';

test('a level, and what lies beyond those that are known', () => {
  const levelDbA = 27.6;
  expect(
    (['off', 'at-most', 'at', 'above'] as const).map((holds) => quietText({ levelDbA, holds })),
  ).toEqual(['off', '≤ 28', '28', '> 28']);
  expect(quietText(null)).toBe('–');
});

test('its band', () => {
  expect(quietBand('≤ 28', '42')).toBe('≤ 28 to 42');
  expect(quietBand('39', '–')).toBe('39 at best');
  expect([quietBand('–', '–'), quietBand('≤ 28', '≤ 28')]).toEqual(['', '']);
});
