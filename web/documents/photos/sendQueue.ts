import type { Attachment } from '../../api/attachments';
import type { HttpProblem } from '../../api/http';
import { browserShelf, type Shelf } from './shelf';

/** A photo or paper on its way to the server. */
export interface Sending {
  key: number;
  /** By which the server knows it, however often it is sent. */
  id: string;
  name: string;
  path: string;
  file: File;
  state: 'waiting' | 'sending' | 'away' | 'refused';
  /** Why it was refused. */
  message: string;
  /** It lies in this browser's database too: the page can be left. */
  shelved: boolean;
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
 * @param machineId whose they are
 * @param send sends one
 * @param changed told after each change, with what is still on its way
 * @param arrived told of each that the server has taken
 * @param retryMs after how long a server that was away is tried again
 */
export function createSendQueue(
  machineId: string,
  send: (item: Sending, signal: AbortSignal) => Promise<Attachment>,
  changed: (items: readonly Sending[]) => void,
  arrived: (a: Attachment) => void,
  retryMs = 4000,
  shelf: Shelf = browserShelf,
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
  const drop = (key: number) => {
    const gone = items.find((i) => i.key === key);
    set(items.filter((i) => i.key !== key));
    if (gone) void shelf.drop(gone.id);
  };

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
      const taken = await send(item, abort.signal);
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

  // what a closed page or a power cut left
  void shelf.of(machineId).then((waiting) => {
    const known = new Set(items.map((i) => i.id));
    const added = waiting
      .filter((w) => !known.has(w.id))
      .map(({ id, path, file }): Sending => ({
        key: next++,
        id,
        name: file.name,
        path,
        file,
        state: 'waiting',
        message: '',
        shelved: true,
      }));
    if (!added.length) return;
    set([...items, ...added]);
    void step();
  });

  return {
    add(files, path) {
      const added = files.map((file): Sending => ({
        key: next++,
        id: crypto.randomUUID(),
        name: file.name,
        path,
        file,
        state: 'waiting',
        message: '',
        shelved: false,
      }));
      set([...items, ...added]);
      for (const { key, id, file } of added) {
        void shelf.put({ id, machineId, path, file }).then((shelved) => {
          if (!shelved) return;
          // it may have gone meanwhile
          if (items.some((i) => i.key === key)) patch(key, { shelved });
          else void shelf.drop(id);
        });
      }
      void step();
    },
    cancel(key) {
      const gone = (i: Sending) => key === undefined || i.key === key;
      if (running && (key === undefined || running.key === key)) running.abort.abort();
      const left = items.filter((i) => gone(i) && i.state !== 'sending');
      set(items.filter((i) => !gone(i) || i.state === 'sending'));
      for (const { id } of left) void shelf.drop(id);
    },
    retry,
    sent: () => done,
  };
}
