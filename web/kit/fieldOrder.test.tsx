/** @jest-environment jsdom */
import { act, fireEvent, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { enterField, useFieldOrder } from './fieldOrder';
import { Modal } from './Modal';
import { PlainInput } from './PlainInput';
import { ToggleChips } from './ToggleChips';
import { useKeys } from './useKeys';

function Page({ onAdd = () => undefined }: { onAdd?: () => void }) {
  useFieldOrder();
  const [chosen, setChosen] = useState<string[]>([]);
  return (
    <main data-fields>
      <input aria-label="figure" defaultValue="12" />
      <select aria-label="choice">
        <option>one</option>
      </select>
      <ToggleChips
        label="fans"
        options={[
          { id: 'a', words: 'fan a' },
          { id: 'b', words: 'fan b' },
        ]}
        chosen={chosen}
        toggle={(id, on) => setChosen((c) => (on ? [...c, id] : c.filter((x) => x !== id)))}
      />
      <input type="checkbox" aria-label="mesh" />
      <input aria-label="skipped" tabIndex={-1} />
      <textarea aria-label="note" />
      <input type="search" aria-label="search" defaultValue="words" />
      <button type="button">other</button>
      <button type="button" data-onward onClick={onAdd}>
        add
      </button>
    </main>
  );
}
const focused = () =>
  document.activeElement?.getAttribute('aria-label') ?? document.activeElement?.textContent;

test('Enter goes on through fields and choices in reading order to the button that adds; Shift+Enter back', async () => {
  const user = userEvent.setup();
  const onAdd = jest.fn();
  render(<Page onAdd={onAdd} />);
  await user.click(screen.getByLabelText('figure'));
  const on = async () => {
    await user.keyboard('{Enter}');
    return focused();
  };
  expect(await on()).toBe('choice');
  expect(await on()).toContain('fan a');
  // a chip is turned by Space and gone on from by Enter
  await user.keyboard(' ');
  expect(screen.getByRole('button', { name: 'fan a' }).getAttribute('aria-pressed')).toBe('true');
  expect(await on()).toBe('mesh');
  expect(screen.getByRole('button', { name: 'fan a' }).getAttribute('aria-pressed')).toBe('true');
  expect(await on()).toBe('note');
  // in a text of several lines it is a line
  await user.keyboard('a{Enter}b');
  expect(screen.getByLabelText<HTMLTextAreaElement>('note').value).toBe('a\nb');
  await user.tab();
  expect(focused()).toBe('search');
  expect(await on()).toBe('add');
  expect(onAdd).not.toHaveBeenCalled();
  await user.keyboard('{Enter}');
  expect(onAdd).toHaveBeenCalledTimes(1);
  screen.getByLabelText('mesh').focus();
  await user.keyboard('{Shift>}{Enter}{/Shift}');
  expect(focused()).toContain('fan a');
  await user.keyboard('{Shift>}{Enter}{Enter}{Enter}{/Shift}');
  // before the first one there is none: the hand stays
  expect(focused()).toBe('figure');
});

test('from the last field without a button the hand stays where it is', async () => {
  const user = userEvent.setup();
  function Last() {
    useFieldOrder();
    return (
      <main>
        <input aria-label="last" />
      </main>
    );
  }
  render(<Last />);
  await user.click(screen.getByLabelText('last'));
  await user.keyboard('{Enter}');
  expect(focused()).toBe('last');
});

test('Escape leaves every field, and takes nothing of what stands in it', async () => {
  const user = userEvent.setup();
  render(<Page />);
  for (const label of ['figure', 'choice', 'mesh', 'note', 'search']) {
    screen.getByLabelText(label).focus();
    await user.keyboard('{Escape}');
    expect(document.activeElement).toBe(document.body);
  }
  screen.getByRole('button', { name: 'fan b' }).focus();
  await user.keyboard('{Escape}');
  expect(document.activeElement).toBe(document.body);
  expect(screen.getByLabelText<HTMLInputElement>('search').value).toBe('words');
  expect(screen.getByLabelText<HTMLInputElement>('figure').value).toBe('12');
});

test('with no field in hand Enter takes up the first empty one; a figure stands ready to be typed over', async () => {
  const user = userEvent.setup();
  const { container } = render(<Page />);
  const search = screen.getByLabelText<HTMLInputElement>('search');
  search.value = '';
  await user.keyboard('{Enter}');
  expect(focused()).toBe('search');
  const figure = screen.getByLabelText<HTMLInputElement>('figure');
  enterField(figure);
  expect([figure.selectionStart, figure.selectionEnd]).toEqual([0, 2]);
  // a page that is not made of fields is left alone
  container.querySelector('main')!.removeAttribute('data-fields');
  await user.keyboard('{Escape}{Enter}');
  expect(document.activeElement).toBe(document.body);
});

test('keys typed on after a field went away are no commands, until somebody means it', async () => {
  const user = userEvent.setup();
  const n = jest.fn();
  function Vanishing() {
    useFieldOrder();
    useKeys({ n });
    const [there, setThere] = useState(true);
    return (
      <main>
        <button type="button" onClick={() => setThere(true)}>
          back
        </button>
        {there && (
          <input aria-label="share" onChange={(e) => setThere(e.currentTarget.value !== '0')} />
        )}
      </main>
    );
  }
  render(<Vanishing />);
  await user.click(screen.getByLabelText('share'));
  await user.keyboard('0nn');
  expect(screen.queryByLabelText('share')).toBeNull();
  expect(n).not.toHaveBeenCalled();
  await user.keyboard('{Escape}n');
  expect(n).toHaveBeenCalledTimes(1);
  // left by the page itself and gone only later: nobody was typing
  await user.click(screen.getByRole('button', { name: 'back' }));
  const field = screen.getByLabelText('share');
  await user.click(field);
  act(() => field.blur());
  await Promise.resolve();
  fireEvent.change(field, { target: { value: '0' } });
  expect(screen.queryByLabelText('share')).toBeNull();
  await user.keyboard('n');
  expect(n).toHaveBeenCalledTimes(2);
  n.mockClear();
  // left by hand and then gone: keys mean what they say
  await user.click(screen.getByRole('button', { name: 'back' }));
  await user.click(screen.getByLabelText('share'));
  await user.keyboard('{Escape}n');
  expect(n).toHaveBeenCalledTimes(1);
});

test('a dialog that is taken off the page gives the hand back', async () => {
  const user = userEvent.setup();
  // dialogs are not known to this environment
  HTMLDialogElement.prototype.showModal ??= function (this: HTMLDialogElement) {
    this.setAttribute('open', '');
  };
  function Opening() {
    const [open, setOpen] = useState(false);
    return (
      <main>
        <button type="button" onClick={() => setOpen(true)}>
          open
        </button>
        {open && (
          <Modal title="more" open onClose={() => setOpen(false)}>
            <input aria-label="inside" autoFocus />
            <button type="button" onClick={() => setOpen(false)}>
              done
            </button>
          </Modal>
        )}
      </main>
    );
  }
  render(<Opening />);
  await user.click(screen.getByRole('button', { name: 'open' }));
  await user.click(screen.getByLabelText('inside'));
  await user.click(screen.getByText('done'));
  await Promise.resolve();
  expect(focused()).toBe('open');
});

test('what is wrong is said when the field is left or the hand rests, not while one types', async () => {
  jest.useFakeTimers();
  const user = userEvent.setup({ advanceTimers: jest.advanceTimersByTime });
  function Day() {
    const [text, setText] = useState('');
    const bad = text !== '' && text.length < 3;
    return (
      <PlainInput
        label="day"
        value={text}
        onChange={setText}
        error={bad ? 'too short' : undefined}
      />
    );
  }
  render(<Day />);
  const field = screen.getByLabelText('day');
  await user.type(field, '2');
  expect(screen.queryByText('too short')).toBeNull();
  expect(field.getAttribute('aria-invalid')).toBeNull();
  await user.tab();
  expect(screen.getByText('too short')).not.toBeNull();
  await user.type(field, '5');
  expect(screen.queryByText('too short')).toBeNull();
  await act(() => jest.advanceTimersByTimeAsync(2000));
  expect(screen.queryByText('too short')).not.toBeNull();
  await user.type(field, '.');
  expect(screen.queryByText('too short')).toBeNull();
  jest.useRealTimers();
});
