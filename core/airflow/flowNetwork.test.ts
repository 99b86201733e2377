import fc from 'fast-check';
import { fanCurveFromCoefficients, pressureAtFlow } from './fanCurve';
import { flowNetwork, solveFlows, type FanBranch, type FlowBranch } from './flowNetwork';

const curve = fanCurveFromCoefficients(
  { impellerDiameterM: 0.058, bladeHeightM: 0.008 },
  5000,
  0.9,
  0.1,
  1.5,
  1.2,
);
const fan = (from: number, to: number, rpm: number): FanBranch => ({
  kind: 'fan',
  from,
  to,
  curve,
  rpm,
  densityRatio: 1,
});
const loss = (from: number, to: number, linear: number, quadratic: number): FlowBranch => ({
  kind: 'passive',
  from,
  to,
  linear,
  quadratic,
});

function solved(nodes: number, branches: FlowBranch[]): Float64Array {
  const net = flowNetwork(nodes, branches);
  solveFlows(net, new Float64Array(nodes));
  return net.flows;
}

function lone(rpm: number, linear: number, quadratic: number): number {
  return solved(1, [fan(-1, 0, rpm), loss(0, -1, linear, quadratic)])[0]!;
}

test('a lone fan meets its system curve', () => {
  const flow = lone(5000, 5000, 1.5e7);
  const drop = 5000 * flow + 1.5e7 * flow * flow;
  expect(pressureAtFlow(curve, flow)).toBeCloseTo(drop, 6);
});

test('similarity laws: at a quadratic loss, flow follows speed (AMCA 201)', () => {
  // the solver keeps a tiny linear part in every resistance, hence not exact
  expect(lone(2500, 0, 2e7) / lone(5000, 0, 2e7)).toBeCloseTo(0.5, 2);
});

test('two equal fans on one plenum share the flow; with one stopped the other feeds back through it', () => {
  const branches = (rpmB: number) => [fan(-1, 0, 5000), fan(-1, 0, rpmB), loss(0, -1, 2000, 1e7)];
  const both = solved(1, branches(5000));
  expect(both[0]).toBeCloseTo(both[1]!, 9);
  const one = solved(1, branches(0));
  expect(one[1]).toBeLessThan(0);
  expect(one[2]).toBeCloseTo(one[0]! + one[1]!, 9);
});

test('always balances, whatever the speeds and losses', () => {
  fc.assert(
    fc.property(
      fc.array(fc.double({ min: 0, max: 6000, noNaN: true }), { minLength: 3, maxLength: 3 }),
      fc.array(fc.double({ min: 1e5, max: 1e9, noNaN: true }), { minLength: 5, maxLength: 5 }),
      (rpm, q) => {
        // three fans on one intake, two stacks behind, one exhaust shared
        const branches: FlowBranch[] = [
          loss(-1, 0, 0, q[0]!),
          fan(0, 1, rpm[0]!),
          fan(0, 1, rpm[1]!),
          fan(0, 2, rpm[2]!),
          loss(1, 3, 4000, q[1]!),
          loss(2, 3, 4000, q[2]!),
          loss(3, -1, 0, q[3]!),
        ];
        const f = solved(4, branches);
        const scale = Math.max(1e-9, ...Array.from(f, Math.abs));
        expect(Math.abs(f[0]! - f[1]! - f[2]! - f[3]!) / scale).toBeLessThan(1e-8);
        expect(Math.abs(f[1]! + f[2]! - f[4]!) / scale).toBeLessThan(1e-8);
        expect(Math.abs(f[4]! + f[5]! - f[6]!) / scale).toBeLessThan(1e-8);
      },
    ),
    { numRuns: 100, seed: 1 },
  );
});

test('law: a lone fan with larger impeller or height, or less loss, never moves less air', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 0.03, max: 0.08, noNaN: true }),
      fc.double({ min: 0.004, max: 0.012, noNaN: true }),
      fc.double({ min: 1e5, max: 1e8, noNaN: true }),
      fc.double({ min: 1.01, max: 1.5, noNaN: true }),
      (diameter, height, quadratic, more) => {
        const flow = (d: number, b: number, k: number) => {
          const c = fanCurveFromCoefficients(
            { impellerDiameterM: d, bladeHeightM: b },
            4000,
            0.9,
            0.1,
            1.5,
            1.2,
          );
          const f: FanBranch = {
            kind: 'fan',
            from: -1,
            to: 0,
            curve: c,
            rpm: 4000,
            densityRatio: 1,
          };
          return solved(1, [f, loss(0, -1, 3000, k)])[0]!;
        };
        const now = flow(diameter, height, quadratic) * (1 - 1e-9);
        expect(flow(diameter * more, height, quadratic)).toBeGreaterThanOrEqual(now);
        expect(flow(diameter, height * more, quadratic)).toBeGreaterThanOrEqual(now);
        expect(flow(diameter, height, quadratic / more)).toBeGreaterThanOrEqual(now);
      },
    ),
    { numRuns: 100, seed: 2 },
  );
});
