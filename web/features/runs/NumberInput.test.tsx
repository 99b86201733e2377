/** @jest-environment jsdom */
import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { NumberInput } from './NumberInput';

const kept: (number | null)[] = [];

/** A value that somebody else can change too. */
function Held() {
  const [value, setValue] = useState<number | null>(19);
  return (
    <>
      <NumberInput
        label="background"
        value={value}
        low={-20}
        high={120}
        set={(x) => {
          kept.push(x);
          setValue(x);
        }}
      />
      <button type="button" onClick={() => setValue(25)}>
        elsewhere
      </button>
    </>
  );
}

beforeEach(() => {
  kept.length = 0;
});
const field = () => screen.getByLabelText<HTMLInputElement>('background');

test('what is typed stands as typed, a comma too, and only numbers within bounds are kept', async () => {
  render(<Held />);
  const user = userEvent.setup();
  await user.clear(field());
  await user.type(field(), '21,50');
  expect(field().value).toBe('21,50');
  await user.clear(field());
  await user.type(field(), '-');
  expect(field().value).toBe('-');
  await user.type(field(), '900');
  await user.tab();
  expect((await screen.findByRole('alert')).textContent).toBe('must be from -20 to 120');
  expect(field().value).toBe('-900');
  expect(kept).toEqual([null, 2, 21, 21, 21.5, 21.5, null, -9]);
});

test('what is changed elsewhere, or taken back, shows in its place', async () => {
  render(<Held />);
  const user = userEvent.setup();
  await user.clear(field());
  await user.type(field(), '30');
  await user.click(screen.getByRole('button', { name: 'elsewhere' }));
  expect(field().value).toBe('25');
});
