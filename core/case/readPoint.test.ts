import { exampleRecord } from '../test-support/exampleRecord';
import { figureValue } from '../record/figure';
import { explain } from './explain';
import { openCase } from './openCase';
import { readPoint } from './readPoint';

const one = exampleRecord('one-die');
const two = exampleRecord('two-fan-shared-pipes');

test.each([
  ['one pipe on one die', one, 30, 0],
  ['two fans, shared pipes', two, 40, 40],
])(
  '%s: nearly all heat of the dies goes through the pipes at full fans',
  (_, record, cpuW, gpuW) => {
    const open = openCase({ record });
    const read = readPoint(open, 'full', cpuW, gpuW);
    const carried = read.pipes.reduce(
      (sum, p, i) => sum + p.watts * figureValue(record.heatPipes![i]!.count)!,
      0,
    );
    // the rest goes through board and shell; regulators beside the dies add to it
    expect(carried).toBeGreaterThan(0.85 * (cpuW + gpuW));
    expect(carried).toBeLessThan(1.1 * (cpuW + gpuW));
  },
);

test('each step of the chain lies between the nodes that it is named after', () => {
  const open = openCase({ record: one });
  const at = { cpuW: 30, gpuW: 0 };
  const read = readPoint(open, 'full', at.cpuW, at.gpuW);
  const [chain] = explain(open, 'full', at).chains;
  const kelvin = (step: string) => chain!.steps.find((s) => s.step === step)!.kelvin;
  const node = (name: string) => read.nodes.find((n) => n.name === name)!.temperatureC;
  expect(kelvin('air-in')).toBeCloseTo(read.intakeC - figureValue(one.room!.temperatureC)!, 9);
  expect(kelvin('fins-to-air')).toBeCloseTo(node('fins at pipe-1') - read.intakeC, 9);
  expect(kelvin('condenser')).toBeCloseTo(read.pipes[0]!.vaporC - node('fins at pipe-1'), 9);
  expect(kelvin('evaporator')).toBeCloseTo(node('plate-cpu') - read.pipes[0]!.vaporC, 9);
  expect(kelvin('plate') + kelvin('interface') + kelvin('die')).toBeCloseTo(
    read.junctions[0]!.temperatureC - node('plate-cpu'),
    9,
  );
  const all = chain!.steps.reduce((sum, s) => sum + s.kelvin, 0);
  expect(all).toBeCloseTo(
    read.junctions[0]!.temperatureC - figureValue(one.room!.temperatureC)!,
    9,
  );
});

test.each([
  ['one pipe on one die', one],
  ['two fans, shared pipes', two],
])('%s: what enters a pipe leaves it, in the order of its parts', (_, record) => {
  const read = readPoint(openCase({ record }), 'full', 30, record.dies!.length > 1 ? 40 : 0);
  for (const pipe of read.pipes) {
    const known = record.heatPipes!.find((p) => p.id === pipe.id)!;
    expect(pipe.along.map((a) => a.part)).toEqual(known.along!.map((a) => a.part));
    const sum = pipe.along.reduce((x, a) => x + a.watts, 0);
    expect(sum).toBeCloseTo(0, 6);
    const entering = pipe.along.reduce((x, a) => x + Math.max(0, a.watts), 0);
    expect(entering).toBeCloseTo(pipe.watts * (figureValue(known.count) ?? 1), 9);
    for (const { part, watts } of pipe.along) {
      expect(watts > 0).toBe(record.plates!.some((p) => p.id === part));
    }
  }
});

test.each([
  ['one pipe on one die', one],
  ['two fans, shared pipes', two],
])('%s: where a pipe would bind it carries its whole limit', (_, record) => {
  const open = openCase({ record });
  const why = explain(open, 'full', 'together');
  const pipe = why.limits.find((l) => l.binding.limit.startsWith('pipe'))!;
  const share = 1 + pipe.moreWatts / (why.cpuWatts + why.gpuWatts);
  const read = readPoint(open, 'full', share * why.cpuWatts, share * why.gpuWatts);
  const load = read.pipes.find((p) => p.id === pipe.binding.part)!;
  expect(load.shareOfLimit).toBeCloseTo(1, 2);
});
