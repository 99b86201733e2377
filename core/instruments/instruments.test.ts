import { openCase } from '../case/openCase';
import { settleAt } from '../envelope/pointReadout';
import { soundMeter } from '../sound/soundMeter';
import { completeRecord, exampleRecord } from '../test-support/exampleRecord';
import { logOfCsv } from '../test-support/logOfCsv';
import { bladePassHz, fanNoise } from './fanNoise';
import { withFault } from './faults';
import { hiddenMachine } from './hiddenMachine';
import { simulatedLogs } from './simulatedLogs';

const record = completeRecord(exampleRecord('two-fan-shared-pipes'));
const simulated = (r = record, options = {}) =>
  simulatedLogs(openCase({ record: r }), { seed: 2, loadS: 500, stepS: 1, ...options });
const lastOf = (csv: string, is: string, from = -220, to = -130) => {
  const values = logOfCsv(csv)
    .columns.find((c) => c.is === is)!
    .values.slice(from, to);
  return values.reduce((a, b) => a + b, 0) / values.length;
};

test('thermocouples and the wall meter read what the machine is at rest in its load', () => {
  const open = openCase({ record });
  const made = simulated();
  const warm = logOfCsv(made.thermocouples);
  expect(warm.columns.map((c) => c.is)).toEqual([
    ...open.data.stacks.map((s) => `finC.${s.id}`),
    ...open.data.pipes.map((p) => `pipeC.${p.id}`),
    'skinC',
    'roomC',
  ]);
  const k = made.truth.steps - 150;
  const rpms = open.data.fans.map((f) => made.truth.duty[k]! * f.maxRpm);
  const [cpuW, gpuW] = [made.truth.cpuW[k]!, made.truth.gpuW[k]!];
  const state = settleAt(open.model, rpms, cpuW, gpuW);
  const node = open.model.pipeNode[0]!;
  const atRest =
    open.data.room.temperatureC +
    state.base[node]! +
    state.perCpuW[node]! * cpuW +
    state.perGpuW[node]! * gpuW;
  // fins and pipes settle within minutes
  expect(
    Math.abs(lastOf(made.thermocouples, `pipeC.${open.data.pipes[0]!.id}`) - atRest),
  ).toBeLessThan(2);
  expect(Math.abs(lastOf(made.thermocouples, 'roomC') - open.data.room.temperatureC)).toBeLessThan(
    0.1,
  );
  // more than the dies draw, by losses, the rest and the adapter
  const wall = lastOf(made.wall, 'wallW');
  expect(wall).toBeGreaterThan(1.15 * (cpuW + gpuW));
  expect(wall).toBeLessThan(2 * (cpuW + gpuW));
});

test('a drift wanders off by so much an hour', () => {
  const by = (driftKPerHour: number) =>
    lastOf(simulated(record, { driftKPerHour }).thermocouples, 'roomC', -11, -1);
  expect(by(10) - by(0)).toBeCloseTo((10 * 644) / 3600, 0);
});

test('a dead fan is logged as still, and the machine carries less', () => {
  const dead = withFault(record, { kind: 'dead-fan', fan: 'fan-left' });
  const made = simulated(dead, { deadFans: ['fan-left'] });
  expect(lastOf(made.load, 'fanRpm.fan-left')).toBe(0);
  expect(lastOf(made.load, 'fanRpm.fan-right')).toBeGreaterThan(1000);
  const watts = (csv: string) => lastOf(csv, 'cpuPowerW') + lastOf(csv, 'gpuPowerW');
  expect(watts(made.load)).toBeLessThan(0.9 * watts(simulated().load));
});

test('a dried-out pipe carries nothing, and the last one cannot be dry', () => {
  const four = completeRecord(exampleRecord('four-fan-eight-pipes'));
  const alone = four.heatPipes!.find((p) => p.count === undefined || p.count === 1)!;
  const dry = withFault(four, { kind: 'dry-pipe', pipe: alone.id });
  expect(dry.heatPipes).toEqual(four.heatPipes!.filter((p) => p !== alone));
  expect(JSON.stringify(dry)).not.toContain(`"${alone.id}"`);
  // of two alike one is left
  const two = withFault(record, { kind: 'dry-pipe', pipe: record.heatPipes![0]!.id });
  expect(openCase({ record: two }).data.pipes[0]!.count).toBe(1);
  const one = completeRecord(exampleRecord('one-die'));
  expect(() => withFault(one, { kind: 'dry-pipe', pipe: one.heatPipes![0]!.id })).toThrow(/only/);
  expect(() => withFault(record, { kind: 'dry-pipe', pipe: 'none' })).toThrow(/no heat pipe/);
  expect(() => withFault(record, { kind: 'dead-fan', fan: 'none' })).toThrow(/no fan/);
});

test('a firmware that drops does so in every setting', () => {
  const drops = withFault(record, { kind: 'firmware-drop', afterS: 300, cpuW: 20 });
  for (const s of drops.settings!) expect(s.later).toEqual({ afterS: 300, cpuSustainedW: 20 });
  expect(lastOf(simulated(drops).load, 'cpuPowerW')).toBeLessThan(20.5);
});

test('the same seed hides the same machine, another one another', () => {
  const at = (seed: number) => [...hiddenMachine(record, seed).standIns!];
  expect(at(3)).toEqual(at(3));
  expect(at(3)).not.toEqual(at(4));
});

test('the noise of a fan has its level and the tone of its blades', () => {
  // 29 blades at 3000 rpm
  expect(bladePassHz(3000, 29)).toBe(1450);
  const options = {
    sampleRateHz: 48_000,
    fullScaleDb: 100,
    rpm: 3000,
    blades: 29,
    seed: 5,
    durationS: 6,
  };
  const meter = soundMeter(48_000, 100, 6 * 48_000);
  meter.push(fanNoise(38, options));
  const heard = meter.end();
  expect(Math.abs(heard.leqDbA - 38)).toBeLessThan(0.3);
  expect(heard.clipped).toBe(0);
  const tone = heard.tones.find((t) => Math.abs(t.hz - 1450) < 5)!;
  expect(tone.prominent).toBe(true);
  const band = (hz: number) => heard.thirdOctavesDb.find((b) => b.hz === hz)!.db;
  // above its corner the noise falls by 6 dB an octave: 3 dB an octave in bands that widen
  expect(Math.abs(band(4000) - band(8000) - 3)).toBeLessThan(1);
});
