import type { SteadyOfRuns } from '@zugluft/core/library/runAnswers';
import { marksByRung, markWatts, runMarks } from './runMarks';

type Run = SteadyOfRuns['items'][number];
const mean = (x: number, plusMinus = 1) => ({ mean: x, se: 0.1, plusMinus });
const run = (id: string, cpu: number, gpu: number, level: number | null, on = 'both'): Run => ({
  id,
  name: id,
  on,
  setting: null,
  done: null,
  use: 'fit',
  lacks: null,
  states: [
    {
      fromS: 0,
      toS: 9,
      chosenBy: 'found',
      kind: 'sustained',
      means: { cpuPowerW: mean(1), gpuPowerW: mean(1) },
    },
    {
      fromS: 9,
      toS: 90,
      chosenBy: 'found',
      kind: 'later',
      means: {
        cpuPowerW: mean(cpu, 3),
        gpuPowerW: mean(gpu, 4),
        ...(level === null ? {} : { levelDbA: mean(level) }),
      },
    },
  ],
});
const caps = [28, 32, 36, 'full'].map((cap) => ({
  cap,
  levelDbA: cap === 'full' ? 43 : (cap as number) - 1,
})) as never;

test('a run is marked by its last steady state, as the readout that it loads', () => {
  const marks = runMarks(
    [run('a', 40, 50, 36), run('b', 40, 3, 36), run('c', 5, 60, 36), run('d', 5, 3, 20, 'none')],
    (r) => `run ${r.id}`,
  );
  expect(marks.map((m) => [m.name, m.readout])).toEqual([
    ['run a', 'together'],
    ['run b', 'cpuAlone'],
    ['run c', 'gpuAlone'],
  ]);
  expect(markWatts(marks[0]!)).toEqual({ watts: 90, plusMinus: 5 });
  expect(markWatts(marks[1]!)).toEqual({ watts: 40, plusMinus: 3 });
  expect(markWatts(marks[2]!)).toEqual({ watts: 60, plusMinus: 4 });
});

test('one without powers, or that never settled, is no mark', () => {
  const silent = run('s', 0, 0, 30);
  silent.states[1]!.means = { levelDbA: mean(30) };
  expect(runMarks([silent, { ...run('n', 1, 1, 1), states: [], lacks: 'no' }], () => '')).toEqual(
    [],
  );
});

test('a mark stands at the rung of its level, and at none where none is near', () => {
  const marks = runMarks(
    [
      run('a', 40, 50, 31.2),
      run('b', 40, 50, 43.4),
      run('c', 40, 50, 39.5),
      run('d', 40, 50, null),
    ],
    (r) => r.id,
  );
  const by = marksByRung(marks, caps, 'together');
  expect([...by].map(([cap, own]) => [cap, own.map((m) => m.key)])).toEqual([
    [32, ['a']],
    ['full', ['b']],
  ]);
  expect(marksByRung(marks, caps, 'cpuAlone').size).toBe(0);
});
