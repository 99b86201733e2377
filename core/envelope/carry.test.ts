import fc from 'fast-check';
import { openCase } from '../case/openCase';
import { buildModel } from '../network/machineModel';
import { createState, nodeC } from '../network/steadyState';
import { parseRecord } from '../record/parseRecord';
import { resolveCase } from '../record/resolveCase';
import { exampleRecord } from '../test-support/exampleRecord';
import { randomRecord } from '../test-support/randomRecord';
import { boundaryOnRay } from './boundary';
import { carryOnRay, createMemory, solveAt } from './carry';
import { controlGroups, fanState, stateForCap } from './fanStates';
import { contactHeat, pipeCapability } from './pipeLimitPlanes';
import { settleAt } from './pointReadout';

test('no slower fan state carries more than what is found at a cap, tried one by one', () => {
  let tried = 0;
  fc.assert(
    fc.property(
      randomRecord,
      fc.integer({ min: 26, max: 46 }),
      fc.double({ min: 0.05, max: 0.95, noNaN: true }),
      (random, cap, share) => {
        const { record, complete } = parseRecord(random);
        if (!complete || !record) return;
        const model = buildModel(resolveCase(record));
        const { data } = model;
        if (controlGroups(data).length > 1) return;
        const cpu = !model.hasGpu ? 1 : !model.hasCpu ? 0 : share;
        const ray = { cpu, gpu: 1 - cpu };
        const { state } = stateForCap(data, cap);
        const found = carryOnRay(model, state, ray, null, createMemory(model));
        const own = createMemory(model);
        const [most] = state.duties;
        for (let k = 1; k <= 12; k++) {
          const slower = fanState(data, (most! * k) / 12);
          const { watts } = solveAt(model, slower, ray, null, own).point;
          expect(found.point.watts).toBeGreaterThanOrEqual(watts * (1 - 1e-3) - 1e-3);
          tried++;
        }
      },
    ),
    { numRuns: 60, seed: 21, endOnFailure: true },
  );
  expect(tried).toBeGreaterThan(200);
});

test('a pipe that binds is at its limit with the vapor it has there, and at none below', () => {
  const overrides = new Map([['heatPipes.limitFactor.sintered', 0.4]]);
  const { model } = openCase({ record: exampleRecord('one-die'), overrides });
  const ray = { cpu: 1, gpu: 0 };
  for (const duty of [0.4, 0.7, 1]) {
    const { rpms } = fanState(model.data, duty);
    const point = boundaryOnRay(model, rpms, ray, null, createState(model));
    expect(point.binding.limit).toBe('pipe');
    /** Load over limit at some watts, each with its own vapor. */
    const loaded = (watts: number) => {
      const state = settleAt(model, rpms, watts, 0);
      const heat = new Float64Array(model.pipeContacts[0]!.length);
      contactHeat(
        model,
        0,
        state.base.map((x, i) => x + watts * state.perCpuW[i]!),
        heat,
      );
      const { integral, places } = model.pipeProfiles[0]!;
      const integrals = Array.from({ length: places }, (_, i) =>
        heat.reduce((sum, q, j) => sum + integral[i * heat.length + j]! * q, 0),
      );
      const vaporC = nodeC(model, state, model.pipeNode[0]!, watts, 0);
      return (
        (Math.max(...integrals) - Math.min(...integrals)) /
        pipeCapability(model, 0, vaporC).transportCapacityWm
      );
    };
    expect(loaded(point.watts)).toBeCloseTo(1, 3);
    for (const share of [0.5, 0.8, 0.98]) expect(loaded(share * point.watts)).toBeLessThan(1);
  }
});

test('a pipe that boils, which hotter vapor does sooner, is at its limit with the vapor it has there', () => {
  // bubbles nearly as large as the pores: it boils at a few watts per square centimetre
  const overrides = new Map([['heatPipes.nucleationUm', 42]]);
  const { model } = openCase({ record: exampleRecord('two-fan-shared-pipes'), overrides });
  const { rpms } = fanState(model.data, 1);
  for (const ray of [
    { cpu: 1, gpu: 0 },
    { cpu: 0.3, gpu: 0.7 },
  ]) {
    const { watts, binding } = boundaryOnRay(model, rpms, ray, null, createState(model));
    expect(binding).toMatchObject({ limit: 'pipe', kind: 'boiling' });
    const load = (w: number) => {
      const [cpuW, gpuW] = [w * ray.cpu, w * ray.gpu];
      const state = settleAt(model, rpms, cpuW, gpuW);
      const contacts = model.pipeContacts[0]!;
      const heat = new Float64Array(contacts.length);
      const above = state.base.map(
        (x, i) => x + cpuW * state.perCpuW[i]! + gpuW * state.perGpuW[i]!,
      );
      contactHeat(model, 0, above, heat);
      const { fluxWm2 } = pipeCapability(
        model,
        0,
        nodeC(model, state, model.pipeNode[0]!, cpuW, gpuW),
      );
      return Math.max(...contacts.map((c, j) => heat[j]! / c.areaM2)) / fluxWm2;
    };
    expect(load(watts)).toBeCloseTo(1, 2);
    expect(load(0.9 * watts)).toBeLessThan(1);
    expect(load(1.1 * watts)).toBeGreaterThan(1);
  }
});
