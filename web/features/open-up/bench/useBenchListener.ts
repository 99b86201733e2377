import { useEffect, useRef, type RefObject } from 'react';

/**
 * Hears the keys of the whole screen while the bench is open.
 *
 * @param dialog the bench
 * @param onKey does what a key does; whether it does anything
 */
export function useBenchListener(
  dialog: RefObject<HTMLDialogElement | null>,
  onKey: (key: string) => boolean,
): void {
  const latest = useRef(onKey);
  useEffect(() => {
    latest.current = onKey;
  });
  useEffect(() => {
    const listen = (e: KeyboardEvent) => {
      if (e.ctrlKey || e.metaKey || e.altKey) return;
      // left already: the key is the page's, and must not log a screw
      if (!dialog.current?.open) return;
      const typing = e.target instanceof HTMLInputElement;
      if (typing && e.key !== 'Escape') return;
      // whoever went to a button by Tab means the button
      if (e.key === 'Enter' && e.target instanceof HTMLButtonElement) return;
      // another dialog lies over the bench
      if (document.querySelectorAll('dialog[open]').length > 1) return;
      if (!latest.current(e.key)) return;
      e.preventDefault();
      e.stopPropagation();
    };
    window.addEventListener('keydown', listen, true);
    return () => window.removeEventListener('keydown', listen, true);
  }, [dialog]);
}
