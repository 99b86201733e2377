import fc from 'fast-check';
import { parseRecord } from '../record/parseRecord';
import type { CaseRecord } from '../record/recordSchema';
import { exampleRecord } from '../test-support/exampleRecord';
import { randomRecord } from '../test-support/randomRecord';
import { airwayFaults } from './airwayFaults';
import { placeParts } from './placeParts';

const faultsOf = (record: CaseRecord) => airwayFaults(record, parseRecord(record).issues);
const find = (record: CaseRecord, id: string) => placeParts(record).parts.find((p) => p.id === id)!;

test('every part lies on the shell, for any machine, also half typed ones', () => {
  fc.assert(
    fc.property(randomRecord, fc.nat(), (record, cut) => {
      const lists = ['dies', 'plates', 'fans', 'finStacks', 'vents', 'heatPipes'] as const;
      const partly = { ...record, [lists[cut % lists.length]!]: [] };
      const plan = placeParts(partly);
      for (const p of plan.parts) {
        expect(p.xMm).toBeGreaterThanOrEqual(0);
        expect(p.xMm).toBeLessThanOrEqual(plan.widthMm);
        expect(p.yMm).toBeGreaterThanOrEqual(0);
        expect(p.yMm).toBeLessThanOrEqual(plan.depthMm);
        expect(p.widthMm * p.depthMm).toBeGreaterThan(0);
      }
    }),
    { endOnFailure: true },
  );
  expect(placeParts({ format: 'zugluft-record', formatVersion: 1 }).parts).toEqual([]);
});

test('left is the user’s left, exhaust lies at the rear behind its stack, the stack behind its fan', () => {
  const two = exampleRecord('two-fan-shared-pipes');
  expect(find(two, 'fan-left').xMm).toBeLessThan(find(two, 'fan-right').xMm);
  expect(find(two, 'fins-left').xMm).toBeCloseTo(find(two, 'fan-left').xMm, 6);
  expect(find(two, 'fins-left').yMm).toBeLessThan(find(two, 'fan-left').yMm);
  expect(find(two, 'rear-left')).toMatchObject({ yMm: 0, kind: 'vent' });
  expect(find(two, 'rear-left').xMm).toBeCloseTo(find(two, 'fins-left').xMm, 6);
  expect(find(two, 'plate-cpu').xMm).toBeCloseTo(find(two, 'cpu').xMm, 6);
  expect(placeParts(two).pipes[0]!.through).toEqual([
    'fins-left',
    'plate-cpu',
    'plate-gpu',
    'fins-right',
  ]);
});

test('four fans and four stacks lie apart', () => {
  const plan = placeParts(exampleRecord('four-fan-eight-pipes'));
  const at = (kind: string) =>
    plan.parts.filter((p) => p.kind === kind).map((p) => `${p.xMm.toFixed(0)} ${p.yMm.toFixed(0)}`);
  expect(new Set(at('fan')).size).toBe(4);
  expect(new Set(at('stack')).size).toBe(4);
});

test('a place somebody chose is kept', () => {
  const two = exampleRecord('two-fan-shared-pipes');
  const moved: CaseRecord = {
    ...two,
    airway: { places: { 'fan-left': { xMm: 100, yMm: 200 }, 'fan-right': { xMm: 9999, yMm: 20 } } },
  };
  expect(parseRecord(moved).issues.map((i) => i.path)).toEqual(['airway.places.fan-right.xMm']);
  expect(find(moved, 'fan-left')).toMatchObject({ xMm: 100, yMm: 200, kept: true });
  // beyond the shell is at its edge
  expect(find(moved, 'fan-right').xMm).toBe(placeParts(moved).widthMm);
});

test('the examples have no fault', () => {
  for (const name of ['two-fan-shared-pipes', 'four-fan-eight-pipes', 'one-die'] as const) {
    expect(faultsOf(exampleRecord(name))).toEqual([]);
  }
});

test.each([
  [
    'a stack nobody blows through',
    (r: CaseRecord) => (r.finStacks![0]!.fans = []),
    'fins-left',
    /no fan/,
  ],
  [
    'a stack without a way out',
    (r: CaseRecord) => (r.vents = r.vents!.filter((x) => x.id !== 'rear-left')),
    'fins-left',
    /no exhaust/,
  ],
  [
    'a fan without a way in',
    (r: CaseRecord) => (r.vents = r.vents!.filter((x) => x.id !== 'base-left')),
    'fan-left',
    /no intake/,
  ],
  [
    'a pipe that ends nowhere',
    (r: CaseRecord) => (r.heatPipes![0]!.along = [{ part: 'plate-cpu' }]),
    'pipe',
    /no fin stack/,
  ],
  [
    'a pipe that starts nowhere',
    (r: CaseRecord) => (r.heatPipes![0]!.along = [{ part: 'fins-left' }]),
    'pipe',
    /no plate/,
  ],
])('%s is marked', (_, spoil, part, words) => {
  const record = structuredClone(exampleRecord('two-fan-shared-pipes'));
  spoil(record);
  const found = faultsOf(record).filter((f) => f.part === part);
  expect(found.map((f) => f.message).join('; ')).toMatch(words);
});
