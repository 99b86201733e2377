import { useCallback, useEffect, useRef, useState } from 'react';
import {
  changeAttachment,
  factsOf,
  type Attachment,
  type AttachmentFacts,
} from '../api/attachments';
import type { HttpProblem } from '../api/http';

const SAVE_AFTER_MS = 400;
const RETRY_AFTER_MS = 4000;

export type FactsState =
  | { kind: 'saved' | 'saving' | 'away' }
  | { kind: 'refused'; message: string }
  | { kind: 'conflict'; current: Attachment };

/**
 * What is known of one photo or paper while it is changed: shown at once, saved shortly after and when the view closes, with
 * undo. Of a change in another window one chooses.
 */
export function useFacts(attachment: Attachment, replace: (a: Attachment) => void) {
  const [facts, setFacts] = useState(factsOf(attachment));
  const [past, setPast] = useState<AttachmentFacts[]>([]);
  const [state, setState] = useState<FactsState>({ kind: 'saved' });
  const latest = useRef({ facts, base: attachment, dirty: false, busy: false, stopped: false });
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);

  const save = useCallback(async () => {
    clearTimeout(timer.current);
    const now = latest.current;
    if (!now.dirty || now.busy || now.stopped) return;
    now.dirty = false;
    now.busy = true;
    setState({ kind: 'saving' });
    try {
      const saved = await changeAttachment(now.base, now.facts);
      now.base = saved;
      replace(saved);
      setState({ kind: 'saved' });
    } catch (cause) {
      const { status, message, body } = cause as HttpProblem;
      now.dirty = true;
      if (status === 412) {
        now.stopped = true;
        setState({ kind: 'conflict', current: body['current'] as Attachment });
      } else if (status === 0 || status >= 500) {
        setState({ kind: 'away' });
        timer.current = setTimeout(() => void save(), RETRY_AFTER_MS);
      } else setState({ kind: 'refused', message });
      return;
    } finally {
      now.busy = false;
    }
    if (now.dirty) await save();
  }, [replace]);

  const put = (next: AttachmentFacts) => {
    latest.current.facts = next;
    latest.current.dirty = true;
    setFacts(next);
    clearTimeout(timer.current);
    timer.current = setTimeout(() => void save(), SAVE_AFTER_MS);
  };
  // what was typed last is sent when the view closes
  useEffect(
    () => () => {
      void save();
    },
    [save],
  );
  return {
    facts,
    state,
    change(part: Partial<AttachmentFacts>) {
      setPast((p) => [...p, facts].slice(-100));
      put({ ...facts, ...part });
    },
    /** Sends what is not saved yet; false where it could not be. */
    async flush(): Promise<boolean> {
      const now = latest.current;
      for (let k = 0; now.busy && k < 100; k++) {
        await new Promise((resolve) => setTimeout(resolve, 50));
      }
      await save();
      return !now.dirty && !now.busy;
    },
    undo() {
      const before = past.at(-1);
      if (!before) return;
      setPast((p) => p.slice(0, -1));
      put(before);
    },
    choose(mine: boolean) {
      if (state.kind !== 'conflict') return;
      const now = latest.current;
      now.base = state.current;
      now.stopped = false;
      if (mine) {
        void save();
        return;
      }
      now.dirty = false;
      now.facts = factsOf(state.current);
      setFacts(now.facts);
      setPast([]);
      replace(state.current);
      setState({ kind: 'saved' });
    },
  };
}
