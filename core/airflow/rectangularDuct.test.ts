import {
  ductApparentFriction,
  ductFrictionRe,
  ductMeanNusselt,
  ductNusseltT,
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

const long = { gapM: 1e-3, heightM: 1e-2, lengthM: 10 };
const short = { gapM: 1e-3, heightM: 1e-2, lengthM: 0.02 };

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
    const duct = { gapM, heightM: 1, lengthM };
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
