/** @jest-environment jsdom */
import { act, fireEvent, render, screen } from '@testing-library/react';
import { startTransition, Suspense, use, useState } from 'react';
import { useAddressText } from './useAddressText';

/** An address that follows late: only when it is told to. */
let arrive: () => void;
let goTo: (text: string) => void;

function View() {
  const [stands, setStands] = useState('start');
  const [asked, setAsked] = useState('start');
  arrive = () => setStands(asked);
  goTo = setStands;
  const [shown, type] = useAddressText(stands, setAsked);
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

const NEVER = new Promise<never>(() => {});

/** What hangs on the address here is never drawn: it waits for something that does not come. */
function Waits({ stands }: { stands: string }) {
  if (stands !== 'a') use(NEVER);
  return <p>drawn of {stands}</p>;
}

/** An address that follows as the router’s does: once all that hangs on it is drawn. */
function Chooses() {
  const [stands, setStands] = useState('a');
  const [text, choose] = useAddressText(stands, (next) => startTransition(() => setStands(next)));
  return (
    <>
      <input
        type="checkbox"
        checked={text === 'a'}
        onChange={(e) => choose(e.currentTarget.checked ? 'a' : 'none')}
      />
      <Suspense>
        <Waits stands={stands} />
      </Suspense>
    </>
  );
}

test('a choice shows at once, though what hangs on it is not drawn yet', async () => {
  render(<Chooses />);
  const box = screen.getByRole<HTMLInputElement>('checkbox');

  await act(async () => void fireEvent.click(box));
  expect(screen.getByText('drawn of a')).toBeTruthy();
  expect(box.checked).toBe(false);
});
