/** @jest-environment jsdom */
import {
  askedBefore,
  isUncovered,
  keepAsked,
  keepReviewer,
  keepUncovered,
  lastReviewer,
} from './reviewer';

beforeEach(() => localStorage.clear());

test('nobody and nothing at first', () => {
  expect([lastReviewer(), askedBefore(), isUncovered('a')]).toEqual(['', false, false]);
});

test('who guessed, and whether it was asked, is remembered', () => {
  keepReviewer('Mara');
  keepAsked(true);
  expect([lastReviewer(), askedBefore()]).toEqual(['Mara', true]);
  keepAsked(false);
  expect(askedBefore()).toBe(false);
});

test('of the machines that were uncovered the newest 500 are remembered', () => {
  for (let i = 0; i <= 500; i++) keepUncovered(`m${i}`);
  // once more, and the newest again
  keepUncovered('m1');
  expect([isUncovered('m0'), isUncovered('m1'), isUncovered('m500')]).toEqual([false, true, true]);
  keepUncovered('m501');
  expect([isUncovered('m1'), isUncovered('m2')]).toEqual([true, false]);
});

test('what others left there is no machine', () => {
  for (const odd of ['{', '{"a":1}', '[1,null,"m"]']) {
    localStorage.setItem('zugluft.uncovered', odd);
    expect(isUncovered('m')).toBe(odd.includes('"m"'));
  }
});
