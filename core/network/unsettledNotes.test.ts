import { solveFlows } from '../airflow/flowNetwork';
import { openCase } from '../case/openCase';
import { estimate } from '../case/estimate';
import { maxPowerAlongRay } from '../envelope/boundary';
import { settleAt } from '../envelope/pointReadout';
import { exampleRecord } from '../test-support/exampleRecord';
import { planDraws } from '../uncertainty/drawPlan';
import { roomForDraws, runDraws } from '../uncertainty/draws';
import { summarise, withBands } from '../uncertainty/summary';
import { createState, solveInto } from './steadyState';
import { forgetUnsettled, isUnsettled, unsettledNotes } from './unsettledNotes';

const open = openCase({ record: exampleRecord('two-fan-shared-pipes') });
const { model } = open;
const RPMS = [5000, 5000];
const RAY = { cpu: 0.5, gpu: 0.5 };

test('what comes to rest says nothing', () => {
  const state = settleAt(model, RPMS, 40, 50);
  maxPowerAlongRay(model, RPMS, RAY, null, state, 5e-6);
  expect(isUnsettled(state)).toBe(false);
  expect(unsettledNotes([state])).toEqual([]);
});

test('temperatures whose search is cut short say by how much they still moved', () => {
  const state = settleAt(model, RPMS, 40, 50, createState(model), 1e-7, 3);
  expect(state.unsettled.kelvin).toBeGreaterThan(1e-7);
  expect(state.unsettled.kelvin).toBeLessThan(1);
  expect(unsettledNotes([state])[0]!.message).toMatch(/^a temperature had not come to rest/);
  forgetUnsettled(state);
  expect(isUnsettled(state)).toBe(false);
});

test('watts along a ray whose search is cut short say by what share they may be off', () => {
  const state = createState(model);
  const watts = maxPowerAlongRay(model, RPMS, RAY, null, state, 1e-12, 1);
  expect(watts).toBeGreaterThan(50);
  expect(unsettledNotes([state]).map((n) => n.path)).toEqual(['solver']);
  expect(unsettledNotes([state])[0]!.message).toMatch(/^a limit .* may be off by .* %$/);
});

test('an air flow cut off before it balances says what is left', () => {
  const state = createState(model);
  solveInto(model, RPMS, state);
  const { network } = model.air;
  expect(solveFlows(network, new Float64Array(network.nodeCount))).toBe(0);
  const left = solveFlows(network, new Float64Array(network.nodeCount), 1e-11, 1);
  expect(left).toBeGreaterThan(1e-6);
  state.flows.unsettledShare = left;
  expect(unsettledNotes([createState(model), state])[0]!.message).toMatch(/not balanced$/);
});

test('draws that ended at a bound are counted in the answer', () => {
  const plan = planDraws(open, { caps: ['full'], draws: 4 });
  const drawn = roomForDraws(plan, plan.draws);
  runDraws(plan, 0, plan.draws, drawn);
  const answer = estimate(open, { caps: ['full'], envelopes: false });
  expect(withBands(answer, summarise(plan, drawn)).notes).toEqual(answer.notes);
  expect(withBands(answer, summarise(plan, drawn, 3)).notes).toContainEqual({
    path: 'solver',
    message: 'in 3 of 4 draws a search ended before it came to rest',
  });
});
