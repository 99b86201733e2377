import type { Upkeep } from '../levers/upkeep';
import { exampleRecord } from '../test-support/exampleRecord';
import { bandText, halfShare, hedge } from './bandWords';
import { beforePublishing } from './beforePublishing';
import { careDue, careWords } from './care';
import { isHeld } from './usualWork';

test.each([
  [{ p05: 88, p50: 93, p95: 98 }, ''],
  [{ p05: 80, p50: 93, p95: 110 }, 'about '],
  [{ p05: 60, p50: 93, p95: 120 }, 'roughly '],
  [{ p05: 0, p50: 0, p95: 4 }, 'roughly '],
] as const)('of %j it is said “%s”', (band, word) => {
  expect(hedge(band)).toBe(word);
});

test('half a band is told over the median', () => {
  expect(halfShare({ p05: 90, p50: 100, p95: 110 })).toBeCloseTo(0.1, 12);
  expect(bandText({ p05: 88.4, p50: 93, p95: 98.2 })).toBe('88 to 98');
});

test('work is held, likely held, likely short or short by where it lies in the band', () => {
  const band = { p05: 70, p50: 90, p95: 110 };
  expect([70, 71, 90, 91, 110, 111].map((w) => isHeld(w, band))).toEqual([
    'held',
    'likely held',
    'likely held',
    'likely short',
    'likely short',
    'short',
  ]);
});

const upkeep = (dust: { p05: number | null; p95: number | null } | null): Upkeep => ({
  hoursPerYear: 1000,
  dust: dust && { curve: [], pays: { ...dust, p50: null } },
  paste: null,
});

test('care stands on the machine’s own upkeep where that is known, else on what is usual', () => {
  const [fans] = careDue(upkeep({ p05: 0.5, p95: 1.75 }));
  expect(fans).toMatchObject({ what: 'fans', fromMonths: 6, toMonths: 21, from: 'computed' });
  // beyond what is looked at: the usual span
  expect(careDue(upkeep({ p05: 3, p95: null }))[0]).toMatchObject({ from: 'usual', toMonths: 18 });
  expect(careDue(null).map((c) => c.what)).toEqual(['fans', 'paste', 'battery', 'hinges']);
});

test('what a machine has behind it is taken off what is usual', () => {
  const paste = (months: number) =>
    careDue(null, { paste: months }).find((c) => c.what === 'paste')!;
  // common practice, no source: paste after two to three years
  expect(careWords(paste(0))).toBe('paste in 2 to 3 years (usual)');
  expect(careWords(paste(12))).toBe('paste in 12 months to 2 years (usual)');
  expect(careWords(paste(30))).toBe('paste within 6 months (usual)');
  expect(careWords(paste(60))).toBe('paste now (usual)');
  expect(careWords(careDue(null)[3]!)).toBe('hinges in 18 months (usual)');
  expect(careWords(careDue(upkeep({ p05: 0.5, p95: 1 }))[0]!)).toBe('fans in 6 to 12 months');
});

test('before it is published it says what readers would miss', () => {
  const record = exampleRecord('two-fan-shared-pipes');
  const none = { runs: 0, hasLog: false, calibrationLapsed: true };
  const all = beforePublishing(
    { record: { ...record, identity: {}, noise: {}, room: {}, power: {} } },
    none,
  );
  expect(all).toHaveLength(9);
  const { identity } = record;
  expect(
    beforePublishing({ record: { ...record, identity: { ...identity, firmware: '1.04' } } }, none),
  ).not.toContain('the firmware is not noted');
  expect(
    beforePublishing({ record }, { runs: 1, hasLog: true, calibrationLapsed: false }).join(),
  ).not.toMatch(/no run|log of|changed since/);
});
