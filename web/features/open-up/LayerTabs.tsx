import { useState } from 'react';
import type { OpenUpLog } from '../../api/openUp';

/** Layers of the machine, outermost first; one more is named and stands at the end. */
export function LayerTabs({
  log,
  at,
  choose,
  add,
}: {
  log: OpenUpLog;
  at: string;
  choose: (id: string) => void;
  add: (name: string) => void;
}) {
  const [name, setName] = useState<string | null>(null);
  return (
    <div className="flex flex-wrap items-baseline gap-x-4 gap-y-1">
      {log.layers.map((l) => (
        <button
          key={l.id}
          type="button"
          aria-pressed={l.id === at}
          className={`cursor-pointer ${l.id === at ? 'font-semibold' : 'text-quiet hover:text-ink'}`}
          onClick={() => choose(l.id)}
        >
          {l.name}
        </button>
      ))}
      {name === null ? (
        <button
          type="button"
          className="text-[0.9rem] text-quiet underline underline-offset-2 cursor-pointer hover:text-ink"
          onClick={() => setName('')}
        >
          add a layer
        </button>
      ) : (
        <form
          onSubmit={(e) => {
            e.preventDefault();
            if (name.trim()) add(name.trim());
            setName(null);
          }}
        >
          <input
            className="input input-xs w-32"
            aria-label="name of the layer"
            placeholder="mid-frame"
            maxLength={80}
            autoFocus
            value={name}
            onChange={(e) => setName(e.currentTarget.value)}
            onKeyDown={(e) => e.key === 'Escape' && setName(null)}
            onBlur={() => setName(null)}
          />
        </form>
      )}
    </div>
  );
}
