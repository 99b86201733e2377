import { openCase } from '../case/openCase';
import { stateForCap, type Cap } from '../envelope/fanStates';
import { settleAt } from '../envelope/pointReadout';
import { buildModel } from '../network/machineModel';
import { junctionC } from '../network/steadyState';
import { resolveCase } from '../record/resolveCase';
import { exampleRecord } from '../test-support/exampleRecord';
import { drawFigures, figuresOf } from './drawnFigures';
import { planDraws } from './drawPlan';
import { COLUMNS, roomForDraws, runDraws } from './draws';
import { junctionAt, nearestDie, roomForJunctions } from './rowJunctions';

const CAPS: Cap[] = ['off', 18, 30, 36, 42, 70, 'full'];
const ROWS = 12;

test.each(['two-fan-shared-pipes', 'four-fan-eight-pipes', 'one-die'] as const)(
  '%s: what is kept of each row is what its dies read where each is settled by itself',
  (name) => {
    const record = exampleRecord(name);
    const open = openCase({ record });
    const plan = planDraws(open, { draws: ROWS, caps: CAPS, seed: 7, togetherOnly: true });
    const drawn = roomForDraws(plan, ROWS);
    const kept = roomForJunctions(plan);
    runDraws(plan, 0, ROWS, drawn, kept);
    const figures = figuresOf(plan);
    const readout = plan.wanted.indexOf(true);
    for (let row = 0; row < ROWS; row++) {
      drawFigures(plan, row, figures);
      const model = buildModel(resolveCase(record, figures, { silent: true }));
      CAPS.forEach((cap, c) => {
        const place = row * CAPS.length + c;
        const most = drawn.watts[place * COLUMNS + readout]!;
        const { rpms } = stateForCap(model.data, cap).state;
        // the watts of before are some per cent off those of after
        for (const share of [1, 0.93]) {
          const watts = share * most;
          const [cpuW, gpuW] = [watts * kept.ray.cpu, watts * kept.ray.gpu];
          const settled = settleAt(model, rpms, cpuW, gpuW);
          const own = model.data.dies.map((_, i) => junctionC(model, settled, i, cpuW, gpuW));
          const within = rpms.some((x) => x > 0) ? 0.4 : 0.25;
          own.forEach((c, i) => {
            expect(Math.abs(junctionAt(kept, place, i, watts) - c)).toBeLessThan(within);
          });
          const left = own.map((c, i) => model.data.dies[i]!.maxJunctionC - c);
          expect(left[nearestDie(kept, place, watts)]! - Math.min(...left)).toBeLessThan(
            2 * within,
          );
        }
      });
    }
  },
);

test('a level above the loudest state keeps what full speed keeps', () => {
  const open = openCase({ record: exampleRecord('two-fan-shared-pipes') });
  const plan = planDraws(open, { draws: 2, caps: [36, 70, 'full'], togetherOnly: true });
  const kept = roomForJunctions(plan);
  runDraws(plan, 0, 2, roomForDraws(plan, 2), kept);
  for (const row of [0, 3]) {
    for (const die of [0, 1]) {
      expect(junctionAt(kept, row + 1, die, 80)).toBe(junctionAt(kept, row + 2, die, 80));
      expect(junctionAt(kept, row, die, 80)).toBeGreaterThan(junctionAt(kept, row + 1, die, 80));
    }
  }
});
