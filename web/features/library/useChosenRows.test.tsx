/** @jest-environment jsdom */
import { act, renderHook } from '@testing-library/react';
import { useChosenRows } from './useChosenRows';

const IDS = ['a', 'b', 'c', 'd', 'e'];
function rows(idAt = (i: number): string | undefined => IDS[i]) {
  const { result } = renderHook(() => useChosenRows(idAt));
  return {
    turn: (i: number, reach?: boolean) => act(() => result.current.turn(i, reach)),
    chosen: () => [...result.current.chosen].sort().join(''),
    at: () => result.current.at,
    act: (what: (r: typeof result.current) => void) => act(() => what(result.current)),
  };
}

test('one row is turned, and turned back', () => {
  const r = rows();
  r.turn(1);
  r.turn(3);
  expect(r.chosen()).toBe('bd');
  expect(r.at()).toBe(3);
  r.turn(1);
  expect(r.chosen()).toBe('d');
});

test('Shift reaches from the row turned last, either way, and again from there', () => {
  const r = rows();
  r.turn(1);
  r.turn(3, true);
  expect(r.chosen()).toBe('bcd');
  r.turn(0, true);
  expect(r.chosen()).toBe('abcd');
  // given up from one given up
  r.turn(2);
  r.turn(4, true);
  expect(r.chosen()).toBe('ab');
});

test('Shift with nothing before turns one; rows that are not read yet are left out', () => {
  const r = rows((i) => (i === 2 ? undefined : IDS[i]));
  r.turn(1, true);
  expect(r.chosen()).toBe('b');
  r.turn(0);
  r.turn(4, true);
  expect(r.chosen()).toBe('abde');
  r.act((x) => x.clear());
  expect(r.chosen()).toBe('');
  r.act((x) => x.choose(['c', 'e']));
  expect(r.chosen()).toBe('ce');
});
