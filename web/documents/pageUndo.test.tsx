/** @jest-environment jsdom */
import { render, screen } from '@testing-library/react';
import { usePageUndo, useUndoWords, type PageUndo } from './pageUndo';

const RECORD = { undo: 'depth', redo: null };

function Head() {
  const { undo, redo } = useUndoWords(RECORD);
  return (
    <p data-testid="head">
      {String(undo)} · {String(redo)}
    </p>
  );
}
function Page(own: PageUndo) {
  usePageUndo(own);
  return null;
}
const head = () => screen.getByTestId('head').textContent;
const shown = (own: PageUndo | null) => (
  <>
    <Head />
    {own && <Page {...own} />}
  </>
);

test('the head tells what undo takes back: the page’s own first, the record’s where the page reaches it, again the record’s when the page is left', () => {
  const { rerender } = render(shown(null));
  expect(head()).toBe('depth · null');
  rerender(shown({ undo: 'a mark', redo: 'another', isAlone: false }));
  expect(head()).toBe('a mark · another');
  rerender(shown({ undo: null, redo: 'another', isAlone: false }));
  expect(head()).toBe('depth · another');
  rerender(shown({ undo: null, redo: null, isAlone: true }));
  expect(head()).toBe('null · null');
  rerender(shown(null));
  expect(head()).toBe('depth · null');
});
