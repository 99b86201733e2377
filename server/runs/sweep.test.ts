import { openCase } from '@zugluft/core/case/openCase';
import { simulatedLogs } from '@zugluft/core/instruments/simulatedLogs';
import { machineLevelDbA } from '@zugluft/core/sound/machineLevel';
import { completeRecord, exampleRecord } from '@zugluft/core/test-support/exampleRecord';
import { joinSimulated } from '@zugluft/core/test-support/joinSimulated';
import { newRun, runWithLog } from '../test-support/newRun';
import { testServer } from '../test-support/testServer';

const { call, create } = testServer();
const record = completeRecord(exampleRecord('two-fan-shared-pipes'));
const open = openCase({ record });
const logOf = (seed: number, cap: number | 'full', truth = open) =>
  joinSimulated(simulatedLogs(truth, { seed, cap, loadS: 500, stepS: 1, backgroundDbA: 15 }));

test('ordinary loads give the sweep of the fans, as loud as they were', async () => {
  const { id } = await create(record);
  const url = `/api/machines/${id}/runs`;
  expect((await call().get(`${url}/fan-sweep`).expect(200)).body).toMatchObject({
    points: [],
    lacks: expect.stringMatching(/no run/),
  });
  await runWithLog(call, id, logOf(1, 34), { backgroundDbA: 15 });
  await runWithLog(call, id, logOf(2, 40), { backgroundDbA: 15 });
  // one that is left out, and one without a log, say nothing
  await runWithLog(call, id, logOf(3, 'full'), { backgroundDbA: 15, use: 'leave-out' });
  await call().post(url).send(newRun()).expect(201);
  const sweep = (await call().get(`${url}/fan-sweep`).expect(200)).body;
  expect(sweep.points.length).toBeGreaterThanOrEqual(2);
  for (const p of sweep.points) {
    const rpms = open.data.fans.map((f) => p.rpm[f.id]);
    expect(Math.abs(p.dbA - machineLevelDbA(open.data, rpms)!)).toBeLessThan(1);
    expect(p.dbA).toBeLessThan(40.7);
  }
});

test('what would bring a run back names what was otherwise', async () => {
  const { id } = await create(record);
  const dull = openCase({ record, overrides: new Map([['finStacks.uaFactor', 0.45]]) });
  const run = await runWithLog(call, id, logOf(4, 'full', dull), { backgroundDbA: 15 });
  const why = (await call().get(`/api/machines/${id}/runs/${run.id}/why-outside`).expect(200)).body;
  const fins = why.moved.find((m: { name: string }) => m.name === 'finStacks.uaFactor');
  expect(fins.z).toBeLessThan(-0.4);
  expect(fins.value).toBeLessThan(fins.prior);
  const planned = (await call().post(`/api/machines/${id}/runs`).send(newRun()).expect(201)).body;
  await call().get(`/api/machines/${id}/runs/${planned.id}/why-outside`).expect(404);
});

test('the firmware’s own figures are told with the analysis', async () => {
  const setting = { id: 'own', cpuSustainedW: 35, cpuShortW: 60, cpuShortWindowS: 28 };
  const own = { ...record, settings: [{ ...setting, gpuSustainedW: 40 }] };
  const { id } = await create({ ...own, settings: [{ id: 'own' }] });
  const csv = logOf(5, 'full', openCase({ record: own }));
  const run = await runWithLog(call, id, csv, { setting: 'own' });
  const { firmware } = (await call().get(`/api/machines/${id}/runs/${run.id}/analysis`)).body;
  const told = Object.fromEntries(
    firmware.map((f: { path: string; value: number }) => [f.path, f.value]),
  );
  expect(Math.abs(told['cpuSustainedW'] - 35)).toBeLessThan(0.5);
  expect(Math.abs(told['gpuSustainedW'] - 40)).toBeLessThan(0.5);
  expect(Math.abs(told['cpuShortWindowS'] - 28)).toBeLessThan(6);
});
