/** @jest-environment jsdom */
import { act, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { takeOne } from '@zugluft/core/service/benchEdits';
import { addStep, withLayer } from '@zugluft/core/service/logEdits';
import { EMPTY_LOG, type OpenUpLog } from '@zugluft/core/service/openUpLog';
import { ScrewMap } from './ScrewMap';

// not known to this environment: the map is as large as it is at first
globalThis.ResizeObserver ??= class {
  observe = () => undefined;
  unobserve = () => undefined;
  disconnect = () => undefined;
};

const start = addStep(withLayer(EMPTY_LOG, { widthMm: 340, depthMm: 240 }), 'Base cover off');
let now: OpenUpLog;

function Desk({ from = start }: { from?: OpenUpLog }) {
  const [log, setLog] = useState(from);
  now = log;
  return (
    <ScrewMap log={log} layer={log.layers[0]!} stepId="step1" order={new Map()} change={setLog} />
  );
}

async function open(from?: OpenUpLog) {
  const user = userEvent.setup();
  render(<Desk {...(from ? { from } : {})} />);
  act(() => screen.getByTestId('screw-map').focus());
  return (keys: string) => user.keyboard(keys);
}

test('by keys: a hole is logged, its screw taken out, put back, as if never touched', async () => {
  const press = await open();
  await press('b{Enter}');
  expect(now.screws).toMatchObject([{ xMm: 10, yMm: 10, out: false }]);
  expect(now.groups).toMatchObject([{ letter: 'B' }]);
  expect(now.steps[0]!.screws).toEqual(['s1']);
  await press('{Enter}');
  expect(now.screws[0]).toMatchObject({ out: true });
  await press('{Enter}');
  expect(now.screws[0]).toMatchObject({ out: true, back: 'own' });
  await press('{Enter}');
  expect(now.screws[0]).toMatchObject({ out: false });
});

test('arrows move by 5 mm, with Shift by 1, and stop at the rim; near a hole it is the hole', async () => {
  const press = await open();
  await press('{Enter}{ArrowLeft}{ArrowLeft}{ArrowLeft}{ArrowLeft}{ArrowUp}{Enter}');
  expect(now.screws[1]).toMatchObject({ xMm: 0, yMm: 5 });
  await press('{Shift>}{ArrowRight}{ArrowRight}{/Shift}');
  await press('{Enter}');
  expect(now.screws).toHaveLength(2);
  expect(now.screws[1]).toMatchObject({ out: true });
});

test('an empty hole is marked and never a logged screw; lost, removed', async () => {
  const press = await open();
  await press('0');
  expect(now.screws).toMatchObject([{ onArrival: 'missing', out: false, xMm: 10 }]);
  await press('{Enter}');
  expect(now.screws[0]).toMatchObject({ out: false });
  // looked at again, and there after all
  await press('0{Enter}');
  expect(now.screws[0]).toMatchObject({ onArrival: 'there', out: true });
  await press('0');
  expect(now.screws[0]).toMatchObject({ onArrival: 'there', out: true });
  expect(screen.getByText(/A screw was logged in this hole/)).not.toBeNull();
  await press('-');
  expect(now.screws[0]).toMatchObject({ back: 'lost' });
  await press('-');
  expect(now.screws[0]!.back).toBeUndefined();
  await press('{Delete}');
  expect(now.screws).toEqual([]);
});

test('a screw that was only counted gets its place before a new hole is made, of its own group alone', async () => {
  const counted = takeOne(start, 'step1', 'A', 'base', null);
  const press = await open(counted);
  expect(screen.getByText(/1 counted, not on the map yet/)).not.toBeNull();
  await press('b{Enter}');
  expect(now.screws).toHaveLength(2);
  await press('a{ArrowRight}{ArrowRight}{Enter}');
  expect(now.screws).toHaveLength(2);
  expect(now.screws[0]).toMatchObject({ xMm: 20, yMm: 10, out: true });
  expect(screen.queryByText(/not on the map yet/)).toBeNull();
});
