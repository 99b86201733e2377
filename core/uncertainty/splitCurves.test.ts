import type { SplitSet } from './centralSplits';
import { createSplitCurves } from './splitCurves';

const CPU = 0;
const GPU = 8;
const PIPE = 8193;

/** What two junctions do over the split of two fans: logarithms of watts. */
type Curve = (x: number) => number;

function machine(curves: ReadonlyMap<number, { lnW: number; slope: number; bend: number }>) {
  const set: SplitSet = {
    of: [true],
    shares: [1, 1],
    isOpen: false,
    stops: [],
    ends: null,
    curves: [
      new Map(
        [...curves].map(([code, { lnW, slope, bend }]) => [
          code,
          { lnW, slope: [0, slope], bend: [0, bend] },
        ]),
      ),
    ],
  };
  const of = createSplitCurves(1, [CPU, GPU]);
  of.begin(2);
  of.start(0, set);
  const look = (x: number, cpu: Curve, gpu: Curve, pipe: Curve = () => Infinity) => {
    const lns = [cpu(x), gpu(x), pipe(x)];
    const least = Math.min(...lns);
    const held = [CPU, GPU, PIPE][lns.indexOf(least)]!;
    of.note(
      0,
      [0, x],
      Math.exp(least),
      held,
      Float64Array.of(Math.exp(lns[0]!), Math.exp(lns[1]!)),
    );
    return held;
  };
  const top = (least = -0.7, greatest = 0.7) => ({
    watts: of.seekTop(0, 0, [0, least], [0, greatest]),
    at: of.topOf(0)[1]!,
  });
  return { of, set, look, top };
}
const central = new Map([
  [CPU, { lnW: 4, slope: 0, bend: -0.6 }],
  [GPU, { lnW: 4.6, slope: 0.3, bend: -0.4 }],
]);
const far: Curve = () => 7;
const parabola =
  (lnW: number, slope: number, bend: number): Curve =>
  (x) =>
    lnW + slope * x + 0.5 * bend * x * x;

test('before a look nothing is known; one tells how high, two how tilted, and the top is that of the parabola', () => {
  const { look, top, of } = machine(central);
  expect(top().watts).toBe(0);
  const cpu = parabola(3.8, 0.15, -0.6);
  look(0, cpu, far);
  expect(of.isTilted([true], Uint16Array.of(CPU), 1)).toBe(false);
  expect(top().at).toBeCloseTo(0, 9);
  look(0.12, cpu, far);
  expect(of.isTilted([true], Uint16Array.of(CPU), 1)).toBe(true);
  // −slope / bend
  expect(top().at).toBeCloseTo(0.25, 6);
  expect(top().watts).toBeCloseTo(Math.exp(cpu(0.25)), 6);
});

test('where two limits cross before the first one’s top, the crossing is the top', () => {
  const { look, top } = machine(central);
  const cpu = parabola(3.8, 0.4, -0.6);
  const gpu = parabola(3.9, -0.5, -0.4);
  look(0, cpu, gpu);
  look(0.12, cpu, gpu);
  // 3.8 + 0.4 x − 0.3 x² = 3.9 − 0.5 x − 0.2 x²: 0.1 x² − 0.9 x + 0.1 = 0
  const crossing = (0.9 - Math.sqrt(0.81 - 0.04)) / 0.2;
  expect(top().at).toBeCloseTo(crossing, 3);
  expect(top().watts).toBeCloseTo(Math.exp(cpu(crossing)), 2);
});

test('bounds are kept', () => {
  const { look, top } = machine(central);
  const cpu = parabola(3.8, 0.6, -0.6);
  look(0, cpu, far);
  look(0.12, cpu, far);
  expect(top(-0.2, 0.3).at).toBeCloseTo(0.3, 9);
});

test('looks too near each other tell no tilt', () => {
  const { look, of } = machine(central);
  const cpu = parabola(3.8, 0.15, -0.6);
  look(0, cpu, far);
  look(0.03, cpu, far);
  expect(of.isTilted([true], Uint16Array.of(CPU), 1)).toBe(false);
});

test('what one cap taught is expected of the next, unless that one is quite otherwise', () => {
  const { look, top, of, set } = machine(central);
  const cpu = parabola(3.8, 0.15, -0.6);
  look(0, cpu, far);
  look(0.12, cpu, far);
  of.start(1, set);
  expect(top().at).toBeCloseTo(0.25, 6);
  look(0.25, (x) => cpu(x) + 0.05, far);
  expect(of.isTilted([true], Uint16Array.of(CPU), 1)).toBe(true);
  of.start(2, set);
  look(0.25, (x) => cpu(x) - 0.5, far);
  expect(of.isTilted([true], Uint16Array.of(CPU), 1)).toBe(false);
});

const falling = new Map([
  [CPU, { lnW: 4, slope: 0, bend: -0.6 }],
  [GPU, { lnW: 4.6, slope: -0.3, bend: -0.4 }],
]);

test('a limit that was near at one cap and lies far off at the next holds no more', () => {
  const { look, top, of, set } = machine(falling);
  const cpu = parabola(3.8, 0.15, -0.6);
  look(0, cpu, () => 3.82);
  expect(top().at).toBeLessThan(0.1);
  of.start(1, set);
  look(0, cpu, far);
  look(0.12, cpu, far);
  expect(top().watts).toBeCloseTo(Math.exp(cpu(0.25)), 6);
});

test('a tilt is never told from looks at two caps', () => {
  const { look, top, of, set } = machine(falling);
  const cpu = parabola(3.8, 0.15, -0.6);
  look(0, cpu, () => 4);
  of.start(1, set);
  look(0, cpu, far);
  look(0.12, cpu, () => 3.83);
  // by the central slope: 3.83 − 0.3 (x − 0.12) − 0.2 (x² − 0.12²) = 3.8 + 0.15 x − 0.3 x² at 0.1603
  expect(top().at).toBeCloseTo(0.16, 2);
});

test('a row forgets the one before', () => {
  const { look, top, of, set } = machine(central);
  look(0, parabola(3.8, 0.15, -0.6), far);
  of.begin(2);
  of.start(0, set);
  expect(top().watts).toBe(0);
});

test('a limit of which the central values say nothing is learned from looks alone', () => {
  const { look, top } = machine(central);
  const pipe = parabola(3.5, -0.1, -0.5);
  const cpu = parabola(3.8, 0.15, -0.6);
  expect(look(0, cpu, far, pipe)).toBe(PIPE);
  look(-0.12, cpu, far, pipe);
  expect(top().at).toBeCloseTo(-0.2, 6);
  expect(top().watts).toBeCloseTo(Math.exp(pipe(-0.2)), 6);
});

test('which way is better is told by the central slope until it is known', () => {
  const { look, of } = machine(new Map([[CPU, { lnW: 4, slope: -0.2, bend: -0.6 }]]));
  look(0, far, far, () => 3);
  const held = Uint16Array.of(CPU);
  expect(of.betterWay([true], held, 1, 0)).toBe(-1);
  expect(of.betterWay([true], held, 1, -0.5)).toBe(1);
});
