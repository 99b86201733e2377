import { exampleRecord } from '@zugluft/core/test-support/exampleRecord';
import { parseRecord } from '@zugluft/core/record/parseRecord';
import { emptyRecord, setAt, type Draft } from '../record/draft';
import { progressOf } from './progress';
import { inOrderOfWork } from './steps';

const of = (step: 'identify' | 'outside' | 'cooling', draft: Draft) =>
  progressOf(step, draft, parseRecord(draft).issues);

test('what is wrong stands in the order of work, what cannot be before what is missing', () => {
  const issue = (kind: string, path: string) => ({ kind, path });
  const paths = (list: { path: string }[]) => list.map((i) => i.path);
  expect(
    paths(
      inOrderOfWork([
        issue('missing', 'pads.0.thicknessMm'),
        issue('missing', 'fans.10.impellerDiameterMm'),
        issue('missing', 'fans.2.impellerDiameterMm'),
        issue('missing', 'dies'),
        issue('impossible', 'finStacks.0.depthMm'),
        issue('impossible', 'shell.widthMm'),
      ]),
    ),
  ).toEqual([
    'shell.widthMm',
    'finStacks.0.depthMm',
    'dies',
    'fans.2.impellerDiameterMm',
    'fans.10.impellerDiameterMm',
    'pads.0.thicknessMm',
  ]);
});

test('a new file is blank; the first figure begins a step', () => {
  const empty = emptyRecord();
  expect(of('identify', empty).state).toBe('blank');
  expect(of('outside', empty).state).toBe('blank');
  expect(of('cooling', empty)).toEqual({ state: 'blank', recorded: null });
  expect(of('identify', setAt(empty, ['identity', 'maker'], 'Oslund'))).toEqual({
    state: 'begun',
    recorded: { done: 1, of: 7 },
  });
  expect(of('outside', setAt(empty, ['noise', 'distanceM'], 0.5)).state).toBe('begun');
  expect(of('outside', setAt(empty, ['vents'], [{ id: 'v', flow: 'intake' }])).state).toBe('begun');
});

test('a full record is done; what is missing or wrong opens its step again', () => {
  const full = exampleRecord('two-fan-shared-pipes') as unknown as Draft;
  expect(of('cooling', full).state).toBe('done');
  const { recorded } = of('cooling', full);
  expect(recorded!.done).toBe(recorded!.of);
  const open = setAt(full, ['finStacks', 0, 'depthMm'], undefined);
  expect(of('cooling', open)).toMatchObject({
    state: 'begun',
    recorded: { done: recorded!.of - 1, of: recorded!.of },
  });
  expect(
    of('cooling', setAt(full, ['finStacks', 0, 'depthMm'], { value: 24, origin: 'photo' })).state,
  ).toBe('done');
  const shell = {
    widthMm: 1,
    depthMm: 1,
    thicknessMm: 1,
    massKg: 1,
    footHeightMm: 1,
    material: 'mixed',
  };
  let outside: Draft = {
    ...full,
    shell: { ...shell, widthMm: 300, depthMm: 200, thicknessMm: 20 },
  };
  outside = setAt(outside, ['room', 'temperatureC'], 23);
  expect(of('outside', outside).state).toBe('done');
  expect(of('outside', setAt(outside, ['shell', 'widthMm'], 'wide')).state).toBe('begun');
});
