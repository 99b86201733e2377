import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { copyForLike } from '@zugluft/core/family/markAssumed';
import { listMachines, readMachine } from '../../api/machines';
import type { Draft } from '../../documents/record/draft';
import { useMachineFile } from '../../documents/record/MachineFile';

const SHOWN = 5;

/** Starts from a machine of the library: its figures stand in, each marked as assumed, until they are measured here. */
export function LikeAnother() {
  const { machine, change } = useMachineFile();
  const [open, setOpen] = useState(false);
  const [words, setWords] = useState('');
  const [failed, setFailed] = useState<string | null>(null);
  const query = new URLSearchParams({ q: words, pageSize: String(SHOWN + 1) }).toString();
  const { data } = useQuery({
    queryKey: ['machines', 'like', words],
    queryFn: ({ signal }) => listMachines(query, signal),
    enabled: open,
  });
  const take = async (id: string, name: string) => {
    try {
      const { record } = await readMachine(id);
      const copy = copyForLike(record, name);
      // what it is called is its own
      change((d) => ({ ...copy, identity: d['identity'] ?? {} }) as Draft, 'count.like');
      setFailed(null);
    } catch (cause) {
      setFailed((cause as Error).message);
    }
  };
  const items = (data?.items ?? []).filter((m) => m.id !== machine.id).slice(0, SHOWN);
  if (!open) {
    return (
      <button
        type="button"
        className="underline underline-offset-2 cursor-pointer text-quiet hover:text-ink"
        onClick={() => setOpen(true)}
      >
        start from a machine like this one
      </button>
    );
  }
  return (
    <section aria-label="start from a machine like this one" className="pt-1">
      <input
        type="search"
        autoFocus
        className="input input-sm w-full"
        aria-label="a machine like this one"
        placeholder="like … maker, model, variant"
        maxLength={100}
        value={words}
        onChange={(e) => setWords(e.currentTarget.value)}
      />
      <ul>
        {items.map((m) => {
          const name = [m.maker, m.model, m.variant].filter(Boolean).join(' ');
          return (
            <li key={m.id}>
              <button
                type="button"
                data-onward
                className="text-left w-full py-0.5 cursor-pointer hover:underline underline-offset-2"
                onClick={() => void take(m.id, name)}
              >
                {name || 'without a name'}
              </button>
            </li>
          );
        })}
      </ul>
      {data && items.length === 0 && <p className="text-quiet">No machine has these words.</p>}
      {failed && (
        <p role="alert" className="text-heat">
          It could not be read: {failed}
        </p>
      )}
    </section>
  );
}
