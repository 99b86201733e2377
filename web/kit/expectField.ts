/** How long a field may take to appear before what was typed for it is given up. */
const MAX_WAIT_MS = 4000;

let typed: string[] = [];
let end: (() => void) | null = null;

const isField = (x: unknown): x is HTMLElement =>
  x instanceof HTMLElement && x.matches('input, textarea');

/** A key that was pressed before its field was there. */
function typeKey(key: string): void {
  const field = document.activeElement;
  if (!isField(field)) return;
  if (key !== 'Enter') document.execCommand('insertText', false, key);
  else field.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }));
}

/**
 * After a key that leads to a field which is not there yet: what is typed meanwhile goes into that field instead of being taken
 * for commands. Escape, a click or a long wait ends it.
 */
export function expectField(): void {
  end?.();
  typed = [];
  const stop = new AbortController();
  const { signal } = stop;
  const timer = setTimeout(() => end?.(), MAX_WAIT_MS);
  end = () => {
    clearTimeout(timer);
    stop.abort();
    end = null;
  };
  window.addEventListener(
    'keydown',
    (e) => {
      if (e.ctrlKey || e.metaKey || e.altKey || isField(e.target)) return;
      if (e.key === 'Escape') {
        end?.();
        return;
      }
      if (e.key === 'Backspace') typed.pop();
      else if (e.key.length === 1 || e.key === 'Enter') typed.push(e.key);
      e.preventDefault();
      e.stopImmediatePropagation();
    },
    { capture: true, signal },
  );
  window.addEventListener('pointerdown', () => end?.(), { capture: true, signal });
  window.addEventListener(
    'focusin',
    (e) => {
      const field = e.target;
      const keys = typed;
      if (!isField(field)) return;
      end?.();
      // once it is ready to be typed over
      queueMicrotask(() => keys.forEach(typeKey));
    },
    { signal },
  );
}
