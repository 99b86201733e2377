import { parseRecord } from '@zugluft/core/record/parseRecord';
import { exampleRecord } from '@zugluft/core/test-support/exampleRecord';
import type { Draft } from '../record/draft';
import { nextStep } from './nextStep';

const next = (record: unknown, known = { hasLog: true, runs: 1 }) =>
  nextStep(record as Draft, parseRecord(record).issues, known);
/** With all that is asked for. */
const full = () => {
  const r = exampleRecord('one-die') as unknown as Record<string, Record<string, unknown>>;
  const figure = (value: number) => ({ value, origin: 'measured' });
  r['identity'] = {
    maker: 'a',
    model: 'b',
    modelCode: 'c',
    variant: 'd',
    firmware: 'e',
    year: 2026,
  };
  r['power'] = { ...r['power'], adapterW: figure(65) };
  r['shell'] = {
    ...r['shell'],
    widthMm: figure(320),
    depthMm: figure(220),
    thicknessMm: figure(16),
    massKg: figure(1.3),
    footHeightMm: figure(2),
    material: 'aluminium',
  };
  r['room'] = { ...r['room'], temperatureC: figure(22) };
  return r;
};

test('an empty file begins with the first step, a begun one says how much is open', () => {
  expect(next({ format: 'zugluft-record', formatVersion: 1 })).toEqual({
    path: 'identify',
    words: 'Identify: 7 of 7 open',
  });
  const { firmware: _, ...identity } = full()['identity']!;
  expect(next({ ...full(), identity })).toEqual({
    path: 'identify',
    words: 'Identify: 1 of 7 open',
  });
});

test('what cannot be so comes before all else', () => {
  const record = full();
  record['shell'] = { ...record['shell'], thicknessMm: { value: -3, origin: 'measured' } };
  delete record['identity'];
  expect(next(record)).toEqual({ path: 'outside', words: '1 figure cannot be so' });
});

test('after the record come the opening, a run and the verdict', () => {
  const path = (hasLog: boolean, runs: number) => next(full(), { hasLog, runs }).path;
  expect([path(false, 0), path(true, 0), path(true, 1)]).toEqual(['open-up', 'runs', 'verdict']);
});
