import { loadDone, workDone, workDoneCells } from './workDone';

test('a score as it is written down; the frame rate too, else the mean of its channel', () => {
  expect(loadDone({ name: ' all cores ', score: 12_400 }, {})).toEqual({
    load: 'all cores',
    score: 12_400,
    framesPerS: null,
  });
  const channel = { framesPerS: { mean: 88.5 } };
  expect(loadDone({ framesPerS: 90 }, channel)).toMatchObject({ load: '', framesPerS: 90 });
  expect(loadDone({ score: null, framesPerS: null }, channel)).toMatchObject({ framesPerS: 88.5 });
  expect(loadDone(undefined, channel)).toMatchObject({ framesPerS: 88.5 });
  expect(loadDone({ name: 'stress', score: null }, { cpuPowerW: { mean: 40 } })).toBeNull();
  // none at all is a score like any other
  expect(loadDone({ score: 0 }, {})).toMatchObject({ score: 0 });
});

test('for each watt of both dies; what told nothing, or had no watts, is left out', () => {
  const done = { load: 'scene', score: 12_400, framesPerS: 87.25 };
  const rows = workDone([
    { run: 'a', cpuW: 30, gpuW: 70, done },
    { run: 'b', cpuW: 30, gpuW: 70, done: null },
    { run: 'c', cpuW: 30, gpuW: 70 },
    { run: 'd', cpuW: 0, gpuW: 0, done },
    { run: 'e', cpuW: 40, gpuW: 0, done: { load: '', score: null, framesPerS: 4 } },
  ]);
  expect(rows.map((r) => [r.run, r.unit, r.watts, r.perWatt])).toEqual([
    ['a', 'points', 100, 124],
    ['a', 'frames/s', 100, 0.8725],
    ['e', 'frames/s', 40, 0.1],
  ]);
  expect(rows.map(workDoneCells)).toEqual([
    ['scene, a', '100', '12,400 points', '124'],
    ['scene, a', '100', '87.3 frames/s', '0.87'],
    ['e', '40', '4 frames/s', '0.1'],
  ]);
});
