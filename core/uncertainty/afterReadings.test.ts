import { openCase } from '../case/openCase';
import { exampleRecord } from '../test-support/exampleRecord';
import { halfBandAfter } from './afterReadings';
import { planDraws } from './drawPlan';
import { COLUMNS, READOUTS, roomForDraws, runDraws } from './draws';
import { estimateWithDraws } from './estimateWithDraws';
import { normalQuantile } from './normal';
import { latinHypercube } from './random';
import { runReadings } from './runReadings';

const N = 600;
const u = latinHypercube(N, 3, 5);
const normal = (c: number) =>
  Float64Array.from({ length: N }, (_, i) => normalQuantile(u[c * N + i]!));

test('of a sum of two normal causes a sure reading of one leaves the other; a vague one its share', () => {
  const [a, b] = [normal(0), normal(1)];
  const y = a.map((x, i) => 3 * x + b[i]!);
  const z95 = 1.645;
  expect(halfBandAfter(y, []) / (z95 * Math.sqrt(10))).toBeCloseTo(1, 1);
  expect(halfBandAfter(y, [{ values: a, plusMinus: 0.01 }]) / z95).toBeCloseTo(1, 1);
  // error as large as the spread: half of the variance is told
  const vague = halfBandAfter(y, [{ values: a, plusMinus: 1 }]);
  expect(vague / (z95 * Math.sqrt(4.5 + 1))).toBeCloseTo(1, 1);
  // what has nothing to do with it tells nothing
  expect(
    halfBandAfter(y, [{ values: normal(2), plusMinus: 0.01 }]) / halfBandAfter(y, []),
  ).toBeGreaterThan(0.96);
  expect(halfBandAfter(y, [{ values: new Float64Array(N), plusMinus: 0 }])).toBe(
    halfBandAfter(y, []),
  );
});

test('a bent dependence is followed', () => {
  const a = normal(0);
  const y = a.map((x) => x * x + x);
  expect(halfBandAfter(y, [{ values: a, plusMinus: 1e-4 }])).toBeLessThan(0.05);
});

test.each(['two-fan-shared-pipes', 'one-die'] as const)(
  'what a run leaves is foretold within a tenth of the band, by making it: rows of %s that agree with its readings',
  (name) => {
    const open = openCase({ record: exampleRecord(name) });
    const caps = [36] as const;
    const { summary } = estimateWithDraws(open, { draws: 400, seed: 1, caps, envelopes: false });
    const readout = name === 'one-die' ? 0 : 2;
    const item = summary.next
      .find((x) => x.readout === (['cpuAlone', 'gpuAlone', 'together'] as const)[readout])!
      .items.find((i) => i.means === 'run-under-load')!;
    // rejection: of very many draws those whose readings lie near the central machine's
    const many = 12_000;
    const plan = planDraws(open, { draws: many, seed: 7, caps });
    const drawn = roomForDraws(plan, many);
    runDraws(plan, 0, many, drawn);
    const k = runReadings(plan.central);
    const middle = Array.from({ length: k }, (_, j) => {
      const values = Array.from({ length: many }, (_x, i) => drawn.readings[i * k + j]!);
      return values.sort((a, b) => a - b)[many / 2]!;
    });
    let total = 0;
    const rows: { watts: number; weight: number }[] = [];
    for (let i = 0; i < many; i++) {
      let off = 0;
      for (let j = 0; j < k; j++) {
        off += ((drawn.readings[i * k + j]! - middle[j]!) / (j === k - 1 ? 0.5 : 1)) ** 2;
      }
      const weight = Math.exp(-0.5 * off);
      total += weight;
      rows.push({ watts: drawn.watts[i * COLUMNS + readout]!, weight });
    }
    expect(READOUTS).toBe(3);
    rows.sort((a, b) => a.watts - b.watts);
    const quantile = (p: number) => {
      let sum = 0;
      for (const r of rows) if ((sum += r.weight) >= p * total) return r.watts;
      return NaN;
    };
    const made = 0.5 * (quantile(0.95) - quantile(0.05));
    expect(item.nowW).toBeGreaterThan(made);
    expect(Math.abs(item.thenW - made) / item.nowW).toBeLessThan(0.1);
  },
);
