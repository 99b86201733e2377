/** @jest-environment jsdom */
import { act, renderHook } from '@testing-library/react';
import type { Draft } from './draft';
import { useUndo } from './useUndo';

const open = () => {
  const { result } = renderHook(() => useUndo({ a: 0 }));
  const set = (a: number, touched?: string) =>
    act(() => result.current.change((d: Draft) => ({ ...d, a }), touched ?? null));
  return { b: () => result.current, set };
};

beforeEach(() => {
  jest.useFakeTimers();
  jest.setSystemTime(1000);
});
afterEach(() => jest.useRealTimers());

test('a word typed in one field is one step; another field, or a pause, begins the next', () => {
  const { b, set } = open();
  set(1, 'width');
  set(12, 'width');
  jest.setSystemTime(3000);
  set(123, 'width');
  set(4, 'depth');
  expect(b().draft).toEqual({ a: 4 });
  act(() => b().undo());
  expect(b().draft).toEqual({ a: 123 });
  act(() => b().undo());
  expect(b().draft).toEqual({ a: 12 });
  act(() => b().undo());
  expect(b().draft).toEqual({ a: 0 });
  expect(b().canUndo).toBe(false);
  act(() => b().undo());
  expect(b().draft).toEqual({ a: 0 });
  act(() => b().redo());
  act(() => b().redo());
  expect(b().draft).toEqual({ a: 123 });
});

test('after a step back what is typed begins a step of its own, and what was ahead is gone', () => {
  const { b, set } = open();
  set(1, 'width');
  act(() => b().undo());
  set(2, 'width');
  expect(b().canRedo).toBe(false);
  act(() => b().undo());
  expect(b().draft).toEqual({ a: 0 });
});

test('a change that changes nothing is no step; very many steps are bounded', () => {
  const { b, set } = open();
  act(() => b().change((d) => d));
  expect(b().canUndo).toBe(false);
  for (let k = 1; k <= 400; k++) set(k);
  let back = 0;
  while (b().canUndo) {
    act(() => b().undo());
    back++;
  }
  expect(back).toBeLessThanOrEqual(301);
  expect(b().draft['a']).toBe(400 - back);
});
