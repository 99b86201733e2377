import { completeRecord, exampleRecord } from '../test-support/exampleRecord';
import type { CaseRecord } from '../record/recordSchema';
import type { StripRecord } from '../record/partSchema';
import { drawChanged, drawMachine, gainsBetween, type GainOptions } from './leverGains';
import { leversOf } from './leversOf';

// Both sides of what the trade argues over, as far as physics can judge. Common practice, no source; the machines are invented.
jest.setTimeout(240_000);
const record = completeRecord(exampleRecord('two-fan-shared-pipes'));
const OPTIONS: GainOptions = { caps: [36], draws: 80, seed: 3 };

function gainOf(r: CaseRecord, id: string, ratio?: { cpu: number; gpu: number }) {
  const lever = leversOf(r).find((l) => l.id === id)!;
  const before = drawMachine({ record: r }, OPTIONS, ratio);
  const after = drawChanged(before, lever.change, OPTIONS);
  return gainsBetween(before, after, 'cooling', OPTIONS)[0]!.wattsGained;
}

const withStrip = (strip: Omit<StripRecord, 'id'>) =>
  ({ ...record, strips: [{ id: 's', ...strip }] }) as CaseRecord;

test('strips: one that covers a vent is better off, one that seals the duct is better left', () => {
  const covers = withStrip({
    state: 'present',
    purpose: 'shielding',
    at: 'rear-left',
    coversShare: 0.6,
  });
  const seals = withStrip({
    state: 'present',
    purpose: 'duct-seal',
    at: record.finStacks![0]!.id,
    coversShare: 0,
  });
  expect(gainOf(covers, 'remove-strip.s').p05).toBeGreaterThan(1);
  expect(gainOf(seals, 'remove-strip.s').p95).toBeLessThan(0);
});

test('loops: shared ones help where one die is loaded, and cost where the other one heats it', () => {
  for (const ratio of [
    { cpu: 1, gpu: 0.02 },
    { cpu: 0.02, gpu: 1 },
  ]) {
    expect(gainOf(record, 'separate-loops', ratio).p95).toBeLessThan(0);
  }
  // a die that has to stay cool beside one that draws four times its watts and may get hot
  const tender = structuredClone(record);
  for (const d of tender.dies!) d.maxJunctionC = d.role === 'cpu' ? 80 : 95;
  expect(gainOf(tender, 'separate-loops', { cpu: 1, gpu: 4 }).p50).toBeGreaterThan(3);
});

test('battery: in or out is no figure of the cooling, so that it changes no watts here', () => {
  const out = { ...record, power: { ...record.power, batteryOut: true } } as CaseRecord;
  const watts = (r: CaseRecord) => drawMachine({ record: r }, OPTIONS).central;
  expect(watts(out)).toEqual(watts(record));
  expect(leversOf(record).some((l) => /battery/i.test(l.name))).toBe(false);
});
