/** @jest-environment jsdom */
import { act, fireEvent, renderHook } from '@testing-library/react';
import type { RecordIssue } from '@zugluft/core/record/checkRecord';
import { PAUSE_MS } from '../../kit/useHalfTyped';
import { useJudged } from './useJudged';

const issue = (path: string, message = 'wrong'): RecordIssue => ({
  kind: 'impossible',
  path,
  message,
});
beforeEach(() => jest.useFakeTimers());
afterEach(() => jest.useRealTimers());

function judge(first: RecordIssue[]) {
  const hook = renderHook((issues: RecordIssue[]) => useJudged(issues), { initialProps: first });
  return {
    said: () => hook.result.current.judged.map((i) => `${i.path} ${i.message}`),
    type: (issues: RecordIssue[]) => {
      act(() => hook.result.current.typed());
      hook.rerender(issues);
    },
    now: (issues: RecordIssue[]) => hook.rerender(issues),
    typing: () => hook.result.current.typing,
  };
}

test('what is wrong by a click is said at once, what is typed after a pause', () => {
  const j = judge([issue('a')]);
  expect(j.said()).toEqual(['a wrong']);
  j.now([issue('a'), issue('b')]);
  expect(j.said()).toEqual(['a wrong', 'b wrong']);
  j.type([issue('a'), issue('b'), issue('c')]);
  expect(j.said()).toEqual(['a wrong', 'b wrong']);
  expect(j.typing()).toBe(true);
  act(() => jest.advanceTimersByTime(PAUSE_MS - 1));
  expect(j.said()).toEqual(['a wrong', 'b wrong']);
  act(() => jest.advanceTimersByTime(1));
  expect(j.said()).toEqual(['a wrong', 'b wrong', 'c wrong']);
});

test('each key begins the pause anew; leaving the field ends it', () => {
  const j = judge([]);
  j.type([issue('a', 'half')]);
  act(() => jest.advanceTimersByTime(PAUSE_MS - 1));
  j.type([issue('a', 'still half')]);
  act(() => jest.advanceTimersByTime(PAUSE_MS - 1));
  expect(j.said()).toEqual([]);
  act(() => void fireEvent.focusOut(window));
  expect(j.said()).toEqual(['a still half']);
});

test('what is mended goes at once, and another fault of the same field waits', () => {
  const j = judge([issue('a'), issue('b')]);
  j.type([issue('a', 'other'), issue('b')]);
  expect(j.said()).toEqual(['b wrong']);
  j.type([issue('b')]);
  expect(j.said()).toEqual(['b wrong']);
});
