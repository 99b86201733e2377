/** @jest-environment jsdom */
import { renderHook } from '@testing-library/react';
import { useSetAddress } from './useSetAddress';

/** What was last drawn: the address goes on, and this stays behind. */
const drawn = new URLSearchParams('at=36');
jest.mock('react-router', () => ({
  useSearchParams: () => [
    drawn,
    (make: (now: URLSearchParams) => URLSearchParams) =>
      window.history.replaceState(null, '', `?${make(new URLSearchParams(drawn))}`),
  ],
}));

test('two words that are set before anything is drawn both stand in the address; null takes one out, an empty one stays', () => {
  window.history.replaceState(null, '', '?at=36');
  const { result } = renderHook(() => useSetAddress());
  result.current('x', 'massKg');
  result.current('y', 'watts');
  expect(window.location.search).toBe('?at=36&x=massKg&y=watts');
  result.current('x', null);
  result.current('over', '');
  expect(window.location.search).toBe('?at=36&y=watts&over=');
});
