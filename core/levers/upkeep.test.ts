import { openCase } from '../case/openCase';
import { sustainedTogether } from '../case/sustainedTogether';
import type { CaseRecord } from '../record/recordSchema';
import { completeRecord, exampleRecord } from '../test-support/exampleRecord';
import { SHOWN_DRAWS, SHOWN_SEED } from '../uncertainty/wattsBand';
import { sustainedBands } from '../uncertainty/sustainedBands';
import { AHEAD_YEARS, upkeep } from './upkeep';

jest.setTimeout(120_000);
const record = completeRecord(exampleRecord('two-fan-shared-pipes'));
const withLint = (lint: number): CaseRecord => ({
  ...record,
  finStacks: record.finStacks!.map((s) => ({ ...s, lintShare: lint })),
});
const central = (r: CaseRecord) =>
  sustainedTogether(openCase({ record: r, ratio: { ...openCase({ record }).ratio } }), [36])[0]!;
/** The rates without their ranges, so that a time is one number. */
const EXACT = {
  defaults: { 'upkeep.lintPerThousandHours': { value: 0.2, low: 0.2, high: 0.2 } },
};

test('cleaning pays when just so much lint has gathered that it brings what is noticed', () => {
  const request = { record: withLint(0), lab: EXACT };
  const { dust } = upkeep(request, 36, { noticedW: 3, hoursPerYear: 1000 });
  const years = dust!.pays.p50!;
  expect(dust!.pays.p05).toBeCloseTo(years, 9);
  expect(dust!.pays.p95).toBeCloseTo(years, 9);
  // a fifth of what is open in each year of a thousand hours
  const lint = 1 - 0.8 ** years;
  const [band] = sustainedBands(openCase(request), {
    caps: [36],
    draws: SHOWN_DRAWS,
    seed: SHOWN_SEED,
  });
  const toMedian = band!.p50 / central(withLint(0));
  const gain = (central(withLint(0)) - central(withLint(lint))) * toMedian;
  expect(Math.abs(gain - 3)).toBeLessThan(0.4);
});

test('twice the hours halve the time, dust that is there already shortens it, more to be noticed lengthens it', () => {
  const at = (lint: number, hoursPerYear: number, noticedW = 3) =>
    upkeep({ record: withLint(lint), lab: EXACT }, 36, { noticedW, hoursPerYear }).dust!.pays.p50!;
  const years = at(0, 1000);
  expect(at(0, 2000)).toBeCloseTo(years / 2, 6);
  expect(at(0.3, 1000)).toBeLessThan(years);
  // hardly used, it comes to that after more years than are looked at
  expect(at(0, (1000 * years) / (2 * AHEAD_YEARS))).toBeNull();
  expect(at(0, 1000, 6)).toBeGreaterThan(years);
  expect(at(0.95, 1000)).toBe(0);
});

test('wide rates give a wide band: slower ones later, faster ones sooner; beyond what is looked at there is none', () => {
  const { dust, paste } = upkeep({ record }, 36, { noticedW: 3 });
  const { p05, p50 } = dust!.pays;
  expect(p05!).toBeLessThan(p50! / 2);
  expect(dust!.pays.p95 === null || dust!.pays.p95 > 2 * p50!).toBe(true);
  const never = upkeep({ record }, 36, { noticedW: 90 });
  expect(never.dust!.pays).toEqual({ p05: null, p50: null, p95: null });
  for (const part of [dust!, paste!]) {
    for (let i = 1; i < part.curve.length; i++) {
      expect(part.curve[i]!.gainW).toBeGreaterThanOrEqual(part.curve[i - 1]!.gainW - 1e-9);
    }
    expect(part.curve[part.curve.length - 1]!.years).toBe(AHEAD_YEARS);
  }
});

test('paste: old age shortens what is left; mixed materials tell nothing, nor does a machine without fins', () => {
  const aged = (years: number, kind = 'paste'): CaseRecord =>
    ({
      ...record,
      dies: record.dies!.map((d) => ({
        ...d,
        interface: { kind, conductivityWmK: 4, bondLineUm: 80, ageYears: years },
      })),
    }) as CaseRecord;
  const left = (r: CaseRecord) =>
    upkeep({ record: r }, 36, { noticedW: 2 }).paste?.pays.p50 ?? null;
  const fresh = left(aged(0))!;
  expect(fresh).toBeGreaterThan(0);
  expect(left(aged(fresh / 2))).toBeCloseTo(fresh / 2, 1);
  expect(left(aged(30))).toBe(0);
  const mixed = aged(0);
  mixed.dies![0]!.interface!.kind = 'liquid-metal';
  expect(upkeep({ record: mixed }, 36, { noticedW: 2 }).paste).toBeNull();
});
