import type { KeyboardEvent } from 'react';

/**
 * Keys inside a field of a step: Enter goes on to the next figure, Shift+Enter back, Escape leaves the field so that single
 * keys work again.
 */
export function fieldKeys(e: KeyboardEvent<HTMLElement>): void {
  if (e.ctrlKey || e.metaKey || e.altKey) return;
  if (e.key === 'Escape') {
    e.currentTarget.blur();
    return;
  }
  if (e.key !== 'Enter') return;
  e.preventDefault();
  const all = [...document.querySelectorAll<HTMLElement>('main [data-figure]')];
  const here = e.currentTarget;
  const next = e.shiftKey
    ? all.filter((f) => f.compareDocumentPosition(here) & Node.DOCUMENT_POSITION_FOLLOWING).pop()
    : all.find((f) => f.compareDocumentPosition(here) & Node.DOCUMENT_POSITION_PRECEDING);
  if (next) next.focus();
  else here.blur();
}
