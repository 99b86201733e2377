import {
  ductApparentFriction,
  ductFrictionRe,
  ductMeanNusselt,
  ductNusseltT,
  ductOf,
  gnielinski,
} from './rectangularDuct';

// Shah & London 1978, fully developed laminar flow in rectangular ducts
test.each([
  [1, 2.976, 14.227],
  [1 / 2, 3.391, 15.548],
  [1 / 4, 4.439, 18.233],
  [1 / 8, 5.597, 20.585],
  [0, 7.541, 24],
])('aspect %f: published Nu and f·Re', (aspect, nusselt, friction) => {
  expect(Math.abs(ductNusseltT(aspect) / nusselt - 1)).toBeLessThan(0.005);
  expect(Math.abs(ductFrictionRe(aspect) / friction - 1)).toBeLessThan(0.005);
});

const long = ductOf(1e-3, 1e-2, 10);
const short = ductOf(1e-3, 1e-2, 0.02);

test('a very long duct comes to the fully developed values', () => {
  expect(ductApparentFriction(long, 300) * 300).toBeCloseTo(ductFrictionRe(0.1), 1);
  expect(ductMeanNusselt(long, 300, 0.7)).toBeCloseTo(ductNusseltT(0.1), 1);
});

// Shah & London 1978, parallel plates: 3.44/√x⁺ + (24 + 0.674/(4x⁺) − 3.44/√x⁺)/(1 + 2.9e-5/x⁺²); from memory
test.each([0.003, 0.01, 0.03, 0.1])(
  'parallel plates at x⁺ = %f: apparent friction within 8 %%',
  (xPlus) => {
    const entry = 3.44 / Math.sqrt(xPlus);
    const published = entry + (24 + 0.674 / (4 * xPlus) - entry) / (1 + 2.9e-5 / xPlus ** 2);
    const reynolds = 1000;
    const gapM = 1e-3;
    const dh = 2 * gapM;
    const lengthM = xPlus * dh * reynolds;
    const duct = ductOf(gapM, 1, lengthM);
    const ours = ductApparentFriction(duct, reynolds) * reynolds;
    expect(Math.abs(ours / published - 1)).toBeLessThan(0.08);
  },
);

test('entrance raises friction and heat transfer', () => {
  expect(ductApparentFriction(short, 800)).toBeGreaterThan(ductApparentFriction(long, 800));
  expect(ductMeanNusselt(short, 800, 0.7)).toBeGreaterThan(ductMeanNusselt(long, 800, 0.7));
});

test('turbulent flow follows Blasius (0.0791 Re^−0.25)', () => {
  const reynolds = 20_000;
  expect(ductApparentFriction(long, reynolds)).toBeCloseTo(0.0791 * reynolds ** -0.25, 4);
});

test('Gnielinski at Re 10 000, Pr 0.7: 29.8 (Incropera et al., eq. 8.62 worked by hand)', () => {
  // f = (0.79 ln 1e4 − 1.64)^−2 = 0.03148; Nu = 0.003935·9000·0.7/(1 + 12.7·0.06273·(0.7884 − 1)) = 29.8
  expect(gnielinski(10_000, 0.7)).toBeCloseTo(29.8, 1);
  // Dittus–Boelter, heated: 0.023 Re^0.8 Pr^0.4 = 31.6; the two are known to lie within 10 % here
  expect(Math.abs(gnielinski(10_000, 0.7) / (0.023 * 10_000 ** 0.8 * 0.7 ** 0.4) - 1)).toBeLessThan(
    0.1,
  );
});

test('no jump where laminar passes into turbulent', () => {
  for (const re of [2300, 4000]) {
    const step = ductMeanNusselt(short, re + 1e-6, 0.7) - ductMeanNusselt(short, re - 1e-6, 0.7);
    expect(Math.abs(step)).toBeLessThan(1e-4);
  }
});

// Shah & London 1978: parallel plates, uniform wall temperature, Pr 0.72, simultaneously developing, mean Nu at
// correlation 7.55 + 0.024 x*^−1.14 / (1 + 0.0358 Pr^0.17 x*^−0.64); from memory
test.each([0.005, 0.01, 0.02, 0.05])(
  'parallel plates at x* = %f: mean Nu within 8 %%, inside the ±10 %% of the model form',
  (x) => {
    const published = 7.55 + (0.024 * x ** -1.14) / (1 + 0.0358 * 0.72 ** 0.17 * x ** -0.64);
    const reynolds = 1000;
    const gapM = 1e-3;
    const duct = ductOf(gapM, 100, x * 2 * gapM * reynolds * 0.72);
    expect(Math.abs(ductMeanNusselt(duct, reynolds, 0.72) / published - 1)).toBeLessThan(0.08);
  },
);
