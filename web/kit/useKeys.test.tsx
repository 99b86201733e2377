/** @jest-environment jsdom */
import { fireEvent, render, screen } from '@testing-library/react';
import { useKeys, type KeyMap } from './useKeys';

function Page({ keys, active = true, first }: { keys: KeyMap; active?: boolean; first?: KeyMap }) {
  useKeys(keys, active);
  useKeys(first ?? {}, first !== undefined, true);
  return (
    <>
      <input aria-label="field" />
      <button type="button">button</button>
    </>
  );
}
const press = (key: string, more: object = {}, on: Element = document.body) =>
  fireEvent.keyDown(on, { key, ...more });

test('single keys are heard outside fields alone, those with Ctrl everywhere', () => {
  const n = jest.fn();
  const z = jest.fn();
  render(<Page keys={{ n, 'mod+z': z }} />);
  press('n');
  press('N');
  expect(n).toHaveBeenCalledTimes(2);
  const field = screen.getByLabelText('field');
  press('n', {}, field);
  expect(n).toHaveBeenCalledTimes(2);
  press('z', { ctrlKey: true }, field);
  press('z', { metaKey: true });
  expect(z).toHaveBeenCalledTimes(2);
  press('z', { ctrlKey: true, shiftKey: true });
  press('n', { altKey: true });
  expect(z).toHaveBeenCalledTimes(2);
  expect(n).toHaveBeenCalledTimes(2);
});

test('what was answered elsewhere is not answered twice; a view’s own keys come before the page’s', () => {
  const page = jest.fn();
  const own = jest.fn();
  const { rerender } = render(<Page keys={{ 'mod+z': page }} first={{ 'mod+z': own }} />);
  press('z', { ctrlKey: true });
  expect([own.mock.calls.length, page.mock.calls.length]).toEqual([1, 0]);
  rerender(<Page keys={{ 'mod+z': page }} />);
  press('z', { ctrlKey: true });
  expect([own.mock.calls.length, page.mock.calls.length]).toEqual([1, 1]);
});

test('a dialog that is open hears single keys alone; switched off nothing is heard', () => {
  const n = jest.fn();
  const { rerender } = render(<Page keys={{ n }} />);
  const dialog = document.body.appendChild(document.createElement('dialog'));
  dialog.setAttribute('open', '');
  press('n');
  expect(n).not.toHaveBeenCalled();
  dialog.remove();
  rerender(<Page keys={{ n }} active={false} />);
  press('n');
  expect(n).not.toHaveBeenCalled();
});

test('the newest meaning of a key holds', () => {
  const before = jest.fn();
  const after = jest.fn();
  const { rerender } = render(<Page keys={{ n: before }} />);
  rerender(<Page keys={{ n: after }} />);
  press('n');
  expect(before).not.toHaveBeenCalled();
  expect(after).toHaveBeenCalledTimes(1);
});
