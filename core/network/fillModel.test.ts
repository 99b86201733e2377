import fc from 'fast-check';
import { openCase } from '../case/openCase';
import type { CaseRecord } from '../record/recordSchema';
import { resolveCase } from '../record/resolveCase';
import { exampleRecord, completeRecord } from '../test-support/exampleRecord';
import { randomRecord } from '../test-support/randomRecord';
import { randomTopology } from '../test-support/randomTopology';
import { drawFigures, figuresOf } from '../uncertainty/drawnFigures';
import { planDraws } from '../uncertainty/drawPlan';
import { fillModel } from './fillModel';
import { buildModel } from './machineModel';
import type { MachineModel } from './networkModel';

/** All figures of a model; working memory is none, nor are the modes of a fin in which nothing spreads. */
const figuresIn = (model: MachineModel) => ({
  ...model,
  data: null,
  air: {
    ...model.air,
    network: model.air.network.branches,
    computedCurves: null,
    stacks: model.air.stacks.map(({ spreading, ...s }) => ({
      ...s,
      spreading: { ...spreading, modes: spreading.isEven ? null : spreading.modes },
    })),
  },
});

/** Fills one model with some draws of a record and builds a fresh one for each; both have to be the same. */
function expectSame(record: CaseRecord): void {
  const open = openCase({ record });
  const plan = planDraws(open, { draws: 4, caps: [36], seed: 5 });
  const figures = figuresOf(plan);
  const filled = buildModel(plan.central.data, plan.central);
  const before = structuredClone(figuresIn(plan.central));
  for (const row of [2, 0, 3, 1]) {
    drawFigures(plan, row, figures);
    const data = resolveCase(record, figures, { silent: true });
    fillModel(filled, data);
    expect(filled.data).toBe(data);
    // the places of a chamber's wick that matter are those of the central values
    expect(figuresIn(filled)).toEqual(figuresIn(buildModel(data, plan.central)));
  }
  expect(figuresIn(plan.central)).toEqual(before);
}

test.each(['two-fan-shared-pipes', 'four-fan-eight-pipes', 'one-die'] as const)(
  '%s: a model that is filled with a draw is the one that would be built for it, and no other is touched',
  (name) => expectSame(exampleRecord(name)),
);

test('so with pads, a chamber with two dies, fans with points of their own, and openings that nobody recorded', () => {
  const record = structuredClone(exampleRecord('two-fan-shared-pipes'));
  const chamber = {
    id: 'chamber',
    kind: 'vapor-chamber' as const,
    dies: ['cpu', 'gpu'],
    widthMm: 120,
    lengthMm: 80,
    thicknessMm: 2.5,
  };
  record.plates = [chamber];
  for (const p of record.heatPipes!) {
    p.along = p.along!.map((a) => (a.part.startsWith('plate') ? { part: 'chamber' } : a));
    p.along = p.along.filter((a, i, all) => all.findIndex((x) => x.part === a.part) === i);
  }
  record.fans![0]!.curve = [{ rpm: 4000, flowLps: 2, pressurePa: 60 }];
  record.pads = [
    { id: 'pad-cover', from: 'chamber', to: 'base-cover', widthMm: 30, lengthMm: 20 },
    { id: 'pad-storage', source: 'storage', to: 'base-cover' },
  ] as never;
  delete record.vents;
  delete record.strips;
  expectSame(completeRecord(record));
});

test('so for machines of any size, and connected in any way', () => {
  fc.assert(fc.property(fc.oneof(randomRecord, randomTopology), expectSame), {
    seed: 11,
    numRuns: 30,
  });
});
