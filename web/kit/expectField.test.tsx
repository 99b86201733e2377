/** @jest-environment jsdom */
import { fireEvent, render, screen } from '@testing-library/react';
import { expectField } from './expectField';
import { useFieldOrder } from './fieldOrder';
import { useKeys } from './useKeys';

const inserted: string[] = [];
beforeEach(() => {
  inserted.length = 0;
  // not known to this environment
  document.execCommand = (_command, _show, text = '') => {
    const field = document.activeElement as HTMLInputElement;
    inserted.push(`${field.getAttribute('aria-label')} ${text}`);
    return true;
  };
});
const press = (key: string) => fireEvent.keyDown(document.body, { key });

function Page({ m }: { m: () => void }) {
  useKeys({ m });
  useFieldOrder();
  return (
    <main>
      <input aria-label="maker" />
      <input aria-label="model" />
    </main>
  );
}

test('what is typed before the field is there goes into it, and is no command', async () => {
  const m = jest.fn();
  render(<Page m={m} />);
  expectField();
  for (const key of ['m', 'x', 'Backspace', 'o', 'Enter', '7']) press(key);
  expect(m).not.toHaveBeenCalled();
  screen.getByLabelText('maker').focus();
  await Promise.resolve();
  expect(inserted).toEqual(['maker m', 'maker o', 'model 7']);
  // once it is there keys are what they were
  (document.activeElement as HTMLElement).blur();
  await Promise.resolve();
  press('m');
  expect(m).toHaveBeenCalledTimes(1);
});

test.each(['Escape', 'pointer', 'wait'])('%s ends the waiting', async (by) => {
  jest.useFakeTimers();
  const m = jest.fn();
  render(<Page m={m} />);
  // the field of the test before went away under the hand
  fireEvent.pointerDown(document.body);
  expectField();
  press('m');
  if (by === 'Escape') press('Escape');
  else if (by === 'pointer') fireEvent.pointerDown(document.body);
  else jest.advanceTimersByTime(10_000);
  press('m');
  expect(m).toHaveBeenCalledTimes(1);
  screen.getByLabelText('maker').focus();
  await Promise.resolve();
  expect(inserted).toEqual([]);
  jest.useRealTimers();
});
