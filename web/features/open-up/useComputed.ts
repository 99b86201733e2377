import { useEffect, useRef, useState } from 'react';
import { latestOnly } from '../../documents/answer/workers/latestOnly';

/**
 * What a worker makes of something that changes while one types; the last answer stays until the next is there.
 *
 * @param input compared by identity
 * @param make asks the worker
 */
export function useComputed<I, O>(
  input: I,
  make: (input: I) => Promise<O>,
): { value: O | null; fresh: boolean; error: string | null } {
  const [answer, setAnswer] = useState<{ of: I | null; value: O | null; error: string | null }>({
    of: null,
    value: null,
    error: null,
  });
  const submit = useRef(latestOnly());
  const ask = useRef(make);
  useEffect(() => {
    ask.current = make;
  });
  useEffect(() => {
    let open = true;
    submit.current(async () => {
      try {
        const value = await ask.current(input);
        if (open) setAnswer({ of: input, value, error: null });
      } catch (cause) {
        if (open) setAnswer((a) => ({ ...a, error: (cause as Error).message }));
      }
    });
    return () => {
      open = false;
    };
  }, [input]);
  return { value: answer.value, fresh: answer.of === input, error: answer.error };
}
