/**
 * Whether keys go into it. A checkbox among fields counts: a hand that types on there must not give commands. Not so one that
 * chooses a row of a list (`data-chooses`), which knows Space alone.
 */
export const isTypedIn = (x: unknown): x is HTMLElement =>
  x instanceof HTMLElement &&
  (x.isContentEditable || x.matches('input:not([data-chooses]), select, textarea'));

let last: HTMLElement | null = null;
let watching = false;

/** Remembers the field in hand; one that is left by hand is forgotten. */
function watch(): void {
  watching = true;
  window.addEventListener('focusin', (e) => {
    last = isTypedIn(e.target) ? e.target : null;
  });
  window.addEventListener('focusout', (e) => {
    const left = e.target;
    // one that was taken off the page is gone only when that is done
    queueMicrotask(() => {
      if (left === last && last?.isConnected) last = null;
    });
  });
  const forget = () => {
    last = null;
  };
  window.addEventListener('pointerdown', forget, true);
  window.addEventListener(
    'keydown',
    (e) => {
      if (e.key === 'Escape' || e.key === 'Tab') forget();
    },
    true,
  );
}

/**
 * Whether the field in hand went away under it, so that what is typed on must not be taken for commands. A click, Escape, Tab or
 * another field end it.
 */
export function fieldWentAway(): boolean {
  if (!watching) watch();
  return last !== null && !last.isConnected && document.activeElement === document.body;
}
