import { useEffect } from 'react';

/** What one types or chooses in; a group of chips is one stop, and so is the button that adds or goes on. */
const STOPS = [
  'input:not([type=hidden]):not([type=file]):not(:disabled)',
  'select:not(:disabled)',
  'textarea:not(:disabled)',
  '[data-chips]',
  'button[data-onward]:not(:disabled)',
].join(', ');

const isField = (x: Element): x is HTMLElement => x.matches('input, select, textarea');
const chipsAt = (x: Element): HTMLElement | null => x.closest<HTMLElement>('[data-chips]');

const seen = (x: Element): boolean =>
  // not known in every environment; there all is seen
  (typeof x.checkVisibility !== 'function' || x.checkVisibility()) &&
  x.getAttribute('tabindex') !== '-1';

function stopsIn(root: ParentNode): HTMLElement[] {
  return [...root.querySelectorAll<HTMLElement>(STOPS)].filter(
    (x) => seen(x) && (!x.matches('[data-chips]') || x.querySelector('button')),
  );
}

/** Puts the hand into a field; what is in a text stands ready to be typed over. */
export function enterField(stop: HTMLElement): void {
  const target = stop.matches('[data-chips]') ? stop.querySelector<HTMLElement>('button')! : stop;
  target.focus();
  if (target instanceof HTMLInputElement && target.type !== 'checkbox') target.select();
  target.scrollIntoView?.({ block: 'nearest', inline: 'nearest' });
}

/** The first field in which nothing stands yet, else the first one. */
export function firstField(root: ParentNode): HTMLElement | undefined {
  const stops = stopsIn(root).filter((x) => !x.matches('button'));
  const empty = (x: HTMLElement) =>
    x instanceof HTMLInputElement && /^(text|search)$/.test(x.type) && x.value === '';
  return stops.find(empty) ?? stops[0];
}

function goOn(from: HTMLElement, back: boolean): void {
  const here = chipsAt(from) ?? from;
  const stops = stopsIn(here.closest('dialog, main') ?? document);
  const place = stops.indexOf(here);
  const next = place < 0 ? undefined : stops[place + (back ? -1 : 1)];
  // from the last one there is no further: the hand stays where it is
  if (next) enterField(next);
}

function onKeyDown(e: KeyboardEvent): void {
  if (e.defaultPrevented || e.ctrlKey || e.metaKey || e.altKey || e.isComposing) return;
  const { target } = e;
  if (!(target instanceof HTMLElement)) return;
  const field = isField(target);
  if (!field && !chipsAt(target)) {
    // with no field in hand Enter takes one up, where a page is made of fields
    const page = document.querySelector('main[data-fields]');
    if (e.key !== 'Enter' || !page || (target !== document.body && target !== page)) return;
    if (document.querySelector('dialog[open]')) return;
    const first = firstField(page);
    if (!first) return;
    e.preventDefault();
    enterField(first);
    return;
  }
  if (e.key === 'Escape') {
    if (target.closest('dialog')) return;
    // a search field would be emptied by it
    e.preventDefault();
    target.blur();
  } else if (e.key === 'Enter') {
    // lines of a text are its own; a form is sent by it
    if (target instanceof HTMLTextAreaElement) return;
    if (target instanceof HTMLInputElement && target.form && target.type !== 'checkbox') return;
    e.preventDefault();
    goOn(target, e.shiftKey);
  }
}

/**
 * Keys inside any field of the page: Enter goes on to the next field or choice in reading order and from the last one to the
 * button that adds or goes on, Shift+Enter back; Escape leaves the field so that single keys work again. Fields with a meaning of
 * their own for these keys answer them first.
 */
export function useFieldOrder(): void {
  useEffect(() => {
    window.addEventListener('keydown', onKeyDown);
    return () => window.removeEventListener('keydown', onKeyDown);
  }, []);
}
