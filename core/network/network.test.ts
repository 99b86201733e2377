import fc from 'fast-check';
import { Matrix, LuDecomposition } from 'ml-matrix';
import { referenceMatrix } from '../test-support/referenceMatrix';
import { fanState } from '../envelope/fanStates';
import { contactHeat } from '../envelope/pipeLimitPlanes';
import { resolveCase } from '../record/resolveCase';
import { exampleRecord } from '../test-support/exampleRecord';
import { randomRecord } from '../test-support/randomRecord';
import { buildModel } from './machineModel';
import type { MachineModel } from './networkModel';
import { exhaustC, nodeC, solveLinear, type LinearState } from './steadyState';

const RUNS = { numRuns: 40, seed: 11, endOnFailure: true };

function solved(
  record: Parameters<typeof resolveCase>[0],
  duty: number,
  overrides?: ReadonlyMap<string, number>,
) {
  const model = buildModel(resolveCase(record, overrides));
  const { rpms } = fanState(model.data, duty);
  return { model, rpms, state: solveLinear(model, rpms) };
}

/** Heat that leaves through shell and air, recomputed from the temperatures. */
function heatOut(model: MachineModel, state: LinearState, cpuW: number, gpuW: number): number {
  const ambientC = model.data.room.temperatureC;
  const t = (node: number) => nodeC(model, state, node, cpuW, gpuW);
  let out = state.shellWPerK * (t(model.shellNode) - ambientC);
  if (state.totalCapacityWPerK > 0) {
    // what leaves is the mean of stack outlets and the air that leaked past them
    let sum = 0;
    let through = 0;
    state.capacityWPerK.forEach((c, i) => {
      sum += c * exhaustC(model, state, i, cpuW, gpuW);
      through += c;
    });
    sum += (state.totalCapacityWPerK - through) * t(model.intakeNode);
    const mixed = sum / state.totalCapacityWPerK;
    out += (1 - model.data.air.recirculation) * state.totalCapacityWPerK * (mixed - ambientC);
  }
  return out;
}

test('law: heat of dies, regulators, rest and fans = enthalpy of the air + shell losses, to 1e-9', () => {
  fc.assert(
    fc.property(
      randomRecord,
      fc.constantFrom(0, 0.5, 1),
      fc.nat(80),
      fc.nat(120),
      (record, duty, cpu, gpu) => {
        const { model, state } = solved(record, duty);
        const heat =
          cpu * model.drawPerCpuW +
          gpu * model.drawPerGpuW +
          model.data.power.restW * (1 - model.data.power.restLidShare) +
          state.fanPowerW;
        expect(Math.abs(heatOut(model, state, cpu, gpu) / heat - 1)).toBeLessThan(1e-9);
      },
    ),
    RUNS,
  );
});

test('law: no node is colder than the room with sources ≥ 0', () => {
  fc.assert(
    fc.property(randomRecord, fc.constantFrom(0, 0.4, 1), (record, duty) => {
      const { state } = solved(record, duty);
      for (const vector of [state.base, state.perCpuW, state.perGpuW]) {
        for (const x of vector) expect(x).toBeGreaterThanOrEqual(-1e-9);
      }
    }),
    RUNS,
  );
});

test('law: superposition at fixed properties', () => {
  const { model, state } = solved(exampleRecord('two-fan-shared-pipes'), 0.8);
  for (let node = 0; node < model.nodeCount; node++) {
    const both = nodeC(model, state, node, 40, 70) - nodeC(model, state, node, 0, 0);
    const each =
      nodeC(model, state, node, 40, 0) +
      nodeC(model, state, node, 0, 70) -
      2 * nodeC(model, state, node, 0, 0);
    expect(both).toBeCloseTo(each, 9);
  }
});

test('law: raising a conductance to the room raises no node; raising any other never a source’s own resistance', () => {
  fc.assert(
    fc.property(
      randomRecord,
      fc.nat(1000),
      fc.double({ min: 1.05, max: 4, noNaN: true }),
      (record, pick, more) => {
        const overrides = new Map([['fans.recirculation', 0]]);
        const { model, rpms, state } = solved(record, 0.8, overrides);
        const link = model.links[pick % model.links.length]!;
        link.conductanceWPerK *= more;
        const raised = solveLinear(model, rpms);
        const own = (s: LinearState) => [
          s.perCpuW.reduce((sum, x, i) => sum + x * model.heatPerCpuW[i]!, 0),
          s.perGpuW.reduce((sum, x, i) => sum + x * model.heatPerGpuW[i]!, 0),
        ];
        // the intake air carries heat one way only: links to it are no plain conductances
        own(raised).forEach((r, i) => expect(r).toBeLessThanOrEqual(own(state)[i]! * (1 + 1e-9)));
      },
    ),
    RUNS,
  );
  const { model, rpms, state } = solved(
    exampleRecord('two-fan-shared-pipes'),
    0.8,
    new Map([['fans.recirculation', 0]]),
  );
  model.data.shell.evenness *= 1.5;
  const better = solveLinear(model, rpms);
  for (const vector of ['base', 'perCpuW', 'perGpuW'] as const) {
    better[vector].forEach((x, i) => expect(x).toBeLessThanOrEqual(state[vector][i]! + 1e-12));
  }
});

test('the network solves as through ml-matrix’s LU (reference package)', () => {
  const { model, state } = solved(exampleRecord('four-fan-eight-pipes'), 0.9);
  const edges = model.links.map((l) => [l.a, l.b, l.conductanceWPerK] as const);
  const a = referenceMatrix(model, state, model.nodeCount, edges);
  const solution = new LuDecomposition(a)
    .solve(Matrix.columnVector(Array.from(model.heatPerGpuW)))
    .to1DArray();
  solution.forEach((y, i) => expect(state.perGpuW[i]).toBeCloseTo(y, 9));
});

test('heat into a pipe equals heat out of it', () => {
  const { model, state } = solved(exampleRecord('four-fan-eight-pipes'), 0.9);
  model.pipeNode.forEach((_, k) => {
    const heat = new Float64Array(model.pipeContacts[k]!.length);
    contactHeat(model, k, state.perCpuW, heat);
    expect(heat.reduce((sum, q) => sum + q, 0)).toBeCloseTo(0, 9);
    expect(Math.max(...heat.map(Math.abs))).toBeGreaterThan(1e-3);
  });
});

test('the deck, facing up, gives more to the room than the base, facing down (Incropera et al., ch. 9)', () => {
  const shellWith = (deckShare: number, baseShare: number) => {
    const data = resolveCase(exampleRecord('two-fan-shared-pipes'));
    const model = buildModel({ ...data, shell: { ...data.shell, deckShare, baseShare } });
    return solveLinear(model, fanState(model.data, 0).rpms).shellWPerK;
  };
  const [deck, base] = [shellWith(1, 0), shellWith(0, 1)];
  expect(deck).toBeGreaterThan(1.1 * base);
  expect(shellWith(0.5, 0.5)).toBeGreaterThan(base);
});
