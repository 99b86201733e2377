import { readFileSync } from 'node:fs';
import { Bench } from 'tinybench';
import { Matrix, LuDecomposition } from 'ml-matrix';
import { estimate } from '@zugluft/core/estimate';
import { fanState } from '@zugluft/core/envelope/fanStates';
import { buildModel } from '@zugluft/core/network/machineModel';
import { luFactor, luSolve } from '@zugluft/core/network/lu';
import { firstConditions, solveLinear } from '@zugluft/core/network/steadyState';
import { parseRecord } from '@zugluft/core/record/parseRecord';
import { resolveCase } from '@zugluft/core/record/resolveCase';

const load = (name: string) =>
  parseRecord(JSON.parse(readFileSync(`examples/${name}.json`, 'utf8'))).record!;
const two = load('two-fan-shared-pipes');
const four = load('four-fan-eight-pipes');
const model = buildModel(resolveCase(four));
const { rpms } = fanState(model.data, 0.9);
const at = firstConditions(model);
const start = solveLinear(model, rpms, at).flows;
const n = model.nodeCount;
const matrix = Matrix.eye(n, n, 10).add(Matrix.rand(n, n));
const flat = Float64Array.from(matrix.to1DArray());

const bench = new Bench({ time: 1500 });
bench
  .add('what a keystroke waits for: three readouts at seven caps, two-fan example', () => {
    estimate(two, { envelopes: false });
  })
  .add('the whole answer with envelopes, two-fan example', () => {
    estimate(two);
  })
  .add('the whole answer with envelopes, four-fan example', () => {
    estimate(four);
  })
  .add('one steady solve, four-fan example', () => {
    solveLinear(model, rpms, at, start);
  })
  .add(`factor and solve ${n} nodes, own LU`, () => {
    const a = flat.slice();
    const b = new Float64Array(n).fill(1);
    const pivot = new Int32Array(n);
    luFactor(a, n, pivot);
    luSolve(a, n, pivot, b);
  })
  .add(`factor and solve ${n} nodes, ml-matrix`, () => {
    new LuDecomposition(matrix).solve(Matrix.ones(n, 1));
  });
await bench.run();
const median = bench.tasks.map((t) =>
  t.result.state === 'completed' ? t.result.latency.p50 : NaN,
);
bench.tasks.forEach((t, i) => console.log(`${median[i]!.toFixed(3).padStart(10)} ms  ${t.name}`));
console.log(`\nkeystroke over its bound of 100 ms: ${(median[0]! / 100).toFixed(2)}`);
console.log(`ml-matrix over own LU: ${(median[5]! / median[4]!).toFixed(1)}`);
