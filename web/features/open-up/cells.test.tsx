/** @jest-environment jsdom */
import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { NumberCell, readNumber, TextCell, YesNoCell } from './cells';

test.each([
  ['', { value: undefined }],
  ['2,5', { value: 2.5 }],
  [' .5 ', { value: 0.5 }],
  ['5.', { value: 5 }],
  ['-1', { wrong: 'at least 0' }],
  ['61', { wrong: 'at most 60' }],
  ['1e3', { wrong: 'at most 60' }],
  ['1e999', { wrong: 'is no number' }],
  ['0x10', { wrong: 'is no number' }],
  ['Infinity', { wrong: 'is no number' }],
  ['5 mm', { wrong: 'is no number' }],
  ['١٢', { wrong: 'is no number' }],
])('“%s” is read as %j', (text, expected) => {
  expect(readNumber(text, { min: 0, max: 60 })).toEqual(expected);
});

function Length({
  told,
  whole = false,
}: {
  told: (v: number | undefined) => void;
  whole?: boolean;
}) {
  const [value, setValue] = useState<number | undefined>(8);
  return (
    <NumberCell
      label="length"
      value={value}
      min={0.5}
      max={60}
      whole={whole}
      set={(v) => {
        setValue(v);
        told(v);
      }}
    />
  );
}

test('a refused number is said at the field, stays to be mended, and changes nothing', async () => {
  const told = jest.fn();
  const user = userEvent.setup();
  render(<Length told={told} />);
  const field = screen.getByLabelText<HTMLInputElement>('length');
  await user.clear(field);
  expect(told).toHaveBeenLastCalledWith(undefined);
  await user.type(field, '99');
  expect(told).toHaveBeenLastCalledWith(9);
  // half typed it is no mistake yet
  expect(screen.queryByRole('alert')).toBeNull();
  await user.tab();
  expect(screen.getByRole('alert').textContent).toBe('at most 60');
  expect(field.getAttribute('aria-invalid')).toBe('true');
  expect(field.value).toBe('99');
  await user.clear(field);
  await user.type(field, '12,5');
  expect(told).toHaveBeenLastCalledWith(12.5);
  expect(screen.queryByRole('alert')).toBeNull();
  await user.tab();
  expect(field.value).toBe('12.5');
});

test('a whole number has no part', async () => {
  const told = jest.fn();
  const user = userEvent.setup();
  render(<Length told={told} whole />);
  await user.type(screen.getByLabelText('length'), '.5');
  await user.tab();
  expect(screen.getByRole('alert').textContent).toBe('is a whole number');
});

test('a name cannot be taken away: it is said, and left the old one is back', async () => {
  const set = jest.fn();
  const user = userEvent.setup();
  render(<TextCell label="name" value="battery" required set={set} />);
  const field = screen.getByLabelText<HTMLInputElement>('name');
  await user.clear(field);
  expect(set).not.toHaveBeenCalled();
  // once the hand rests
  const said = await screen.findByRole('alert', {}, { timeout: 10_000 });
  expect(said.textContent).toBe('needs a name');
  await user.tab();
  expect(field.value).toBe('battery');
  expect(screen.queryByRole('alert')).toBeNull();
});

test('figures are read as elsewhere: fractions, other units, about so much', async () => {
  const told = jest.fn();
  const user = userEvent.setup();
  render(<Length told={told} />);
  const field = screen.getByLabelText<HTMLInputElement>('length');
  for (const [text, value] of [
    ['1/2', 0.5],
    ['~7,5', 7.5],
    ['12-14', 13],
    ['5.', 5],
  ] as const) {
    await user.clear(field);
    await user.type(field, text);
    await user.tab();
    expect(told).toHaveBeenLastCalledWith(value);
    expect(field.value).toBe(String(value));
  }
});

test('yes, no and not said are three answers', async () => {
  const set = jest.fn();
  const user = userEvent.setup();
  const { rerender } = render(<YesNoCell label="alone" value={undefined} set={set} />);
  const field = screen.getByLabelText<HTMLSelectElement>('alone');
  await user.selectOptions(field, 'no');
  expect(set).toHaveBeenLastCalledWith(false);
  rerender(<YesNoCell label="alone" value={false} set={set} />);
  expect(field.value).toBe('no');
  await user.selectOptions(field, '');
  expect(set).toHaveBeenLastCalledWith(undefined);
});
