import { describeChange } from './describeChange';

const ID = '5f3a1c2e-9b7d-4e21-8a44-0c1d2e3f4a5b';
const OTHER = '6f3a1c2e-9b7d-4e21-8a44-0c1d2e3f4a5b';
const plans = (own: object) => ({ plans: [{ id: ID, madeAt: 'then', ...own }] });
const said = (before: object, after: object) =>
  describeChange('plans', plans(before), plans(after)).label;

test('a change of a plan is said without the names that only the program knows', () => {
  expect(said({ hoursSince: 12 }, { hoursSince: 4000 })).toBe('hours since, plan: 12 → 4000');
  expect(said({ runBefore: ID }, { runBefore: OTHER })).toBe('run before, plan changed');
  expect(said({ runBefore: null }, { runBefore: OTHER })).toBe('run before, plan changed');
  expect(said({}, { hoursSince: 12 })).toBe('hours since, plan added');
  for (const label of [
    describeChange('plans', { plans: [] }, plans({})).label,
    describeChange('plans', plans({}), { plans: [] }).label,
  ])
    expect(label).not.toContain(ID.slice(0, 8));
});

test('entries of a log keep the words they go by', () => {
  const log = (screws: string[]) => ({ steps: [{ id: 'step3', screws }] });
  expect(describeChange('log', log(['s1']), log(['s1', 's2'])).label).toContain('step 3');
});
