import fc from 'fast-check';
import { buildModel } from '../network/machineModel';
import { parseRecord } from '../record/parseRecord';
import { resolveCase } from '../record/resolveCase';
import { randomRecord } from '../test-support/randomRecord';
import { carryOnRay, createMemory, solveAt } from './carry';
import { controlGroups, fanState, stateForCap } from './fanStates';

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
