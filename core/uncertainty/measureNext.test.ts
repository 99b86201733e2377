import { openCase } from '../case/openCase';
import { DEFAULTS, type DefaultKey } from '../record/defaults';
import { fieldAt } from '../record/fieldTable';
import { exampleRecord } from '../test-support/exampleRecord';
import { planDraws, type DrawPlan } from './drawPlan';
import { measureNext } from './measureNext';
import { SETTLED_BY } from './settledBy';

/** A plan of causes of which each is known to so many per cent. */
const plan = (inputs: Record<string, string | null>, relative: number): DrawPlan =>
  ({
    inputs: Object.entries(inputs).map(([path, key]) => ({ path, key })),
    columns: Object.keys(inputs).map((name) => ({ name, relative })),
    calibrated: [],
  }) as unknown as DrawPlan;
const HALF_W = 10;
const nothingRead = () => HALF_W;
const left = (share: number, after: number, now: number) =>
  HALF_W * Math.sqrt(1 - share * (1 - (after / now) ** 2));

test('a figure read with a calliper leaves 2 %, one off a package 15 %', () => {
  const paths = { 'finStacks.fins.depthMm': null, 'dies.gpu.interface.conductivityWmK': null };
  const next = measureNext(
    plan(paths, 0.3),
    Object.keys(paths).map((input) => ({ input, share: 0.4 })),
    HALF_W,
    nothingRead,
  );
  expect(next.map((n) => [n.means, n.inputs[0]])).toEqual([
    ['figure', 'finStacks.fins.depthMm'],
    ['figure', 'dies.gpu.interface.conductivityWmK'],
  ]);
  expect(next[0]!.thenW).toBeCloseTo(left(0.4, 0.02, 0.3), 9);
  expect(next[1]!.thenW).toBeCloseTo(left(0.4, 0.15, 0.3), 9);
});

test('one fan curve settles its coefficients together, of each kind of fan; a run and a sweep theirs', () => {
  const inputs = {
    'fans.psi.66x9': 'fans.psi',
    'fans.phi.66x9': 'fans.phi',
    'fans.curveExponent': 'fans.curveExponent',
    'finStacks.uaFactor': 'finStacks.uaFactor',
    'noise.referenceDbA': 'noise.referenceDbA',
  };
  const shares = Object.keys(inputs).map((input) => ({ input, share: 0.15 }));
  const next = measureNext(plan(inputs, 0.2), shares, HALF_W, (means) =>
    means === 'noise-sweep' ? 9 : 4,
  );
  expect(Object.fromEntries(next.map((n) => [n.means, n.inputs]))).toEqual({
    'fan-curve': ['fans.psi.66x9', 'fans.phi.66x9', 'fans.curveExponent'],
    'run-under-load': ['finStacks.uaFactor'],
    'noise-sweep': ['noise.referenceDbA'],
  });
  const thenOf = Object.fromEntries(next.map((n) => [n.means, n.thenW]));
  expect(thenOf['fan-curve']).toBeCloseTo(left(0.45, 0.04, 0.2), 9);
  // what a run and a sweep leave is told by the draws
  expect([thenOf['run-under-load'], thenOf['noise-sweep']]).toEqual([4, 9]);
  expect(next.map((n) => n.thenW)).toEqual(next.map((n) => n.thenW).sort((a, b) => a - b));
});

test('what is chosen or cannot be found out is not proposed, nor what is known well already', () => {
  const shares = (path: string) => [{ input: path, share: 0.9 }];
  for (const path of ['shell.skinLimitC', 'vents.gapLoss', 'nothing.known']) {
    expect(measureNext(plan({ [path]: null }, 0.3), shares(path), HALF_W, nothingRead)).toEqual([]);
  }
  const depth = 'finStacks.fins.depthMm';
  expect(measureNext(plan({ [depth]: null }, 0.01), shares(depth), HALF_W, nothingRead)).toEqual(
    [],
  );
});

test('whatever is drawn is read off the machine, settled by an act of the bench, or decided by the house', () => {
  const decided = ['shell.skinLimitC', 'shell.exhaustLimitC'];
  const nameless = new Set<string>();
  for (const name of ['two-fan-shared-pipes', 'four-fan-eight-pipes', 'one-die'] as const) {
    for (const input of planDraws(openCase({ record: exampleRecord(name) }), { draws: 8 }).inputs) {
      const key = (input.key ?? input.path) as DefaultKey;
      const d = DEFAULTS[key];
      if (d && d.low === d.high) continue;
      if (!SETTLED_BY[key] && !fieldAt(input.path)?.measured) nameless.add(key);
    }
  }
  expect([...nameless].sort()).toEqual([...decided].sort());
});
