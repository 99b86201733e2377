import { pointsOpinion, pointsRule, wattsByPoints } from './pointsOpinion';

const RULE = { wattsPerFan: 20, wattsPerPipe: 8, wattsPer100Cm2: 4 };
const OWN = { fans: 2, pipes: 3, finAreaCm2: 500 };

test('each part has its watts, fins by their area', () => {
  // 2·20 + 3·8 + 5·4 by hand
  expect(wattsByPoints(RULE, OWN)).toBe(84);
  expect(pointsOpinion(RULE, OWN, [])).toEqual({ watts: 84, machines: 0, offShare: null });
});

test('machines with runs tell how far off it is, the same way above and below', () => {
  const others = [
    { ...OWN, watts: 168 },
    { ...OWN, watts: 42 },
    // no watts learned, and none by the rule
    { ...OWN, watts: 0 },
    { fans: 0, pipes: 0, finAreaCm2: 0, watts: 30 },
  ];
  const told = pointsOpinion(RULE, OWN, others)!;
  expect(told.machines).toBe(2);
  expect(told.offShare).toBeCloseTo(Math.log(2), 12);
});

test('a machine without any part has no watts by points', () => {
  expect(pointsOpinion(RULE, { fans: 0, pipes: 0, finAreaCm2: 0 }, [])).toBeNull();
});

test('a rule is bounded; what it leaves out is built in', () => {
  expect(pointsRule.parse({})).toEqual({ wattsPerFan: 15, wattsPerPipe: 10, wattsPer100Cm2: 5 });
  for (const wrong of [
    { wattsPerFan: -1 },
    { wattsPerPipe: 1001 },
    { wattsPerFan: '9' },
    { x: 1 },
  ]) {
    expect(pointsRule.safeParse(wrong).success).toBe(false);
  }
  expect(pointsRule.safeParse({ wattsPerFan: 0, wattsPerPipe: 1000 }).success).toBe(true);
});
