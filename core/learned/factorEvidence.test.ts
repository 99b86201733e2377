import { inverse, Matrix } from 'ml-matrix';
import { fitMultipliers } from '../calibration/fitMultipliers';
import { openCase } from '../case/openCase';
import { runsToMake } from '../method/evidence';
import { exampleRecord } from '../test-support/exampleRecord';
import { factorEvidence, learnedKey } from './factorEvidence';

const open = openCase({ record: exampleRecord('two-fan-shared-pipes') });
const fit = fitMultipliers(open, runsToMake(open, 5), { suspicions: false, draws: 800 });
const evidence = factorEvidence(fit);
const f = evidence.keys.length;

test('with the prior it is what the draws of the fit say of the factors', () => {
  const at = fit.parameters.flatMap((p, i) => (learnedKey(p.name) ? [i] : []));
  expect(evidence.keys).toEqual(at.map((i) => fit.parameters[i]!.name));
  const precision = new Matrix(f, f);
  for (let i = 0; i < f; i++) {
    for (let j = 0; j < f; j++) {
      precision.set(i, j, evidence.information[i * f + j]! + (i === j ? 1 : 0));
    }
  }
  const covariance = inverse(precision);
  const mean = covariance.mmul(Matrix.columnVector(evidence.weighted));
  const { z, count } = fit.draws;
  const n = fit.parameters.length;
  at.forEach((column, i) => {
    const own = Float64Array.from({ length: count }, (_, k) => z[k * n + column]!);
    const average = own.reduce((a, b) => a + b, 0) / count;
    const spread = Math.sqrt(own.reduce((a, b) => a + (b - average) ** 2, 0) / count);
    // draws worth a quarter of their number, and a normal approximation
    expect([evidence.keys[i], Math.abs(mean.get(i, 0) - average) < 0.2]).toEqual([
      evidence.keys[i],
      true,
    ]);
    const ratio = Math.sqrt(covariance.get(i, i)) / spread;
    expect([evidence.keys[i], ratio > 0.85 && ratio < 1.15]).toEqual([evidence.keys[i], true]);
  });
});

test('it is symmetric, tells something, and takes nothing away', () => {
  const matrix = new Matrix(f, f);
  let most = 0;
  for (let i = 0; i < f; i++) {
    for (let j = 0; j < f; j++) {
      expect(evidence.information[i * f + j]).toBeCloseTo(evidence.information[j * f + i]!, 9);
      matrix.set(i, j, evidence.information[i * f + j]! + (i === j ? 1e-6 : 0));
    }
    most = Math.max(most, evidence.information[i * f + i]!);
  }
  expect(most).toBeGreaterThan(1);
  for (let i = 0; i < f; i++) expect(evidence.information[i * f + i]).toBeGreaterThan(-1e-9);
});

test('a fit that nothing explains tells less', () => {
  // as the fit has it: draws twice as wide about the mode
  const n = fit.parameters.length;
  const z = fit.draws.z.map((x, i) => fit.z[i % n]! + 2 * (x - fit.z[i % n]!));
  const draws = { ...fit.draws, z };
  const wider = factorEvidence({ ...fit, draws, unexplained: true, misfit: 4 });
  const total = (e: typeof evidence) =>
    e.keys.reduce((sum, _, i) => sum + e.information[i * f + i]!, 0);
  expect(total(wider)).toBeLessThan(total(evidence) / 2);
});

test('without factors there is nothing to tell', () => {
  const none = fitMultipliers(open, runsToMake(open, 1), {
    only: ['plates.'],
    suspicions: false,
    draws: 50,
  });
  expect(factorEvidence(none).keys).toEqual([]);
});
