import type { Attachment } from '../api/attachments';
import type { HttpProblem } from '../api/http';

/** A photo or paper on its way to the server. */
export interface Sending {
  key: number;
  name: string;
  path: string;
  file: File;
  state: 'waiting' | 'sending' | 'away' | 'refused';
  /** Why it was refused. */
  message: string;
}

export interface SendQueue {
  add(files: readonly File[], path: string): void;
  /** Takes one off, also while it is being sent; all without a key. */
  cancel(key?: number): void;
  retry(): void;
  /** How many were sent since nothing waited. */
  sent(): number;
}

/**
 * Sends files one after the other and keeps those that did not arrive: where the server is away they are tried again, where it
 * refuses one it says why.
 *
 * @param send sends one
 * @param changed told after each change, with what is still on its way
 * @param arrived told of each that the server has taken
 * @param retryMs after how long a server that was away is tried again
 */
export function createSendQueue(
  send: (file: File, path: string, signal: AbortSignal) => Promise<Attachment>,
  changed: (items: readonly Sending[]) => void,
  arrived: (a: Attachment) => void,
  retryMs = 4000,
): SendQueue {
  let items: Sending[] = [];
  let next = 1;
  let done = 0;
  let running: { key: number; abort: AbortController } | null = null;
  const set = (to: Sending[]) => {
    items = to;
    changed(items);
  };
  const patch = (key: number, change: Partial<Sending>) =>
    set(items.map((i) => (i.key === key ? { ...i, ...change } : i)));
  const drop = (key: number) => set(items.filter((i) => i.key !== key));

  const step = async (): Promise<void> => {
    if (running) return;
    const item = items.find((i) => i.state === 'waiting');
    if (!item) {
      if (!items.length) done = 0;
      return;
    }
    const abort = new AbortController();
    running = { key: item.key, abort };
    patch(item.key, { state: 'sending' });
    try {
      const taken = await send(item.file, item.path, abort.signal);
      done++;
      drop(item.key);
      arrived(taken);
    } catch (cause) {
      const { status, message, name } = cause as HttpProblem;
      if (name === 'AbortError') drop(item.key);
      else if (status === 0 || status >= 500) {
        set(items.map((i) => (i.state === 'refused' ? i : { ...i, state: 'away' })));
        setTimeout(retry, retryMs);
      } else patch(item.key, { state: 'refused', message });
    }
    running = null;
    void step();
  };
  const retry = () => {
    if (items.some((i) => i.state === 'away')) {
      set(items.map((i) => (i.state === 'away' ? { ...i, state: 'waiting' } : i)));
    }
    void step();
  };

  return {
    add(files, path) {
      set([
        ...items,
        ...files.map((file) => ({
          key: next++,
          name: file.name,
          path,
          file,
          state: 'waiting' as const,
          message: '',
        })),
      ]);
      void step();
    },
    cancel(key) {
      const gone = (i: Sending) => key === undefined || i.key === key;
      if (running && (key === undefined || running.key === key)) running.abort.abort();
      set(items.filter((i) => !gone(i) || i.state === 'sending'));
    },
    retry,
    sent: () => done,
  };
}
