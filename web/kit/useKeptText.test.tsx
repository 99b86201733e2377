/** @jest-environment jsdom */
import { act, fireEvent, render, screen, waitFor } from '@testing-library/react';
import { IDBFactory } from 'fake-indexeddb';
import { set, createStore } from 'idb-keyval';
import { browserTextShelf, type TextShelf } from './keptTexts';
import { useKeptText } from './useKeptText';

beforeAll(() => {
  globalThis.structuredClone ??= (x: unknown) => JSON.parse(JSON.stringify(x));
});
beforeEach(() => {
  globalThis.indexedDB = new IDBFactory();
});

function Row({ shelf, name = 'row' }: { shelf: TextShelf; name?: string }) {
  const [texts, setTexts, kept] = useKeptText(name, shelf);
  return (
    <>
      <input
        aria-label="speed"
        value={texts[1] ?? ''}
        onChange={(e) => setTexts(['', e.currentTarget.value])}
      />
      {!kept && <p>not kept</p>}
    </>
  );
}
const field = () => screen.getByLabelText<HTMLInputElement>('speed');
const type = (value: string) => fireEvent.change(field(), { target: { value } });
const leave = () => {
  const e = new Event('beforeunload', { cancelable: true });
  window.dispatchEvent(e);
  return e.defaultPrevented;
};

test('what was typed is there again, gaps too; empty fields leave nothing behind', async () => {
  const shelf = browserTextShelf();
  const { unmount } = render(<Row shelf={shelf} />);
  type('4800');
  await waitFor(async () => expect(await shelf.read('row')).toEqual(['', '4800']));
  unmount();
  const again = render(<Row shelf={browserTextShelf()} />);
  await waitFor(() => expect(field().value).toBe('4800'));
  type('');
  await waitFor(async () => expect(await shelf.read('row')).toEqual([]));
  again.unmount();
  expect(leave()).toBe(false);
});

test('what somebody else wrote there is no text', async () => {
  await set('row', ['a', 3, null], createStore('zugluft-rows', 'texts'));
  expect(await browserTextShelf().read('row')).toEqual(['a', '', '']);
  await set('row', { a: 1 }, createStore('zugluft-rows', 'texts'));
  expect(await browserTextShelf().read('row')).toEqual([]);
});

test('what is typed before the kept text is read is not written over by it', async () => {
  let give!: (texts: string[]) => void;
  const slow: TextShelf = {
    read: () => new Promise((resolve) => (give = resolve)),
    keep: async () => undefined,
  };
  render(<Row shelf={slow} />);
  type('12');
  await act(async () => give(['', '99']));
  expect(field().value).toBe('12');
});

test('where the browser keeps nothing it is said, and leaving is asked about until it is kept', async () => {
  let full = true;
  const store: TextShelf = {
    read: async () => {
      throw new Error('no database');
    },
    keep: async () => {
      if (full) throw new DOMException('full', 'QuotaExceededError');
    },
  };
  render(<Row shelf={store} />);
  type('12');
  await screen.findByText('not kept');
  expect(leave()).toBe(true);
  full = false;
  type('123');
  await waitFor(() => expect(screen.queryByText('not kept')).toBeNull());
  expect(leave()).toBe(false);
});
