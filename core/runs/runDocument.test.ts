import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { openCase } from '../case/openCase';
import { completeRecord, exampleRecord } from '../test-support/exampleRecord';
import type { SteadyState } from './analyseLog';
import { parseRun, runJsonSchema, type RunDocument } from './runDocument';
import { steadyRunOf } from './steadyRunOf';

const RUN = {
  format: 'zugluft-run',
  formatVersion: 1,
  id: 'run-1',
  startedAt: '2026-11-26T09:30:00+01:00',
  load: { kind: 'stress', on: 'both', name: 'two loads', score: null, framesPerS: null },
  setting: 'full',
  fanMode: 'full',
  graphicsMode: 'own',
  firmware: '1.04',
  source: 'mains',
  lid: 'open',
  brightnessShare: 0.5,
  room: { temperatureC: 22.6, altitudeM: 120 },
  backgroundDbA: 19.2,
  microphone: { distanceM: 0.5, place: 'operator', instrument: 'meter-1' },
  instruments: [
    {
      id: 'meter-1',
      kind: 'sound-level-meter',
      calibratedOn: '2026-05-02',
      offset: 0.2,
      plusMinus: 0.5,
      checkBeforeDb: 94,
      checkAfterDb: 93.9,
    },
  ],
  logs: [
    {
      id: 'log-1',
      file: 'a.csv',
      kind: 'csv',
      offsetS: 0,
      channels: [{ column: 'CPU [W]', is: 'cpuPowerW', unit: 'W' }],
    },
  ],
  steady: [{ fromS: 900, toS: 1500, chosenBy: 'found' }],
  use: 'fit',
};
const issues = (json: unknown) =>
  (parseRun(json) as { issues: { path: string; message: string }[] }).issues;

test('docs/format/run.schema.json is what the Zod schema says (npm run docs)', () => {
  const file = join(__dirname, '../../docs/format/run.schema.json');
  expect(readFileSync(file, 'utf8')).toBe(runJsonSchema());
});

test('a run is read as it was written, unknown fields with it', () => {
  const run = { ...RUN, mood: 'calm', load: { ...RUN.load, threads: 16 } };
  expect(parseRun(structuredClone(run))).toEqual({ run });
});

test.each<[string, object, string]>([
  ['no run', { format: 'zugluft-record' }, 'format'],
  ['a newer version', { formatVersion: 2 }, 'formatVersion'],
  ['no such load', { load: { kind: 'dance', on: 'both' } }, 'load.kind'],
  ['a time without its zone', { startedAt: '2026-11-26T09:30:00' }, 'startedAt'],
  [
    'a window that ends before it begins',
    { steady: [{ fromS: 9, toS: 3, chosenBy: 'person' }] },
    'steady.0.toS',
  ],
  [
    'a channel that is none',
    { logs: [{ ...RUN.logs[0], channels: [{ column: 'a', is: 'watts' }] }] },
    'logs.0.channels.0.is',
  ],
  ['an id with a space', { id: 'run 1' }, 'id'],
  ['a room of 200 °C', { room: { temperatureC: 200 } }, 'room.temperatureC'],
])('%s is refused at its place', (_, change, path) => {
  expect(issues({ ...RUN, ...change })[0]!.path).toBe(path);
});

describe('as the fit takes it', () => {
  const open = openCase({ record: completeRecord(exampleRecord('two-fan-shared-pipes')) });
  const at = (mean: number) => ({ mean, se: 0.1, plusMinus: 0.5 });
  const state: SteadyState = {
    fromS: 900,
    toS: 1500,
    from: 0,
    to: 1,
    settledShare: 1,
    chosenBy: 'found',
    kind: 'sustained',
    means: {
      cpuPowerW: at(45),
      gpuPowerW: at(60),
      cpuC: at(90),
      gpuC: at(80),
      'fanRpm.fan-left': at(4300),
      'fanRpm.fan-right': at(4310),
      'exhaustC.fins-left': at(50),
      levelDbA: { ...at(41), upperBound: true },
      roomC: at(22.1),
    },
  };
  const run = parseRun(RUN) as { run: RunDocument };

  test('readings by the record’s own parts', () => {
    expect(steadyRunOf(run.run, state, open)).toEqual({
      id: 'run-1',
      ambientC: 22.1,
      rpm: { 'fan-left': 4300, 'fan-right': 4310 },
      cpuW: 45,
      gpuW: 60,
      heldS: 600,
      junctionC: { cpu: 90, gpu: 80 },
      exhaustC: { 'fins-left': 50 },
      levelDbA: 41.2,
      levelIsUpperBound: true,
      plusMinus: { level: 0.5 },
    });
  });

  test('the level is turned to where the laboratory listens: 6 dB for twice the distance', () => {
    const far = { ...run.run, microphone: { ...run.run.microphone, distanceM: 1 } };
    expect((steadyRunOf(far, state, open) as { levelDbA: number }).levelDbA).toBeCloseTo(
      41.2 + 6.02,
      2,
    );
  });

  test('without a room reading that of the sheet; without speeds or a power it says so', () => {
    const { roomC, ...others } = state.means;
    expect(roomC).toBeDefined();
    expect(steadyRunOf(run.run, { ...state, means: others }, open)).toMatchObject({
      ambientC: 22.6,
    });
    const { 'fanRpm.fan-left': left, ...one } = state.means;
    expect(left).toBeDefined();
    expect(steadyRunOf(run.run, { ...state, means: one }, open)).toEqual({
      message: 'no log holds the speed of fan-left',
    });
    const { gpuPowerW, ...cpu } = state.means;
    expect(gpuPowerW).toBeDefined();
    expect(steadyRunOf(run.run, { ...state, means: cpu }, open)).toEqual({
      message: 'no log holds the power of gpu',
    });
  });
});
