import { heatWays, waysOfPipe } from './heatWays';

const pipe = [
  { part: 'fins-left', watts: -24 },
  { part: 'plate-cpu', watts: 20 },
  { part: 'plate-gpu', watts: 30 },
  { part: 'fins-right', watts: -26 },
];

test('between two parts flows what entered before', () => {
  expect(waysOfPipe(pipe)).toEqual([
    { from: 'fins-left', to: 'plate-cpu', watts: -24 },
    { from: 'plate-cpu', to: 'plate-gpu', watts: -4 },
    { from: 'plate-gpu', to: 'fins-right', watts: 26 },
  ]);
  expect(waysOfPipe([])).toEqual([]);
  expect(waysOfPipe(pipe.slice(0, 1))).toEqual([]);
});

test('pipes between the same parts are summed, whichever end they are recorded from', () => {
  const back = [...pipe].reverse();
  expect(heatWays([waysOfPipe(pipe), waysOfPipe(back)])).toEqual([
    { from: 'plate-cpu', to: 'fins-left', watts: 48 },
    { from: 'plate-gpu', to: 'plate-cpu', watts: 8 },
    { from: 'plate-gpu', to: 'fins-right', watts: 52 },
  ]);
});
