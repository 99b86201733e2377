import { useLayoutEffect, useRef } from 'react';
import { fieldWentAway, isTypedIn } from './lostFocus';

/** Keys of the page: `n`, `?`, `mod+z`, `shift+mod+z`, `ArrowLeft`. */
export type KeyMap = Record<string, () => void>;

function nameOf(event: KeyboardEvent): string {
  const mod = event.ctrlKey || event.metaKey;
  const key = event.key.length === 1 ? event.key.toLowerCase() : event.key;
  return `${event.shiftKey && mod ? 'shift+' : ''}${mod ? 'mod+' : ''}${key}`;
}

/**
 * Listens for keys while the component is shown. Single keys work where no field is focused; those with mod work everywhere.
 *
 * @param first before those of the page around it, such as an undo of its own
 */
export function useKeys(keys: KeyMap, active = true, first = false): void {
  const latest = useRef(keys);
  // before the screen shows, so that a key pressed at first sight is not lost
  useLayoutEffect(() => {
    latest.current = keys;
  });
  useLayoutEffect(() => {
    if (!active) return;
    // begins to watch the field in hand
    fieldWentAway();
    const listen = (event: KeyboardEvent) => {
      if (event.defaultPrevented || event.altKey) return;
      const name = nameOf(event);
      const run = latest.current[name];
      if (!run) return;
      if (!name.includes('mod+') && (isTypedIn(event.target) || fieldWentAway())) return;
      // Enter on a link goes where it leads
      if (name === 'Enter' && event.target instanceof HTMLAnchorElement) return;
      if (document.querySelector('dialog[open]') && !name.includes('mod+')) return;
      event.preventDefault();
      run();
    };
    window.addEventListener('keydown', listen, first);
    return () => window.removeEventListener('keydown', listen, first);
  }, [active, first]);
}
