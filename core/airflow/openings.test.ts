import { exhaustGrilleLoss, finRowLoss, intakeGrilleLoss, meshLoss } from './openings';
import { effectiveness } from './stackExchange';

test('a wide open hole loses half a head on the way in and one head on the way out (Idelchik, limits)', () => {
  expect(intakeGrilleLoss(1)).toBeCloseTo(0.5, 3);
  expect(exhaustGrilleLoss(1)).toBe(1);
  expect(meshLoss(1)).toBe(0);
  expect(finRowLoss(1)).toBe(0);
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
