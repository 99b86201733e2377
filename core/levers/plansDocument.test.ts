import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { plansKind } from '../documents/plans/plansKind';
import { MAX_PLANS, NO_PLANS, plansJsonSchema, type LeverPlan } from './plansDocument';

const gain = { p05: 1, p50: 2, p95: 3 };
const plan = (id: string): LeverPlan => ({
  id,
  madeAt: '2026-11-28T10:00:00.000Z',
  recordRevision: 3,
  cap: 36,
  levers: [{ id: 'clean', name: 'Clean', change: [], moves: 'cooling' }],
  promised: {
    wattsGained: gain,
    dbSaved: gain,
    kelvinSaved: gain,
    chanceNoticeable: 0.9,
    tooSmallToFeel: false,
  },
  steps: [{ id: 'run-before', words: 'Make the run before' }],
});
const refused = (value: unknown) => {
  const taken = plansKind.accept(value);
  return 'refused' in taken ? taken.refused : [];
};

test('plans are taken as they are, with what later versions add', () => {
  const value = { ...NO_PLANS, plans: [{ ...plan('a'), later: 1 }], more: true };
  expect(plansKind.accept(value)).toEqual({ value });
  expect(plansKind.describe(value)).toBe('1 plan');
  expect(plansKind.read(value)).toEqual(value);
  expect(plansKind.read({ format: 'other' })).toBeNull();
});

test('what cannot be is refused at its place', () => {
  expect(refused({ ...NO_PLANS, plans: [plan('a'), plan('a')] })).toEqual([
    { path: 'plans.1.id', message: 'is taken already' },
  ]);
  expect(refused({ ...NO_PLANS, formatVersion: 2 })[0]).toMatchObject({ path: 'formatVersion' });
  expect(refused({ ...NO_PLANS, plans: [{ ...plan('a'), levers: [] }] })).toEqual([
    { path: 'plans.0.levers', message: 'needs a lever' },
  ]);
  expect(refused({ ...NO_PLANS, plans: [{ ...plan('a'), cap: 'loud' }] })[0]!.message).toBe(
    'must be a level, off or full',
  );
  const many = Array.from({ length: MAX_PLANS + 1 }, (_, i) => plan(String(i)));
  expect(refused({ ...NO_PLANS, plans: many })[0]!.path).toBe('plans');
  const odd = { ...plan('a'), checked: { 'run-before': 'yesterday' } };
  expect(refused({ ...NO_PLANS, plans: [odd] })[0]).toEqual({
    path: 'plans.0.checked.run-before',
    message: 'needs a date and a time',
  });
});

test('the runs of a plan are what it refers to', () => {
  const own = { ...plan('a'), runBefore: 'r1', runAfter: null };
  expect(plansKind.refersTo({ ...NO_PLANS, plans: [own] })).toEqual([{ kind: 'run', id: 'r1' }]);
});

test('docs/format/plans.schema.json is what the Zod schema says (npm run docs)', () => {
  const file = join(__dirname, '../../docs/format/plans.schema.json');
  expect(readFileSync(file, 'utf8')).toBe(plansJsonSchema());
});
