/** @jest-environment jsdom */
import { renderHook } from '@testing-library/react';
import { useTurns } from './useTurns';

beforeEach(() => jest.useFakeTimers());
afterEach(() => jest.useRealTimers());

const start = () => {
  const drawn: string[] = [];
  const hook = renderHook(
    ({ name }: { name: string }) => useTurns(3, (k) => drawn.push(`${name}${k}`)),
    {
      initialProps: { name: 'a' },
    },
  );
  return { drawn, hook, soon: () => hook.result.current.drawSoon() };
};

test('each plot is drawn once, each in a task of its own', () => {
  const { drawn, soon } = start();
  soon();
  expect(drawn).toEqual([]);
  jest.advanceTimersToNextTimer();
  expect(drawn).toEqual(['a0']);
  jest.runAllTimers();
  expect(drawn).toEqual(['a0', 'a1', 'a2']);
});

test('what changes on the way is drawn by all, with no plot passed over however often it changes', () => {
  const { drawn, hook, soon } = start();
  soon();
  for (const next of ['b', 'c', 'd', 'e']) {
    jest.advanceTimersToNextTimer();
    hook.rerender({ name: next });
    soon();
  }
  expect(drawn).toEqual(['a0', 'b1', 'c2', 'd0']);
  jest.runAllTimers();
  expect(drawn).toEqual(['a0', 'b1', 'c2', 'd0', 'e1', 'e2', 'e0']);
});

test('what is gone is not drawn', () => {
  const { drawn, hook, soon } = start();
  soon();
  jest.advanceTimersToNextTimer();
  hook.unmount();
  jest.runAllTimers();
  expect(drawn).toEqual(['a0']);
});
