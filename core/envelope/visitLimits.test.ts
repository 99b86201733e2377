import { buildModel } from '../network/machineModel';
import { createState, solveInto } from '../network/steadyState';
import { resolveCase } from '../record/resolveCase';
import { completeRecord, exampleRecord } from '../test-support/exampleRecord';
import { CHAMBER } from './limitVisit';
import { visitChambers } from './visitLimits';

/** Half-planes of a chamber under both dies, with the heat flux at which its wick boils dry. */
function planesOf(fluxWcm2: number, apart = false) {
  const record = structuredClone(exampleRecord('two-fan-shared-pipes'));
  record.heatPipes = [];
  const chamber = (id: string, dies: string[], widthMm: number) =>
    ({ id, kind: 'vapor-chamber', dies, widthMm, lengthMm: 90, thicknessMm: 1.5 }) as const;
  record.plates = apart
    ? [chamber('one', ['cpu'], 150), chamber('two', ['gpu'], 150)]
    : [chamber('both', ['cpu', 'gpu'], 300)];
  for (const s of record.finStacks!) s.plates = record.plates.map((p) => p.id);
  const model = buildModel(
    resolveCase(completeRecord(record), new Map([['plates.chamberFluxWcm2', fluxWcm2]])),
  );
  const state = createState(model);
  solveInto(
    model,
    model.data.fans.map((f) => f.maxRpm),
    state,
  );
  const planes: { cpu: number; gpu: number; watts: number; boils: boolean }[] = [];
  visitChambers(model, state, (cpu, gpu, watts, limit, _part, kind) => {
    expect(limit).toBe(CHAMBER);
    planes.push({ cpu, gpu, watts, boils: kind === 1 });
  });
  return planes;
}

test('where a die boils first its neighbour may still take its liquid away', () => {
  const planes = planesOf(1);
  const boiling = planes.filter((p) => p.boils);
  const drying = planes.filter((p) => !p.boils);
  // boiling counts a die's own watts alone
  expect(boiling.map((p) => [p.cpu > 0, p.gpu > 0])).toEqual([
    [true, false],
    [false, true],
  ]);
  expect(drying.some((p) => p.cpu > 0 && p.gpu > 0)).toBe(true);
  for (const b of boiling) for (const d of drying) expect(b.watts).toBeLessThan(d.watts);
});

test('a wick that does not boil is held by its flow alone; alone on its chamber a die has one limit', () => {
  expect(planesOf(250).some((p) => p.boils)).toBe(false);
  for (const flux of [1, 250]) {
    const planes = planesOf(flux, true);
    expect(planes).toHaveLength(2);
    expect(planes.every((p) => p.boils === (flux === 1))).toBe(true);
    expect(planes.every((p) => p.cpu === 0 || p.gpu === 0)).toBe(true);
  }
});
