import { exhaustGrilleLoss, finRowLoss, intakeGrilleLoss, lintLoss, meshLoss } from './openings';
import { effectiveness } from './stackExchange';

test('a wide open hole loses half a head on the way in and one head on the way out (Idelchik, limits)', () => {
  expect(intakeGrilleLoss(1)).toBeCloseTo(0.5, 3);
  expect(exhaustGrilleLoss(1)).toBe(1);
  expect(meshLoss(1)).toBe(0);
  expect(finRowLoss(1)).toBe(0);
});

test.each([
  // thin grids at half their face open, the formulas worked by hand (Idelchik, entrance and exit; from memory)
  ['grille drawn through', intakeGrilleLoss, 0.5, 5.8274],
  ['grille blown through', exhaustGrilleLoss, 0.5, 8.9991],
  // circular metal wire (Idelchik; from memory): 0.65 + 1, and 0.39 + 0.18367
  ['wire mesh, half open', meshLoss, 0.5, 1.65],
  ['wire mesh, 70 % open', meshLoss, 0.7, 0.57367],
  // sudden contraction 0.42 (1 − 1/2) at an area ratio of 1/2 and sudden expansion (1 − 1/2)² (White, Fluid Mechanics, ch. 6;
  // from memory); between fins the contraction takes σ² for the flat profile (Kays & London)
  ['row of fins, half open', finRowLoss, 0.5, 0.315 + 0.25],
  ['row of fins, 80 % open', finRowLoss, 0.8, 0.1512 + 0.04],
  ['lint over a third', lintLoss, 1 / 3, 1.3 / 3 + 0.25],
])('%s', (_, loss, share, zeta) => {
  expect(loss(share)).toBeCloseTo(zeta, 3);
});

test('less open area always loses more', () => {
  for (let f = 0.1; f < 0.95; f += 0.05) {
    for (const loss of [intakeGrilleLoss, exhaustGrilleLoss, meshLoss, finRowLoss]) {
      expect(loss(f)).toBeGreaterThan(loss(f + 0.05));
    }
  }
});

test('effectiveness at one transfer unit is 1 − 1/e (Kays & London)', () => {
  expect(effectiveness(2, 2)).toBeCloseTo(1 - Math.exp(-1), 12);
});
