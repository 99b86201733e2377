/** @jest-environment jsdom */
import { act, fireEvent, render, screen } from '@testing-library/react';
import { useState } from 'react';
import { useTypedParam } from './useTypedParam';

/** An address that follows late: only when it is told to. */
let arrive: () => void;
let goTo: (text: string) => void;

function View() {
  const [stands, setStands] = useState('start');
  const [asked, setAsked] = useState('start');
  arrive = () => setStands(asked);
  goTo = setStands;
  const [shown, type] = useTypedParam(stands, setAsked);
  return <input aria-label="find" value={shown} onChange={(e) => type(e.currentTarget.value)} />;
}
const field = () => screen.getByLabelText<HTMLInputElement>('find');
const type = (value: string) => fireEvent.change(field(), { target: { value } });

test('no letter is lost while the address is behind, and a link elsewhere is taken over', () => {
  render(<View />);
  type('f');
  expect(field().value).toBe('f');
  type('fi');
  // the address arrives at the first letter only now
  act(() => goTo('f'));
  expect(field().value).toBe('fi');
  type('fin');
  act(() => arrive());
  expect(field().value).toBe('fin');
  act(() => goTo('fans.psi'));
  expect(field().value).toBe('fans.psi');
  type('');
  act(() => arrive());
  expect(field().value).toBe('');
});
