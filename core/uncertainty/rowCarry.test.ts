import { openCase } from '../case/openCase';
import { estimate } from '../case/estimate';
import { READOUT_NAMES } from '../case/answer';
import type { CaseRecord } from '../record/recordSchema';
import { exampleRecord } from '../test-support/exampleRecord';
import { planDraws } from './drawPlan';
import { normalQuantile } from './normal';
import { COLUMNS, READOUTS, roomForDraws, runDraws } from './draws';

const two = exampleRecord('two-fan-shared-pipes');
const apart: CaseRecord = structuredClone(two);
for (const fan of apart.fans!) fan.control = 'own';
apart.finStacks![0]!.depthMm = 12;
const longPipe: CaseRecord = structuredClone(exampleRecord('one-die'));
longPipe.heatPipes![0]!.lengthMm = 260;
const stopped: CaseRecord = structuredClone(two);
stopped.power!.adapterW = 150;
stopped.settings = [
  {
    id: 's',
    cpuSustainedW: 45,
    gpuSustainedW: 95,
    later: { afterS: 300, cpuSustainedW: 15 },
  },
];

/** Rows of draws beside the plain estimate at the drawn values, by cap. */
function compare(record: CaseRecord, rows: number, seed = 2) {
  const caps = ['off', 30, 36, 'full'] as const;
  const plan = planDraws(openCase({ record }), { draws: 400, seed, caps });
  const drawn = roomForDraws(plan, plan.draws);
  runDraws(plan, 0, rows, drawn);
  const out: { name: string; drawn: number; plain: number; limit: string }[] = [];
  for (let row = 0; row < rows; row++) {
    const overrides = new Map<string, number>();
    plan.columns.forEach((c, k) =>
      c.inputs.forEach((i) =>
        overrides.set(i.path, i.valueAt(normalQuantile(plan.u[k * plan.draws + row]!))),
      ),
    );
    const plain = estimate(openCase({ record, overrides }), { caps, envelopes: false });
    plain.caps.forEach((c, k) =>
      READOUT_NAMES.forEach((name, r) => {
        const at = (row * caps.length + k) * COLUMNS + r;
        for (const [of, shift] of [
          [c, 0],
          [c.configured, READOUTS],
        ] as const) {
          if (!of[name] || Number.isNaN(drawn.watts[at + shift]!)) continue;
          out.push({
            name: `row ${row}, ${c.cap}, ${name}${shift ? ' as configured' : ''}`,
            drawn: drawn.watts[at + shift]!,
            plain: of[name].watts,
            limit: of[name].binding.limit,
          });
        }
      }),
    );
  }
  return out;
}

test.each<[string, CaseRecord, number, string]>([
  ['fans on one duty', two, 12, 'junction'],
  ['one long pipe, often held by it', longPipe, 24, 'pipe'],
  ['four fans, pipes of their own', exampleRecord('four-fan-eight-pipes'), 8, 'junction'],
  ['a setting that drops the CPU later, and an adapter', stopped, 16, 'firmware'],
])('a draw is the plain estimate at its own values, to 1 %%: %s', (_, record, rows, limit) => {
  const compared = compare(record, rows);
  expect(compared.filter((x) => x.limit === limit).length).toBeGreaterThan(5);
  for (const x of compared) {
    const off = Math.abs(x.drawn - x.plain) / (x.plain + 1);
    if (off > 0.01) throw new Error(`${x.name}: ${x.drawn} is not ${x.plain}`);
  }
});

test('fans controlled apart: each draw seeks the best split of its own, off by 0.5 % on the whole, nowhere by 5 %', () => {
  const compared = compare(apart, 16);
  const off = compared.map((x) => Math.abs(x.drawn - x.plain) / (x.plain + 1));
  expect(Math.max(...off)).toBeLessThan(0.05);
  expect(off.reduce((a, b) => a + b, 0) / off.length).toBeLessThan(0.005);
});

test('in no draw does a louder cap carry less, and no machine as configured more than its cooling', () => {
  for (const record of [two, apart, stopped, exampleRecord('one-die')]) {
    const caps = ['off', 20, 28, 32, 36, 40, 45, 'full'] as const;
    const plan = planDraws(openCase({ record }), { draws: 40, seed: 5, caps });
    const { watts } = (() => {
      const drawn = roomForDraws(plan, 40);
      runDraws(plan, 0, 40, drawn);
      return drawn;
    })();
    const at = (row: number, c: number, column: number) =>
      watts[(row * caps.length + c) * COLUMNS + column]!;
    for (let row = 0; row < 40; row++) {
      for (let r = 0; r < READOUTS; r++) {
        if (!plan.rays[r]) continue;
        for (let c = 0; c < caps.length; c++) {
          if (c < 7 && c > 0) expect(at(row, c, r)).toBeGreaterThanOrEqual(at(row, c - 1, r));
          // both loaded, one die may be stopped where the mix would go on: alone it is never more
          if (r < 2) expect(at(row, c, r + READOUTS)).toBeLessThanOrEqual(at(row, c, r) + 1e-9);
        }
      }
    }
  }
});
