import type { LogAnalysis, SteadyState } from './analyseLog';
import { withHeardLevel } from './withHeardLevel';

const state = (means: SteadyState['means']) =>
  ({
    fromS: 0,
    toS: 9,
    from: 0,
    to: 9,
    settledShare: 1,
    chosenBy: 'found',
    kind: 'sustained',
    means,
  }) as const;
const watts = { mean: 50, se: 0.1, plusMinus: 0.5 };
const analysis = (...steady: SteadyState[]) => ({ steady }) as unknown as LogAnalysis;

test('the last steady state gets the level of a recording, the background taken off', () => {
  const told = withHeardLevel(
    analysis(state({ cpuPowerW: watts }), state({ cpuPowerW: watts })),
    40,
    34,
  );
  expect(told.steady[0]!.means['levelDbA']).toBeUndefined();
  // ISO 3744: 1.26 dB at 6 dB; from memory
  expect(told.steady[1]!.means['levelDbA']!.mean).toBeCloseTo(38.74, 2);
  expect(told.steady[1]!.means['levelDbA']!.plusMinus).toBe(0.5);
  expect(told.steady[1]!.means['cpuPowerW']).toBe(watts);
  const near = withHeardLevel(analysis(state({})), 36, 34);
  expect(near.steady[0]!.means['levelDbA']).toMatchObject({ mean: 34.7, upperBound: true });
});

test('a level that was logged stays, and without a recording or a steady state nothing changes', () => {
  const logged = analysis(state({ levelDbA: watts }));
  expect(withHeardLevel(logged, 40, null)).toBe(logged);
  const none = analysis();
  expect(withHeardLevel(none, 40, null)).toBe(none);
  const silent = analysis(state({}));
  expect(withHeardLevel(silent, null, 20)).toBe(silent);
});
