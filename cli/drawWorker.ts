import { parentPort, workerData } from 'node:worker_threads';
import { openCase } from '@zugluft/core/case/openCase';
import { planDraws } from '@zugluft/core/uncertainty/drawPlan';
import { roomForDraws, runDraws } from '@zugluft/core/uncertainty/draws';
import type { DrawJob } from './drawInThreads';

/** Makes a thread's share of the draws; the plan is the same in every thread, since it follows from case and seed. */
const { request, options, from, to } = workerData as DrawJob;
const plan = planDraws(openCase(request), options);
const drawn = roomForDraws(plan, plan.draws);
const { watts, held, readings } = drawn;
const CHUNK = 100;
let unsettled = 0;
for (let row = from; row < to; row += CHUNK) {
  const end = Math.min(to, row + CHUNK);
  unsettled += runDraws(plan, row, end, drawn);
  parentPort!.postMessage({ made: end - row });
}
const rowLength = watts.length / plan.draws;
const perRow = readings.length / plan.draws;
parentPort!.postMessage({
  from,
  watts: watts.slice(from * rowLength, to * rowLength),
  held: held.slice(from * rowLength, to * rowLength),
  readings: readings.slice(from * perRow, to * perRow),
  unsettled,
});
