import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { drawMachine } from '../levers/leverGains';
import { leversOf } from '../levers/leversOf';
import { completeRecord, exampleRecord } from '../test-support/exampleRecord';
import type { CaseRecord } from '../record/recordSchema';
import { SCHOOL_CASES, schoolGain, schoolsDocument } from './schools';

// common practice, no source; the machines are invented
jest.setTimeout(300_000);
const examples = {
  twoFan: completeRecord(exampleRecord('two-fan-shared-pipes')),
  oneDie: completeRecord(exampleRecord('one-die')),
};

test.each(SCHOOL_CASES.map((c) => [`${c.question}, ${c.says}`, c] as const))(
  '%s: on its machine it is right',
  (_, of) => {
    const { wattsGained: g, tooSmallToFeel } = schoolGain(of, examples);
    if (of.comes === 'is not felt') {
      expect(tooSmallToFeel).toBe(true);
      expect(g.p95).toBeLessThan(1);
    } else if (of.comes === 'gains') {
      expect(g.p50).toBeGreaterThan(3);
    } else {
      expect(g.p95).toBeLessThan(0);
    }
  },
);

test('each question has both its sides', () => {
  for (const { question } of SCHOOL_CASES) {
    const sides = SCHOOL_CASES.filter((c) => c.question === question);
    expect(new Set(sides.map((c) => c.comes)).size).toBe(2);
  }
});

test('battery: in or out is no figure of the cooling, so that it changes no watts here', () => {
  const { twoFan } = examples;
  const out = { ...twoFan, power: { ...twoFan.power, batteryOut: true } } as CaseRecord;
  const watts = (record: CaseRecord) =>
    drawMachine({ record }, { caps: [36], draws: 10, seed: 1 }).central;
  expect(watts(out)).toEqual(watts(twoFan));
  expect(leversOf(twoFan).some((l) => /battery/i.test(l.name))).toBe(false);
});

test('docs/schools.md is what the core says (npm run docs)', () => {
  const file = join(__dirname, '../../docs/schools.md');
  expect(readFileSync(file, 'utf8')).toBe(schoolsDocument(examples));
});
