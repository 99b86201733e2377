import { openCase } from '../case/openCase';
import { settleAt } from '../envelope/pointReadout';
import { buildModel } from '../network/machineModel';
import { junctionC } from '../network/steadyState';
import { resolveCase } from '../record/resolveCase';
import { exampleRecord } from '../test-support/exampleRecord';
import { drawFigures, figuresOf } from './drawnFigures';
import { planDraws } from './drawPlan';
import { roomForDraws, runDraws } from './draws';
import { runReadings } from './runReadings';

const ROWS = 10;

test.each([
  ['where full speed was solved last', ['full'] as const],
  ['where a quiet level was', [28] as const],
])('a run of a draw reads what the draw settles at: %s', (_, caps) => {
  const record = exampleRecord('two-fan-shared-pipes');
  const open = openCase({ record });
  const plan = planDraws(open, { draws: ROWS, caps: [...caps], seed: 2 });
  const drawn = roomForDraws(plan, ROWS);
  runDraws(plan, 0, ROWS, drawn);
  const { cpuW, gpuW } = plan.run!;
  const figures = figuresOf(plan);
  for (let row = 0; row < ROWS; row++) {
    drawFigures(plan, row, figures);
    const model = buildModel(resolveCase(record, figures, { silent: true }));
    const rpms = model.data.fans.map((f) => f.maxRpm);
    const settled = settleAt(model, rpms, cpuW, gpuW);
    model.data.dies.forEach((_, i) => {
      const read = drawn.readings[row * runReadings(model) + i]!;
      expect(Math.abs(read - junctionC(model, settled, i, cpuW, gpuW))).toBeLessThan(0.05);
    });
  }
});
